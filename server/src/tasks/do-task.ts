import { completeMethod, type PieceRun, pieceSigns } from '@schritt/core/study';
import { studyOf } from './plan.ts';
import type { TaskInput } from './task.ts';

/** A result as JSON. */
function written(work: Generator<{ readonly part: number }, unknown>): Generator<number, string> {
  return (function* (): Generator<number, string> {
    for (;;) {
      const next = work.next();
      if (next.done === true) return JSON.stringify(next.value);
      yield next.value.part;
    }
  })();
}

/** Does a task, and yields the part of it that is done; the caller may stop at every yield. */
export function doTask({ request, task, results }: TaskInput): Generator<number, string> {
  const study = studyOf(request.document);
  switch (task.kind) {
    case 'runs':
      return written(pieceSigns(study, task));
    case 'method': {
      const pieces = results.map((text): PieceRun => JSON.parse(text));
      return written(completeMethod(study, task.method, pieces));
    }
  }
}
