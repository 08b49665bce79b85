import type { ExportQuery, RunExport, StudyDocument, StudyTable } from '@schritt/core/document';
import type { Layout, MarkRule, SubmittedText, VariantRequest } from '@schritt/core/marking';

/** A file that is exported of a study. */
export type FileQuery = Omit<ExportQuery, 'what'> & { readonly what: RunExport | StudyTable };

/** What a job is asked to do; all of its tasks read from it. */
export type JobRequest = { readonly document: StudyDocument } & (
  | { readonly kind: 'study' }
  /** Files of the study with other numbers for every sheet. */
  | {
      readonly kind: 'sheets';
      readonly variants: VariantRequest;
      readonly files: readonly FileQuery[];
    }
  /** What a class has handed in, compared with one run or with those of its sheets. */
  | {
      readonly kind: 'marking';
      readonly run: Pick<ExportQuery, 'method' | 'h' | 'steps'>;
      readonly variants: VariantRequest | null;
      readonly layout: Layout;
      readonly rule: MarkRule;
      readonly texts: readonly SubmittedText[];
    }
);

/** A request of one kind. */
export type RequestOf<K extends JobRequest['kind']> = Extract<JobRequest, { readonly kind: K }>;

/** A part of a job that one thread does without stopping in between. */
export type Task =
  /** A method of the study at some of its step sizes. */
  | { readonly kind: 'runs'; readonly method: number; readonly rungs: readonly number[] }
  /** All runs of a method, from those of its pieces. */
  | { readonly kind: 'method'; readonly method: number }
  /** The files of a sheet, by its number from 1. */
  | { readonly kind: 'sheet'; readonly number: number }
  /** Some of the students that hand something in, in their order. */
  | { readonly kind: 'students'; readonly from: number; readonly to: number }
  /** The files of all sheets, or of a class, as an archive. */
  | { readonly kind: 'archive' };

/** A task of a plan, with what it weighs. */
export interface PlannedTask {
  readonly task: Task;
  /** About how long it takes on one core. */
  readonly seconds: number;
  /** Runs, sheets or students in it, as they are counted for a person. */
  readonly runs: number;
}

/** Tasks that may be done in any order and anywhere, and one that is done with what all of them come to. */
export interface TaskGroup {
  readonly tasks: readonly PlannedTask[];
  readonly last: PlannedTask;
}

/** How a job is done: groups of tasks, independent of one another. */
export type Plan = readonly TaskGroup[];

/** Where a task is in its plan: `2.0` is the first one of the third group, `2` the last one of that group. */
export type TaskKey = string;

/** The key of a task of a group, or of the last one of the group. */
export function taskKey(group: number, task: number | null): TaskKey {
  return task === null ? String(group) : `${group}.${task}`;
}

/** All tasks of a plan by their keys. */
export function tasksByKey(plan: Plan): ReadonlyMap<TaskKey, PlannedTask> {
  return new Map(
    plan.flatMap(({ tasks, last }, group) => [
      ...tasks.map((task, i) => [taskKey(group, i), task] as const),
      [taskKey(group, null), last] as const,
    ]),
  );
}

/**
 * What a task comes to. Results are JSON from where they are made: they have the same digits wherever that is, and nothing in
 * between reads them.
 */
export type TaskOutcome =
  | { readonly kind: 'done'; readonly text: string }
  /** With a sentence for the person who asked for the job. */
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'too long' };

/** A task and all that it needs. */
export interface TaskInput {
  readonly request: JobRequest;
  readonly task: Task;
  /** The results of the other tasks of its group, in their order, for the last one. */
  readonly results: readonly string[];
}
