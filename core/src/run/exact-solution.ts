import { positionFunction } from '../compile/state-function.ts';
import type { Problem } from '../problem/problem.ts';

/** The exact solution of a problem, as far as it is known. */
export interface ExactSolution {
  /** Whether the component at a place of the state vector has one. */
  readonly known: (place: number) => boolean;
  /** Its value at time t; NaN where none is known. */
  readonly value: (place: number, t: number) => number;
}

/** The exact solution as functions of time: one function a block, however many components it has. */
export function exactSolution(problem: Problem): ExactSolution {
  const blocks = problem.blocks.map((block) => ({
    from: block.offset,
    to: block.offset + block.size,
    position: block.unknown.range?.from ?? 0,
    at: block.exact === null ? null : positionFunction(problem, block.exact, block),
  }));
  const blockOf = (place: number): (typeof blocks)[number] | undefined =>
    blocks.find(({ from, to }) => place >= from && place < to);
  return {
    known: (place) => blockOf(place)?.at != null,
    value: (place, t) => {
      const block = blockOf(place);
      return block?.at?.(t, place - block.from + block.position) ?? NaN;
    },
  };
}
