import { printed } from '../nodes/print.ts';
import { type Block, frame } from '../nodes/statement.ts';
import type { NewtonSystem } from './newton-loop.ts';

/** What the code of a dense system is made of. */
export interface DenseParts {
  /** Names of the unknowns, which are numbers. */
  readonly names: readonly string[];
  /** The formulas at the present guess. */
  readonly residual: Block;
  /** Computes how the formulas move when the unknowns move along D. */
  readonly column: Block;
}

/** A few unknowns under names of their own: the Jacobian is found one column at a time. */
export function denseSystem({ names, residual, column }: DenseParts): NewtonSystem {
  const n = names.length;
  const results = residual.result.map((piece) => printed(piece));
  const columns = column.result.map((piece) => printed(piece));
  return {
    n,
    each: (line) => names.flatMap((name, i) => line(name, String(i), results[i] ?? 'NaN')),
    right: 'R',
    room: 'Q',
    assemble: [
      frame(`for (let c = 0; c < ${n}; c++) {`, 'D[c] = 1;'),
      ...column.statements,
      frame(
        ...names.map((_, i) => `M[${i * n} + c] = -${columns[i] ?? '0'};`),
        `M[c * ${n + 1}] += 1;`,
        'D[c] = 0;',
        '}',
      ),
    ],
    solve: `solveDense(M, R, ${n})`,
    spoil: names.map((name) => `${name} = NaN;`),
  };
}
