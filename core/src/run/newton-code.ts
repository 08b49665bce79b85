import type { ScopedLines } from './scopes.ts';
import { NEWTON } from './state.ts';

/** What the code of Newton's method for one `solve` is made of. */
export interface NewtonParts {
  readonly id: number;
  /** Number of unknown numbers. */
  readonly n: number;
  /** Their names; they hold the first guess and, behind the loop, the solution. */
  readonly names: readonly string[];
  /** Computes the formulas at the present guess. */
  readonly residual: ScopedLines;
  /** Computes how the formulas move when the unknowns move along D. */
  readonly column: ScopedLines;
  /** Where the numbers about Newton's method stand in the state. */
  readonly newton: number;
  readonly single: boolean;
}

/** Iterations after which Newton's method is given up. */
export const MOST_ITERATIONS = 50;

/**
 * Newton's method for z = g(z) with the exact Jacobian I - g'(z), one column at a time, until a correction
 * is lost in rounding or no longer becomes smaller. Where it fails the unknowns become NaN and the state says why.
 */
export function newtonLoop(parts: NewtonParts): readonly string[] {
  const { id, n, names, residual, column, newton, single } = parts;
  const list = names.map((_, i) => i);
  const label = `newton${id}`;
  const epsilon = single ? 2 ** -22 : 2 ** -51;
  const nearly = single ? 1e-4 : 1e-9;
  const fail = (singular: boolean): readonly string[] => [
    `S[${newton + NEWTON.failed}] = ${id + 1};`,
    `S[${newton + NEWTON.residual}] = size;`,
    `S[${newton + NEWTON.singular}] = ${singular ? 1 : 0};`,
    ...names.map((name) => `${name} = NaN;`),
    `break ${label};`,
  ];
  return [
    `{ let before = Infinity;`,
    `${label}: for (let round = 1; ; round++) {`,
    ...residual.lines,
    ...list.map((i) => `R[${i}] = ${residual.result[i] ?? 'NaN'} - ${names[i]};`),
    `let size = 0; for (let i = 0; i < ${n}; i++) { const r = Math.abs(R[i]); if (!(r <= size)) size = r; }`,
    `if (!(size < Infinity)) {`,
    ...fail(false),
    '}',
    `for (let c = 0; c < ${n}; c++) {`,
    'D[c] = 1;',
    ...column.lines,
    ...list.map((i) => `M[${i * n} + c] = -${column.result[i] ?? '0'};`),
    `M[c * ${n + 1}] += 1;`,
    'D[c] = 0;',
    '}',
    `if (!solveDense(M, R, ${n})) {`,
    ...fail(true),
    '}',
    ...list.map((i) => `${names[i]} = ${single ? `F(${names[i]} + R[${i}])` : `${names[i]} + R[${i}]`};`),
    'iterations++;',
    'let moved = 0, scale = 0;',
    ...list.map(
      (i) => `moved = Math.max(moved, Math.abs(R[${i}])); scale = Math.max(scale, Math.abs(${names[i]}));`,
    ),
    `if (moved <= ${epsilon} * scale || (moved >= before && moved <= ${nearly} * scale)) break;`,
    `if (!(moved < Infinity) || round >= ${MOST_ITERATIONS}) {`,
    ...fail(false),
    '}',
    'before = moved;',
    '} }',
  ];
}
