import { type PositionColumn, positionColumn, positionFunction } from '../compile/state-function.ts';
import type { Problem } from '../problem/problem.ts';
import { lazily } from '../text/lazily.ts';
import { memoizeFor } from '../text/memoize.ts';

/** The exact solution of a problem, as far as it is known. */
export interface ExactSolution {
  /** Whether the component at a place of the state vector has one. */
  readonly known: (place: number) => boolean;
  /** Its value at time t; NaN where none is known. */
  readonly value: (place: number, t: number) => number;
  /** Its values at many times: those of a place go to every `stride`-th number of `out` from `first` on. */
  readonly fill: (place: number, times: Float64Array, count: number, out: Column) => void;
}

/** Every `stride`-th number of an array, from `first` on. */
export interface Column {
  readonly of: Float64Array;
  readonly first: number;
  readonly stride: number;
}

const known = memoizeFor<Problem, ExactSolution>();

/** The exact solution as functions of time: one function a block, however many components it has. */
export function exactSolution(problem: Problem): ExactSolution {
  return known(problem, '', () => made(problem));
}

function made(problem: Problem): ExactSolution {
  const blocks = problem.blocks.map((block) => ({
    from: block.offset,
    position: block.unknown.range?.from ?? 0,
    at: block.exact === null ? null : positionFunction(problem, block.exact, block),
    column: lazily((): PositionColumn | null => block.exact && positionColumn(problem, block.exact, block)),
  }));
  const blockOf = Int32Array.from(
    problem.blocks.flatMap(({ size }, i) => Array.from({ length: size }, () => i)),
  );
  return {
    known: (place) => blocks[blockOf[place] ?? -1]?.at != null,
    value: (place, t) => {
      const block = blocks[blockOf[place] ?? -1];
      return block?.at?.(t, place - block.from + block.position) ?? NaN;
    },
    fill: (place, times, count, { of, first, stride }) => {
      const block = blocks[blockOf[place] ?? -1];
      const column = block?.column();
      if (block === undefined || column == null)
        for (let r = 0; r < count; r += 1) of[first + r * stride] = NaN;
      else column(times, place - block.from + block.position, count, of, first, stride);
    },
  };
}
