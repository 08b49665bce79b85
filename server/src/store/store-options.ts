import type { DataSourceOptions } from 'typeorm';
import type Database from 'better-sqlite3';
import { Seed } from '../demo/seed.entity.ts';
import { Entry } from '../entries/entry.entity.ts';
import { Job } from '../jobs/job.entity.ts';
import { Session } from '../access/session.entity.ts';
import { MIGRATIONS } from './migrations.ts';

/**
 * SQLite with a write-ahead log; migrations run when the server starts. What is acknowledged is on the disk: with
 * `synchronous = FULL` every commit waits until the log is written through.
 */
export function storeOptions(database: string): DataSourceOptions {
  return {
    type: 'better-sqlite3',
    database,
    enableWAL: database !== ':memory:',
    prepareDatabase: (store: Database.Database) => {
      store.pragma('synchronous = FULL');
    },
    entities: [Entry, Seed, Job, Session],
    migrations: MIGRATIONS,
    migrationsRun: true,
    synchronize: false,
  };
}
