import type { DataSourceOptions } from 'typeorm';
import { CreateJobs1700000000001 } from './jobs/create-jobs.migration.ts';
import { Job } from './jobs/job.entity.ts';
import { CreateEntries1700000000000 } from './entries/create-entries.migration.ts';
import { Entry } from './entries/entry.entity.ts';
import { Seed } from './demo/seed.entity.ts';

/** SQLite with a write-ahead log; migrations run when the server starts. */
export function storeOptions(database: string): DataSourceOptions {
  return {
    type: 'better-sqlite3',
    database,
    enableWAL: database !== ':memory:',
    entities: [Entry, Seed, Job],
    migrations: [CreateEntries1700000000000, CreateJobs1700000000001],
    migrationsRun: true,
    synchronize: false,
  };
}
