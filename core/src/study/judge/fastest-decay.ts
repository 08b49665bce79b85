import { systemRightHandSides } from '../../compile/right-hand-sides.ts';
import type { Problem } from '../../problem/problem.ts';
import { norm } from '../../run/norm.ts';
import type { Truth } from '../runs/truth.ts';

/** How far the direction found may be from a true one, relative to the eigenvalue. */
const SURE = 0.02;
const ITERATIONS = 300;

/**
 * The fastest decay of a problem at a time and state: the eigenvalue of largest size of its Jacobian, by the power
 * method with differences of the right-hand sides, where that is real and negative.
 *
 * @returns its size; null where the fastest motion is no decay, or is not found for sure
 */
export function fastestDecay(problem: Problem, t: number, state: ArrayLike<number>): number | null {
  const rightHandSides = systemRightHandSides(problem);
  const { size } = problem;
  const base = Float64Array.from(rightHandSides(t, state));
  const scale = Math.max(1, norm(state));
  const step = 1e-6 * scale;
  let direction = Float64Array.from({ length: size }, (_, j) => 1 + ((j * 7919) % 13) / 13 - (j % 2) * 1.7);
  let value = 0;
  for (let i = 0; i < ITERATIONS; i += 1) {
    const length = norm(direction);
    if (!(length > 0) || !Number.isFinite(length)) return null;
    direction = direction.map((d) => d / length);
    const moved = rightHandSides(
      t,
      direction.map((d, j) => state[j]! + step * d),
    );
    const image = moved.map((f, j) => (f - base[j]!) / step);
    const quotient = image.reduce((sum, d, j) => sum + d * direction[j]!, 0);
    const rest = norm(image.map((d, j) => d - quotient * direction[j]!));
    const isSure = rest <= SURE * Math.abs(quotient);
    if (isSure && Math.abs(quotient - value) <= 1e-4 * Math.abs(quotient))
      return quotient < 0 ? -quotient : null;
    value = quotient;
    direction = image;
  }
  return null;
}

/** Times at which the fastest decay is looked for, as parts of the interval. */
const PARTS = [0, 0.25, 0.5, 0.75, 1];

/** The fastest decay of a problem along its solution; null where there is none, or none is found for sure. */
export function decayAlong(problem: Problem, truth: Truth): number | null {
  const decays = PARTS.flatMap((part) => {
    const t = problem.start + part * (problem.end - problem.start);
    const state = Array.from({ length: problem.size }, (_, j) => truth.value(j, t));
    return state.every((value) => Number.isFinite(value)) ? [fastestDecay(problem, t, state)] : [];
  });
  const fastest = Math.max(...decays.map((decay) => decay ?? -Infinity));
  return fastest > 0 ? fastest : null;
}
