import { BinEntries1700000000004 } from '../entries/bin-entries.migration.ts';
import { BoundJobs1700000000003 } from '../jobs/bound-jobs.migration.ts';
import { CreateJobs1700000000001 } from '../jobs/create-jobs.migration.ts';
import { CreateEntries1700000000000 } from '../entries/create-entries.migration.ts';
import { CreateSessions1700000000005 } from '../access/create-sessions.migration.ts';
import { OwnJobs1700000000006 } from '../jobs/own-jobs.migration.ts';
import { ShowEntries1700000000002 } from '../entries/show-entries.migration.ts';

/** Every change of the layout of the store, the oldest first. */
export const MIGRATIONS = [
  CreateEntries1700000000000,
  CreateJobs1700000000001,
  ShowEntries1700000000002,
  BoundJobs1700000000003,
  BinEntries1700000000004,
  CreateSessions1700000000005,
  OwnJobs1700000000006,
];
