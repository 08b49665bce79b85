import { Refusal } from '../../text/refusal.ts';
import type { Piece } from './estimate.ts';
import { layLadder, type Rung, stepsOf } from './ladder.ts';
import {
  type MethodProgress,
  type MethodRun,
  methodSteps,
  programFault,
  refusedRun,
  roundingSteps,
  type RungRun,
  rungSteps,
} from './run-method.ts';
import type { Study, StudyMethod } from './study.ts';

/** A progress report of a study under way: which method it is at, the part of all steps done, and a finished rung. */
export interface Progress {
  readonly method: number;
  readonly part: number;
  readonly finished: RungRun | null;
}

/** A progress report of one method: the part of its steps that is done, and a rung that has just been finished. */
export type MethodSign = Omit<Progress, 'method'>;

/** The method of a study at a place, and its ladder. */
function chosenMethod(
  study: Study,
  method: number,
): { readonly rungs: readonly Rung[]; readonly chosen: StudyMethod } {
  const { problem, ladder, lastStep } = study;
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${method}`);
  return { chosen, rungs: layLadder(ladder, problem.start, problem.end, lastStep) };
}

/** Runs of some step sizes of one method: what came of them, or why there are none. */
export type PieceRun =
  | { readonly kind: 'runs'; readonly rungs: readonly RungRun[] }
  | { readonly kind: 'refused'; readonly why: string };

/** Reports the part of all steps that is done; whatever goes wrong is a reason, so that the other methods have their runs. */
function* reported<T>(
  work: Generator<MethodProgress, T>,
  all: number,
  refused: (why: string) => T,
): Generator<MethodSign, T> {
  let done = 0;
  for (;;) {
    let next: IteratorResult<MethodProgress, T>;
    try {
      next = work.next();
    } catch (thrown) {
      return refused(thrown instanceof Refusal ? thrown.message : programFault(thrown));
    }
    if (next.done === true) return next.value;
    done += next.value.steps;
    yield { part: Math.min(1, done / Math.max(1, all)), finished: next.value.finished };
  }
}

/**
 * Runs one method of a study over the whole ladder; the caller may stop at every yield.
 *
 * @throws Refusal where the study has no such method
 * @example [...methodSigns(study, 0)]
 */
export function* methodSigns(study: Study, method: number): Generator<MethodSign, MethodRun> {
  const { rungs, chosen } = chosenMethod(study, method);
  return yield* reported(methodSteps(study, rungs, chosen), stepsOf(rungs), (why) =>
    refusedRun(chosen.title, rungs, why),
  );
}

/**
 * Runs one piece of a study; the caller may stop at every yield. All pieces of a method together are completed by
 * `completeMethod`.
 *
 * @throws Refusal where the study has no such method
 * @example [...pieceSigns(study, { method: 0, rungs: [0, 1] })]
 */
export function* pieceSigns(
  study: Study,
  { method, rungs: wanted }: Pick<Piece, 'method' | 'rungs'>,
): Generator<MethodSign, PieceRun> {
  const { rungs, chosen } = chosenMethod(study, method);
  const own = rungs.filter((_, i) => wanted.includes(i));
  const work = rungSteps(study, rungs, chosen, wanted);
  return yield* reported<PieceRun>(
    (function* (): Generator<MethodProgress, PieceRun> {
      return { kind: 'runs', rungs: yield* work };
    })(),
    stepsOf(own),
    (why) => ({ kind: 'refused', why }),
  );
}

/**
 * Completes the runs of a method from its pieces, to the same bits as those of `methodSigns`; the caller may stop at every
 * yield.
 *
 * @param pieces of all its step sizes, in any order
 * @throws Refusal where the study has no such method
 * @example [...completeMethod(study, 0, [{ kind: 'runs', rungs: [] }])]
 */
export function* completeMethod(
  study: Study,
  method: number,
  pieces: readonly PieceRun[],
): Generator<MethodSign, MethodRun> {
  const { rungs, chosen } = chosenMethod(study, method);
  const refused = pieces.find((piece) => piece.kind === 'refused');
  if (refused !== undefined) return refusedRun(chosen.title, rungs, refused.why);
  const runs = pieces
    .flatMap((piece) => (piece.kind === 'runs' ? piece.rungs : []))
    .sort((a, b) => a.rung - b.rung);
  return yield* reported(roundingSteps(study, rungs, chosen, runs), 1, (why) =>
    refusedRun(chosen.title, rungs, why),
  );
}

/** Runs all methods of a study one after another; the caller may stop at every yield. */
export function* runSteps(study: Study): Generator<Progress, readonly MethodRun[]> {
  const runs: MethodRun[] = [];
  for (const method of study.methods.keys()) {
    const work = methodSigns(study, method);
    let next = work.next();
    for (; next.done !== true; next = work.next()) {
      const { part, finished } = next.value;
      yield { method, part: (method + part) / study.methods.length, finished };
    }
    runs.push(next.value);
  }
  return runs;
}
