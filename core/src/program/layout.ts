import type { Block, Problem } from '../problem/problem.ts';
import type { Program } from './program.ts';

/**
 * How the state vector of a problem is seen by a method: as one vector y, or as positions x and velocities v,
 * one of each for every unknown of a second-order problem.
 */
export interface Layout {
  /** Length of the vectors of the method. */
  readonly width: number;
  /** For each vector of the method (y, or x and v), the places of its components in the state. */
  readonly places: readonly (readonly number[])[];
  /** For each place of the state: which vector it is in, and where. */
  readonly of: readonly { readonly vector: number; readonly index: number }[];
  /** Blocks whose right-hand sides the method asks for, with where their components start in its vectors. */
  readonly rated: readonly { readonly block: Block; readonly offset: number }[];
}

/** Lays a problem out for a program; a second-order program needs a problem of that form. */
export function layOut(problem: Problem, program: Program): Layout {
  if (program.form === 'first order') {
    const all = Array.from({ length: problem.size }, (_, j) => j);
    return {
      width: problem.size,
      places: [all],
      of: all.map((index) => ({ vector: 0, index })),
      rated: problem.blocks.map((block) => ({ block, offset: block.offset })),
    };
  }
  const x: number[] = [];
  const v: number[] = [];
  const of: { vector: number; index: number }[] = [];
  const rated: { block: Block; offset: number }[] = [];
  for (const block of problem.blocks) {
    const list = block.derivative === 0 ? x : v;
    if (block.derivative === 1) rated.push({ block, offset: v.length });
    for (let k = 0; k < block.size; k += 1) {
      of[block.offset + k] = { vector: block.derivative, index: list.length };
      list.push(block.offset + k);
    }
  }
  return { width: x.length, places: [x, v], of, rated };
}
