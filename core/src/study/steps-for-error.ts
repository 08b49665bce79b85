import { pow } from '../elementary/power.ts';
import { componentNames } from '../problem/problem.ts';
import { theoryOf } from './judge/predicted.ts';
import { finish } from './run-study.ts';
import { methodSigns } from './runs/run-methods.ts';
import type { Study } from './runs/study.ts';
import { truthOf } from './runs/truth.ts';

/** What theory asks of a method for a target error, and what a run with it comes to. */
export interface StepsForError {
  /** Steps at which the leading term of the error is the target. */
  readonly steps: number;
  readonly h: number;
  /** The error of a run with so many steps; null where it became non-finite, or would take too long. */
  readonly measured: number | null;
}

/** Steps beyond which a run is not tried. */
const MAX_STEPS = 2_000_000;

/**
 * Says beforehand which h gives a target error, by the leading term of the error, and checks it by a run.
 *
 * @returns one per method; null where theory does not say the error of it
 * @example stepsForError(study, 1e-6)
 */
export function stepsForError(study: Study, targetError: number): readonly (StepsForError | null)[] {
  const { problem } = study;
  const places = componentNames(problem).map((_, j) => j);
  const truth = truthOf(problem, places, problem.end);
  return study.methods.map((method, i): StepsForError | null => {
    const theory = theoryOf(study, truth, method).predicted;
    if (theory === null || !(theory.constant > 0)) return null;
    const h = pow(targetError / theory.constant, 1 / theory.order);
    const steps = Math.ceil((problem.end - problem.start) / h - 1e-9);
    if (!Number.isFinite(steps) || steps < 1) return null;
    const size = (problem.end - problem.start) / steps;
    if (steps > MAX_STEPS) return { steps, h: size, measured: null };
    const run = finish(methodSigns({ ...study, ladder: { counts: [steps] } }, i));
    return { steps, h: size, measured: run.rungs[0]?.taken?.error ?? null };
  });
}
