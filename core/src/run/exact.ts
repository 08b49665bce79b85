import type { Expression } from '../formula/expression.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { generatedFunction } from './generated.ts';
import { expressionSource } from './straight-line.ts';

/** A function of time. */
export type TimeFunction = (t: number) => number;
/** A function of time and the state vector. */
export type StateFunction = (t: number, state: ArrayLike<number>) => number;

/** An expression of a problem as a function of time and state, for one element of a block. */
export function stateFunction(
  problem: Problem,
  expression: Expression,
  block: Block | null = null,
  element = 0,
): StateFunction {
  const body = expressionSource(problem, expression, block, element);
  return generatedFunction(`function (t, S) {\n${body}\n}`);
}

/** The exact solution of every component as a function of time; null where none is known. */
export function exactSolution(problem: Problem): readonly (TimeFunction | null)[] {
  return problem.blocks.flatMap((block) =>
    Array.from({ length: block.size }, (_, element): TimeFunction | null => {
      if (block.exact === null) return null;
      const at = stateFunction(problem, block.exact, block, element);
      return (t) => at(t, []);
    }),
  );
}
