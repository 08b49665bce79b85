import type { StudyDocument } from '@schritt/core/document';
import type { MethodRun } from '@schritt/core/study';
import { answerOf, ApiFailure, server } from './client.ts';
import type { components } from './schema.ts';

/** Where a long study on the server is. */
type Job = components['schemas']['JobDto'];

/** How far a job on the server is. */
export interface ServerWork {
  readonly part: number;
  /** Runs that are finished, and all; 0 until they are counted. */
  readonly done: number;
  readonly of: number;
  /** Workers that take runs; null where the server does them itself. */
  readonly workers: number | null;
  /** Whether the queue of the workers can be reached. */
  readonly isReached: boolean;
}

/** A job that is followed; it goes on when the page is closed. */
export interface FollowedJob {
  readonly id: string;
  /** The runs of its methods; fails with the reason where there are none. */
  readonly runs: Promise<readonly MethodRun[]>;
  /** No longer listens; the job goes on. */
  readonly leave: () => void;
}

function isJob(value: unknown): value is Job {
  return typeof value === 'object' && value !== null && 'state' in value && 'part' in value;
}

function readJob(value: unknown): Job {
  if (isJob(value)) return value;
  throw new ApiFailure('unreadable', 'the response of the server cannot be read');
}

/** Whether an answer holds the runs of the methods of a study. */
function areRuns(value: unknown, methods: number): value is readonly MethodRun[] {
  return (
    Array.isArray(value) &&
    value.length === methods &&
    value.every((run: unknown) => typeof run === 'object' && run !== null && 'rungs' in run)
  );
}

function isOver({ state }: Job): boolean {
  return state !== 'waiting' && state !== 'running';
}

function reason({ state, why }: Job): string {
  if (state === 'cancelled') return 'cancelled';
  const known = why ?? 'the server gave no reason';
  return state === 'too long' ? `${known} on the server; use fewer or larger step sizes` : known;
}

/** Listens to a job until it is over. */
function listen(job: Job, progress: (now: Job) => void): { over: Promise<Job>; leave: () => void } {
  if (isOver(job)) return { over: Promise.resolve(job), leave: () => undefined };
  const source = new EventSource(`/api/jobs/${job.id}/events`);
  const over = new Promise<Job>((done, fail) => {
    source.addEventListener('message', ({ data }: MessageEvent<string>) => {
      const now = readJob(JSON.parse(data));
      progress(now);
      if (!isOver(now)) return;
      source.close();
      done(now);
    });
    source.addEventListener('error', () => {
      // a stream that broke is opened again by the browser; one that cannot be is given up
      if (source.readyState === EventSource.CLOSED) fail(new Error('the server does not respond'));
    });
  });
  return {
    over,
    leave: () => {
      source.close();
    },
  };
}

/** The runs of a job as far as they are there; none where the answer cannot be read. */
async function runsOf(id: string, methods: number): Promise<readonly MethodRun[]> {
  const answer = await answerOf(server.GET('/api/jobs/{id}/runs', { params: { path: { id } } }));
  return areRuns(answer, methods) ? answer : [];
}

/**
 * Has a study run on the server, or joins the job that runs or has run the same.
 *
 * @param progress told how far the job is
 * @param soFar told the runs as far as they are there, when further rungs are finished
 */
export async function followJob(
  document: StudyDocument,
  progress: (work: ServerWork) => void,
  soFar: (runs: readonly MethodRun[]) => void,
): Promise<FollowedJob> {
  const job = readJob(await answerOf(server.POST('/api/jobs', { body: { document } })));
  const methods = document.methods.length;
  let shown = 0;
  const { over, leave } = listen(job, (now) => {
    progress(now);
    if (now.done <= shown || isOver(now)) return;
    shown = now.done;
    // a look that fails is followed by the study itself
    runsOf(job.id, methods).then(soFar, () => undefined);
  });
  const runs = over.then(async (last) => {
    if (last.state !== 'done') throw new Error(reason(last));
    const all = await runsOf(job.id, methods);
    if (all.length === methods) return all;
    throw new ApiFailure('unreadable', 'the response of the server cannot be read');
  });
  return { id: job.id, runs, leave };
}

/** Ends a job on the server. */
export async function cancelJob(id: string): Promise<void> {
  // keepalive: it is asked for also while a page goes away
  await answerOf(server.DELETE('/api/jobs/{id}', { params: { path: { id } }, keepalive: true }));
}
