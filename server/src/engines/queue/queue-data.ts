import type { JobRequest, Task, TaskKey, TaskOutcome } from '../../tasks/task.ts';

/** What all keys of this program in Redis begin with. */
export const PREFIX = 'schritt';

/** What the entry of a whole job in the queue holds: what all of its tasks share. */
export interface WholeData {
  readonly kind: 'whole';
  readonly request: JobRequest;
  /** Seconds that one task may take. */
  readonly limit: number;
  /** Whether nobody wants it any longer. */
  readonly isDropped: boolean;
}

/** What the entry of a task holds. */
export interface TaskData {
  readonly kind: 'task';
  /** The entry of its job. */
  readonly whole: string;
  readonly key: TaskKey;
  readonly task: Task;
}

export type EntryData = WholeData | TaskData;

/** What an entry comes to; null for that of a whole job, whose results are those of its children. */
export type EntryResult = TaskOutcome | null;

/** The name of a task's entry; the same again for the same task, so that none is there twice. */
export function entryId(whole: string, key: TaskKey): string {
  return `${whole}.${key}`;
}

/** The job and the task that an entry's name stands for; without a task for that of a whole job. */
export function entryOf(id: string): { readonly whole: string; readonly key: TaskKey | null } {
  const [whole = '', ...key] = id.split('.');
  return { whole, key: key.length === 0 ? null : key.join('.') };
}

/** The place of a task among the others of its group, from the name of its entry. */
export function placeOf(entryKey: string): number {
  return Number(entryKey.split('.').at(-1));
}

/** The name of an event by which a server tells workers that nobody wants a job any longer. */
export const DROPPED = 'dropped';
