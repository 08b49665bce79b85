import type { StudyDocument } from '@schritt/core/document';
import { openStudy } from '@schritt/core/document';
import { estimatedSeconds, piecesOf, type Study } from '@schritt/core/study';
import { keysOf, submissionsFor } from './marking-task.ts';
import { checkFile, sheetsOf } from './sheet-task.ts';
import type { JobRequest, Plan, PlannedTask, RequestOf } from './task.ts';

/** Seconds of a task, at least: what it costs to hand one out is far below that. */
const LEAST_SECONDS = 0.4;
/** Part of a method's time that its rounding takes to be measured, about. */
const ROUNDING = 0.1;
/** Seconds that one student takes to be marked, about, and students of a task. */
const STUDENT = 0.3;
const STUDENTS = 3;

/** A study whose texts were checked before. */
export function studyOf(document: StudyDocument): Study {
  const opened = openStudy(document);
  if (!opened.ok) throw new Error('a text of this study cannot be read');
  return opened.study;
}

function sumOf(tasks: readonly PlannedTask[]): number {
  return tasks.reduce((sum, { seconds }) => sum + seconds, 0);
}

function studyPlan({ document }: RequestOf<'study'>): Plan {
  const pieces = piecesOf(studyOf(document), LEAST_SECONDS);
  return document.methods.map((_, method) => {
    const tasks = pieces
      .filter((piece) => piece.method === method)
      .map(({ rungs, seconds }): PlannedTask => ({
        task: { kind: 'runs', method, rungs },
        seconds,
        runs: rungs.length,
      }));
    return { tasks, last: { task: { kind: 'method', method }, seconds: ROUNDING * sumOf(tasks), runs: 0 } };
  });
}

const ARCHIVE: PlannedTask = { task: { kind: 'archive' }, seconds: 0.1, runs: 0 };

function sheetsPlan(request: RequestOf<'sheets'>): Plan {
  const { document, files } = request;
  const study = studyOf(document);
  for (const file of files) checkFile(document, study, file);
  const seconds = estimatedSeconds(study);
  const tasks = sheetsOf(request).map((_, i): PlannedTask => ({
    task: { kind: 'sheet', number: i + 1 },
    seconds,
    runs: 1,
  }));
  return [{ tasks, last: ARCHIVE }];
}

function markingPlan(request: RequestOf<'marking'>): Plan {
  const { length } = submissionsFor(request, keysOf(request));
  const tasks = Array.from({ length: Math.ceil(length / STUDENTS) }, (_, i): PlannedTask => {
    const [from, to] = [STUDENTS * i, Math.min(length, STUDENTS * (i + 1))];
    return { task: { kind: 'students', from, to }, seconds: STUDENT * (to - from), runs: to - from };
  });
  return [{ tasks, last: ARCHIVE }];
}

/**
 * Cuts a job into tasks by their estimated time; the same job gives the same plan again.
 *
 * @throws Refusal for a request that cannot be fulfilled, such as values that cannot be read
 */
export function planOf(request: JobRequest): Plan {
  switch (request.kind) {
    case 'study':
      return studyPlan(request);
    case 'sheets':
      return sheetsPlan(request);
    case 'marking':
      return markingPlan(request);
  }
}
