import { denseSystem } from '../newton/dense-system.ts';
import { newtonLoop } from '../newton/newton-loop.ts';
import { printed } from '../nodes/print.ts';
import type { LocalSolve, LocalWriting } from './local-vectors.ts';

/** The size of the values at the start of a step, over h where slopes are looked for. */
function scaleOf({ guess, states }: LocalSolve): string {
  const sizes = states.map((name) => `Math.abs(${name})`);
  return `Math.max(${sizes.join(', ')})${guess === 'present' ? '' : ' / h'}`;
}

/** A step of local numbers in doubles, or in single precision. */
export function doubleWriting(single: boolean): LocalWriting {
  return {
    print: (piece) => printed(piece),
    solve: (solve) => {
      const { id, names, residual, column, newton } = solve;
      const system = denseSystem({ id, names, residual, column });
      return newtonLoop({ id, residual, newton, single, scale: scaleOf(solve) }, system);
    },
  };
}
