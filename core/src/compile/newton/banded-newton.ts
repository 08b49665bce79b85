import { Refusal } from '../../text/refusal.ts';
import { beginIterations, failing, goOnOrEnd, halveWhereNotSmaller } from './newton-code.ts';
import { printed } from '../pieces/print.ts';
import { type Block, frame, type Statement } from '../pieces/statement.ts';

/** What the code of Newton's method on arrays is made of. */
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
  readonly newton: number;
  readonly single: boolean;
  /** As in NewtonParts. */
  readonly scale: string;
}

/** Largest number of matrix entries that is set up. */
const MAX_ENTRIES = 4e6;

/**
 * Newton's method with a banded Jacobian: columns that no row shares are found together, by moving all their
 * unknowns at once, so that the cost is that of the band and not of the system.
 *
 * Source: A. R. Curtis, M. J. D. Powell, J. K. Reid, On the estimation of sparse Jacobian matrices, J. Inst. Maths
 * Applics 13 (1974) 117-119, for the grouping of columns.
 *
 * @throws Refusal where the band is so wide that the matrix would be too large
 */
export function bandedNewton(parts: BandedParts): {
  readonly room: readonly string[];
  readonly statements: readonly Statement[];
} {
  const { id, width, band, names, directions, residual, column, single } = parts;
  const q = names.length;
  const n = q * width;
  const wide = q * band + q - 1;
  const stride = 3 * wide + 1;
  if (stride * n > MAX_ENTRIES)
    throw new Refusal(
      'size',
      `implicit formulas need systems whose components depend on near neighbours; here ${n} unknowns reach ${wide} places`,
    );
  const groups = Math.min(width, 2 * band + 1);
  const each = (line: (name: string, u: number) => string): readonly string[] => [
    `for (let j = 0; j < ${width}; j++) {`,
    ...names.map(line),
    '}',
  ];
  const fail = (singular: boolean): readonly string[] =>
    failing(
      {
        ...parts,
        restore: each((name, u) => `${name}[j] = Q${id}[j * ${q} + ${u}];`),
        spoil: names.map((name) => `${name}.fill(NaN);`),
      },
      singular,
    );
  const results = residual.result.map((piece) => printed(piece));
  const head = [
    'let size = 0;',
    ...names.flatMap((name, u) => [
      `for (let j = 0; j < ${width}; j++) {`,
      `const r = ${results[u]}[j] - ${name}[j];`,
      `RHS${id}[j * ${q} + ${u}] = r;`,
      'if (!(Math.abs(r) <= size)) size = Math.abs(r);',
      '}',
    ]),
    ...halveWhereNotSmaller(
      id,
      each((name, u) => {
        const moved = `Q${id}[${n} + j * ${q} + ${u}] + part * Q${id}[${2 * n} + j * ${q} + ${u}]`;
        return `${name}[j] = ${single ? `F(${moved})` : moved};`;
      }),
    ),
    'if (!(size < Infinity)) {',
    ...fail(false),
    '}',
    `M${id}.fill(0);`,
    `for (let d = 0; d < ${n}; d++) M${id}[d * ${stride} + ${wide}] = 1;`,
  ];
  const columns = directions.flatMap((direction, u): readonly Statement[] => [
    frame(
      `for (let g = 0; g < ${groups}; g++) {`,
      ...directions.map((other) => `${other}.fill(0);`),
      `for (let j = g; j < ${width}; j += ${groups}) ${direction}[j] = 1;`,
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
              `M${id}[(i * ${q} + ${row}) * ${stride} + (j - i) * ${q} + ${u - row + wide}] -= ${printed(moved)}[i];`,
              '}',
            ],
      ),
      '}',
    ),
  ]);
  const tail = [
    `if (!solveBanded(M${id}, RHS${id}, ${n}, ${wide})) {`,
    ...fail(true),
    '}',
    'iterations++;',
    'if (damped) {',
    'lower = size; part = 1;',
    ...each((name, u) => `Q${id}[${n} + j * ${q} + ${u}] = ${name}[j];`),
    `Q${id}.set(RHS${id}, ${2 * n});`,
    '}',
    'let moved = 0;',
    ...names.flatMap((name, u) => [
      `for (let j = 0; j < ${width}; j++) {`,
      `const d = RHS${id}[j * ${q} + ${u}];`,
      `reach = Math.max(reach, Math.abs(${name}[j]));`,
      `${name}[j] = ${single ? 'F' : ''}(${name}[j] + d);`,
      'moved = Math.max(moved, Math.abs(d)); reach = Math.max(reach, Math.abs(' + name + '[j]));',
      '}',
    ]),
    ...goOnOrEnd(single, fail(false)),
  ];
  return {
    room: [
      `const M${id} = new Float64Array(${stride * n}), RHS${id} = new Float64Array(${n}), Q${id} = new Float64Array(${3 * n});`,
    ],
    statements: [
      beginIterations(
        id,
        parts.scale,
        each((name, u) => `Q${id}[j * ${q} + ${u}] = ${name}[j];`),
      ),
      ...residual.statements,
      frame(...head),
      ...columns,
      frame(...tail),
    ],
  };
}
