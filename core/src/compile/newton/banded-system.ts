import { Refusal } from '../../text/refusal.ts';
import { printed } from '../nodes/print.ts';
import { type Block, frame, type Statement } from '../nodes/statement.ts';
import type { NewtonSystem } from './newton-loop.ts';

/** What the code of a banded system is made of. */
export interface BandedParts {
  readonly id: number;
  /** Length of each vector of unknowns. */
  readonly width: number;
  /** Components further apart than this do not depend on each other. */
  readonly band: number;
  /** Arrays of the unknowns, which hold the first guess. */
  readonly names: readonly string[];
  /** Arrays of the direction in which the unknowns move. */
  readonly directions: readonly string[];
  /** Computes the formulas into the arrays of its result. */
  readonly residual: Block;
  /** Computes how the formulas move, into the arrays of its result; the number 0 for one that does not. */
  readonly column: Block;
}

/** Largest number of matrix entries that is set up. */
const MAX_ENTRIES = 4e6;

/** How far the equations reach, and how long a row of the matrix is. */
interface Shape {
  readonly n: number;
  readonly reach: number;
  readonly stride: number;
}

function shapeOf({ width, band, names }: BandedParts): Shape {
  const q = names.length;
  const n = q * width;
  const reach = q * band + q - 1;
  const stride = 3 * reach + 1;
  if (stride * n > MAX_ENTRIES)
    throw new Refusal(
      'size',
      `implicit formulas need systems whose components depend on near neighbours; here ${n} unknowns reach ${reach} places`,
    );
  return { n, reach, stride };
}

/** The columns of one vector of unknowns: those that no row shares are found together. */
function columnsOf(parts: BandedParts, u: number, { reach, stride }: Shape): readonly Statement[] {
  const { id, width, band, directions, column } = parts;
  const q = parts.names.length;
  const groups = Math.min(width, 2 * band + 1);
  return [
    frame(
      `for (let g = 0; g < ${groups}; g++) {`,
      ...directions.map((other) => `${other}.fill(0);`),
      `for (let j = g; j < ${width}; j += ${groups}) ${directions[u] ?? ''}[j] = 1;`,
    ),
    ...column.statements,
    frame(
      ...column.result.flatMap((moved, row) =>
        moved.kind === 'number'
          ? []
          : [
              `for (let j = g; j < ${width}; j += ${groups}) {`,
              `const to = Math.min(${width - 1}, j + ${band});`,
              `for (let i = Math.max(0, j - ${band}); i <= to; i++)`,
              `M${id}[(i * ${q} + ${row}) * ${stride} + (j - i) * ${q} + ${u - row + reach}] -= ${printed(moved)}[i];`,
              '}',
            ],
      ),
      '}',
    ),
  ];
}

/**
 * Unknowns in arrays whose formulas depend on near neighbours: columns that no row shares are found together, by moving
 * all their unknowns at once, so that the cost is that of the band and not of the system.
 *
 * Source: A. R. Curtis, M. J. D. Powell, J. K. Reid, On the estimation of sparse Jacobian matrices, J. Inst. Maths
 * Applics 13 (1974) 117-119, for the grouping of columns.
 *
 * @returns the system, and declarations of its arrays
 * @throws Refusal where the band is so wide that the matrix would be too large
 */
export function bandedSystem(parts: BandedParts): {
  readonly room: readonly string[];
  readonly system: NewtonSystem;
} {
  const { id, width, names, directions, residual } = parts;
  const q = names.length;
  const shape = shapeOf(parts);
  const { n, reach, stride } = shape;
  const results = residual.result.map((piece) => printed(piece));
  return {
    room: [
      `const M${id} = new Float64Array(${stride * n}), RHS${id} = new Float64Array(${n}), Q${id} = new Float64Array(${3 * n});`,
    ],
    system: {
      n,
      each: (line) => [
        `for (let j = 0; j < ${width}; j++) {`,
        ...names.flatMap((name, u) => line(`${name}[j]`, `j * ${q} + ${u}`, `${results[u] ?? ''}[j]`)),
        '}',
      ],
      right: (index) => `RHS${id}[${index}]`,
      declarations: [],
      room: `Q${id}`,
      assemble: [
        frame(`M${id}.fill(0);`, `for (let d = 0; d < ${n}; d++) M${id}[d * ${stride} + ${reach}] = 1;`),
        ...directions.flatMap((_, u) => columnsOf(parts, u, shape)),
      ],
      solve: { lines: [], isSingular: `!solveBanded(M${id}, RHS${id}, ${n}, ${reach})` },
      spoil: names.map((name) => `${name}.fill(NaN);`),
    },
  };
}
