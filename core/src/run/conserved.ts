import type { Problem } from '../problem/problem.ts';
import { type StateFunction, stateFunction } from '../compile/state-function.ts';

/** A conserved quantity of a problem as a function of time and state. */
export interface ConservedQuantity {
  readonly name: string;
  readonly at: StateFunction;
}

export function conservedQuantities(problem: Problem): readonly ConservedQuantity[] {
  return problem.conserved.map(({ name, value }) => ({ name, at: stateFunction(problem, value) }));
}

/** How far each conserved quantity has moved from its value at the start, by name. */
export function drift(
  problem: Problem,
  quantities: readonly ConservedQuantity[],
  t: number,
  state: ArrayLike<number>,
): Readonly<Record<string, number>> {
  return Object.fromEntries(
    quantities.map(({ name, at }) => [name, at(t, state) - at(problem.start, problem.initial)]),
  );
}
