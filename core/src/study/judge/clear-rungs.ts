import type { RungResult } from './method-result.ts';

/**
 * Rungs whose errors show the method's own error, from coarse to fine: clear of rounding and of the reference, and
 * finer than every one at which the run became non-finite or its error was larger than the solution.
 */
export function clearRungs(rungs: readonly RungResult[]): readonly RungResult[] {
  const falling = [...rungs].sort((a, b) => b.h - a.h);
  const bad = falling.findLastIndex(
    ({ stopped, leftOut }) => (stopped !== null && stopped.step > 0) || leftOut?.kind === 'large',
  );
  return falling.slice(bad + 1).filter(({ leftOut }) => leftOut === null || leftOut.kind === 'coarse');
}

/** Places of those rungs. */
export function clearPlaces(rungs: readonly RungResult[]): readonly number[] {
  return clearRungs(rungs).map((rung) => rungs.indexOf(rung));
}
