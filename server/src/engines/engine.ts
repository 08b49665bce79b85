import type { JobRequest, Plan, TaskKey, TaskOutcome } from '../tasks/task.ts';

/** A job as an engine does it. */
export interface Work {
  readonly id: string;
  /** For whom: engines share their time between owners. */
  readonly owner: string;
  readonly request: JobRequest;
  readonly plan: Plan;
}

/** What happens to a task of a job under way. */
export type TaskEvent =
  | { readonly kind: 'begun'; readonly key: TaskKey }
  | { readonly kind: 'part'; readonly key: TaskKey; readonly part: number }
  | { readonly kind: 'done'; readonly key: TaskKey; readonly text: string }
  /** It waits once more, as what did it is gone. */
  | { readonly kind: 'lost'; readonly key: TaskKey };

/** The reason of a signal by which the server leaves a job that is to go on without it, or later. */
export class Leaving extends Error {
  override readonly name = 'Leaving';
}

/** A job cannot be done, for a reason that concerns the person who asked for it. */
export class JobRefusal extends Error {
  override readonly name = 'JobRefusal';
}

/** Where an engine is: workers that take tasks, and whether they can be reached. */
export interface EngineState {
  /** Null where the server itself does the tasks. */
  readonly workers: number | null;
  readonly isReached: boolean;
}

/** Does the tasks of jobs: on threads of this process, or on any number of machines. */
export abstract class Engine {
  /** Whether tasks go on while the server is not there. */
  abstract readonly outlivesServer: boolean;

  abstract readonly state: EngineState;

  /**
   * Does a job, or goes on with one that it has under the same name.
   *
   * @param signal ends the job, or leaves it where its reason is `Leaving`
   * @param hear is called with what happens to tasks; a task may be reported as done more than once, with the same result
   * @returns the results of the last tasks of all groups, in their order
   * @throws JobRefusal where a task cannot be done, JobTooLong where one takes too long; the reason of the signal when it ends the job
   */
  abstract run(work: Work, signal: AbortSignal, hear: (event: TaskEvent) => void): Promise<readonly string[]>;
}

/** A task took longer than a whole job may. */
export class JobTooLong extends Error {
  override readonly name = 'JobTooLong';
}

/** The result of a task, or what ends its job. */
export function resultOf(outcome: TaskOutcome): string {
  switch (outcome.kind) {
    case 'done':
      return outcome.text;
    case 'refused':
      throw new JobRefusal(outcome.why);
    case 'too long':
      throw new JobTooLong();
  }
}
