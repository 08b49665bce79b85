import type { DataSourceOptions } from 'typeorm';
import { CreateEntries1700000000000 } from './create-entries.migration.ts';
import { Entry } from './entry.entity.ts';
import { Seed } from './seed.entity.ts';

/** SQLite with a write-ahead log; migrations run when the server starts. */
export function storeOptions(database: string): DataSourceOptions {
  return {
    type: 'better-sqlite3',
    database,
    enableWAL: database !== ':memory:',
    entities: [Entry, Seed],
    migrations: [CreateEntries1700000000000],
    migrationsRun: true,
    synchronize: false,
  };
}
