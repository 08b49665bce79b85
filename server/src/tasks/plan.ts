import { openStudy, type StudyDocument } from '@schritt/core/document';
import { piecesOf, type Study } from '@schritt/core/study';
import type { JobRequest, Plan, PlannedTask } from './task.ts';

/** Seconds of a task, at least: what it costs to hand one out is far below that. */
const LEAST_SECONDS = 0.4;
/** Part of a method's time that its rounding takes to be measured, about. */
const ROUNDING = 0.1;

/** A study whose texts were checked before. */
export function studyOf(document: StudyDocument): Study {
  const opened = openStudy(document);
  if (!opened.ok) throw new Error('a text of this study cannot be read');
  return opened.study;
}

/** Cuts a job into tasks by their estimated time; the same job gives the same plan again. */
export function planOf({ document }: JobRequest): Plan {
  const pieces = piecesOf(studyOf(document), LEAST_SECONDS);
  return document.methods.map((_, method) => {
    const tasks = pieces
      .filter((piece) => piece.method === method)
      .map(({ rungs, seconds }): PlannedTask => ({
        task: { kind: 'runs', method, rungs },
        seconds,
        runs: rungs.length,
      }));
    const seconds = ROUNDING * tasks.reduce((sum, one) => sum + one.seconds, 0);
    return { tasks, last: { task: { kind: 'method', method }, seconds, runs: 0 } };
  });
}
