import type { Problem } from '../problem/problem.ts';
import type { Layout } from './layout.ts';
import type { Program } from './program.ts';

/**
 * What a run carries from step to step, in one array: the state of the problem, the values kept from earlier
 * steps (one vector each, in the order of the program), and five numbers about Newton's method.
 */
export interface StateShape {
  readonly size: number;
  readonly width: number;
  /** Where the kept vectors start. */
  readonly kept: number;
  /** Where the five numbers of Newton's method start. */
  readonly newton: number;
  readonly length: number;
}

/** Offsets of the five numbers from `newton`. */
export const NEWTON = {
  /** Iterations done since the start. */
  iterations: 0,
  /** 1 + the number of the solve that failed, 0 for none. */
  failed: 1,
  /** Its last residual. */
  residual: 2,
  /** 1 where its equations were singular. */
  singular: 3,
  /** Times that its iterations had to be damped since the start. */
  damped: 4,
} as const;

export function stateShape(problem: Problem, program: Program, layout: Layout): StateShape {
  const { size } = problem;
  const newton = size + program.kept.length * layout.width;
  return { size, width: layout.width, kept: size, newton, length: newton + 5 };
}
