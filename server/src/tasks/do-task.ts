import type { StudentMarking } from '@schritt/core/marking';
import { completeMethod, pieceSigns } from '@schritt/core/study';
import { type ArchiveFile, archiveOf } from './archive-task.ts';
import { classFiles, markedStudents } from './marking-task.ts';
import { studyOf } from './plan.ts';
import { hasField, readJson } from './read-json.ts';
import { isPieceRun } from './piece-run.ts';
import { sheetFiles } from './sheet-task.ts';
import type { JobRequest, RequestOf, Task, TaskInput } from './task.ts';

/** The work of a task; yields the part of it that is done. */
type Work = Iterator<number, unknown> | AsyncIterator<number, unknown>;

function* parts<T>(work: Generator<{ readonly part: number }, T>): Generator<number, T> {
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    yield next.value.part;
  }
}

/** A request of the kind that a task belongs to. */
function requestOf<K extends JobRequest['kind']>(request: JobRequest, kind: K): RequestOf<K> {
  const isOf = (one: JobRequest): one is RequestOf<K> => one.kind === kind;
  if (isOf(request)) return request;
  throw new Error(`a task of ${kind} within ${request.kind}`);
}

function areMarkings(value: unknown): value is readonly StudentMarking[] {
  return Array.isArray(value) && value.every((one) => hasField(one, 'student'));
}

function areFiles(value: unknown): value is readonly ArchiveFile[] {
  return Array.isArray(value) && value.every((one) => hasField(one, 'content'));
}

async function archived(request: JobRequest, results: readonly string[]): Promise<string> {
  if (request.kind === 'marking') {
    const students = results.flatMap((text) => readJson(text, areMarkings));
    return archiveOf(await classFiles(request, students));
  }
  return archiveOf(results.flatMap((text) => readJson(text, areFiles)));
}

function workOf(
  request: JobRequest,
  task: Exclude<Task, { readonly kind: 'archive' }>,
  results: readonly string[],
): Work {
  switch (task.kind) {
    case 'runs':
      return parts(pieceSigns(studyOf(request.document), task));
    case 'method': {
      const pieces = results.map((text) => readJson(text, isPieceRun));
      return parts(completeMethod(studyOf(request.document), task.method, pieces));
    }
    case 'sheet':
      return sheetFiles(requestOf(request, 'sheets'), task.number);
    case 'students':
      return markedStudents(requestOf(request, 'marking'), task.from, task.to);
  }
}

/**
 * Does a task, and answers its result as JSON.
 *
 * @param report told the part that is done
 * @throws Refusal where it cannot be done for a reason that concerns the person who asked for it
 */
export async function doTask(
  { request, task, results }: TaskInput,
  report: (part: number) => void,
): Promise<string> {
  if (task.kind === 'archive') return JSON.stringify(await archived(request, results));
  const work = workOf(request, task, results);
  for (;;) {
    const step = work.next();
    const next = step instanceof Promise ? await step : step;
    if (next.done === true) return JSON.stringify(next.value);
    report(next.value);
  }
}
