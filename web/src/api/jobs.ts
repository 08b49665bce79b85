import type { MethodRun, StudyDocument } from '@schritt/core';
import { ApiFailure, call, field, text } from './client.ts';

/** Where a long study on the server is. */
interface Job {
  readonly id: string;
  readonly state: string;
  readonly part: number;
  readonly why: string;
}

/** A job that is followed; it goes on when the page is closed. */
export interface FollowedJob {
  readonly id: string;
  /** The runs of its methods; fails with the reason where there are none. */
  readonly runs: Promise<readonly MethodRun[]>;
  /** No longer listens; the job goes on. */
  readonly leave: () => void;
}

function readJob(value: unknown): Job {
  const part = field(value, 'part');
  return {
    id: text(field(value, 'id'), ''),
    state: text(field(value, 'state'), 'failed'),
    part: typeof part === 'number' ? part : 0,
    why: text(field(value, 'why'), 'the server gave no reason'),
  };
}

/** Whether an answer holds the runs of the methods of a study. */
function areRuns(value: unknown, methods: number): value is readonly MethodRun[] {
  return (
    Array.isArray(value) &&
    value.length === methods &&
    value.every((run: unknown) => Array.isArray(field(run, 'rungs')))
  );
}

function isOver({ state }: Job): boolean {
  return state !== 'waiting' && state !== 'running';
}

function reason({ state, why }: Job): string {
  if (state === 'cancelled') return 'cancelled';
  return state === 'too long' ? `${why} on the server; take fewer or coarser rungs` : why;
}

/** Listens to a job until it is over. */
function listen(job: Job, progress: (part: number) => void): { over: Promise<Job>; leave: () => void } {
  if (isOver(job)) return { over: Promise.resolve(job), leave: () => undefined };
  const source = new EventSource(`/api/jobs/${job.id}/events`);
  const over = new Promise<Job>((done, fail) => {
    source.addEventListener('message', ({ data }: MessageEvent<string>) => {
      const now = readJob(JSON.parse(data));
      progress(now.part);
      if (!isOver(now)) return;
      source.close();
      done(now);
    });
    source.addEventListener('error', () => {
      // a stream that broke is opened again by the browser; one that cannot be is given up
      if (source.readyState === EventSource.CLOSED) fail(new Error('the server does not answer'));
    });
  });
  return { over, leave: () => source.close() };
}

/** Has a study run on the server, or joins the job that runs or has run the same. */
export async function followJob(
  document: StudyDocument,
  progress: (part: number) => void,
): Promise<FollowedJob> {
  const job = readJob(await call('jobs', { method: 'POST', body: JSON.stringify({ document }) }));
  const { over, leave } = listen(job, progress);
  const runs = over.then(async (last) => {
    if (last.state !== 'done') throw new Error(reason(last));
    const answer = await call(`jobs/${job.id}/runs`);
    if (areRuns(answer, document.methods.length)) return answer;
    throw new ApiFailure('unreadable', 'the server answered something that cannot be read');
  });
  return { id: job.id, runs, leave };
}

/** Ends a job on the server. */
export async function cancelJob(id: string): Promise<void> {
  await call(`jobs/${id}`, { method: 'DELETE' });
}
