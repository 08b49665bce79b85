import { printed } from '../pieces/print.ts';
import { type Block, frame, type Statement } from '../pieces/statement.ts';
import { NEWTON } from '../program/state.ts';

/** What the code of Newton's method for one `solve` is made of. */
export interface NewtonParts {
  readonly id: number;
  /** Number of unknown numbers. */
  readonly n: number;
  /** Their names; they hold the first guess and, behind the loop, the solution. */
  readonly names: readonly string[];
  /** Computes the formulas at the present guess. */
  readonly residual: Block;
  /** Computes how the formulas move when the unknowns move along D. */
  readonly column: Block;
  /** Where the numbers about Newton's method stand in the state. */
  readonly newton: number;
  readonly single: boolean;
  /** The size of the values that a step starts from, in the units of the unknowns: for slopes, over h. */
  readonly scale: string;
}

/** Iterations after which Newton's method is given up. */
export const MOST_ITERATIONS = 50;

/** A correction below this is no number to speak of, whatever it is added to. */
const LEAST = 1e-300;

/** When a correction counts as lost in rounding, and when one that grows again may be taken for that. */
function tolerances(single: boolean): { readonly epsilon: number; readonly nearly: number } {
  return single ? { epsilon: 2 ** -22, nearly: 1e-4 } : { epsilon: 2 ** -51, nearly: 1e-9 };
}

/** Leaves the iteration: the state says why, and the unknowns are spoilt by the given lines. */
export function giveUp(
  of: { readonly id: number; readonly newton: number },
  singular: boolean,
  spoil: readonly string[],
): readonly string[] {
  return [
    `S[${of.newton + NEWTON.failed}] = ${of.id + 1};`,
    `S[${of.newton + NEWTON.residual}] = size;`,
    `S[${of.newton + NEWTON.singular}] = ${singular ? 1 : 0};`,
    ...spoil,
    `break newton${of.id};`,
  ];
}

/**
 * The end of an iteration: it is done when the correction `moved` is lost in rounding beside `reach`, or no longer
 * becomes smaller and nearly is; for a slope at rest, which is no more exact than the values it is made of allow, beside
 * the `scale` of those. It is given up when it leaves the numbers or takes too long.
 */
export function goOnOrEnd(single: boolean, fail: readonly string[]): readonly string[] {
  const { epsilon, nearly } = tolerances(single);
  return [
    `if (moved <= Math.max(${epsilon} * reach, ${epsilon / 64} * scale) + ${LEAST} || (moved >= before && moved <= ${nearly} * (round > 2 ? Math.max(reach, scale) : reach))) break;`,
    `if (!(moved < Infinity) || round >= ${MOST_ITERATIONS}) {`,
    ...fail,
    '}',
    'before = moved;',
    '} }',
  ];
}

/**
 * Newton's method for z = g(z) with the exact Jacobian I - g'(z), one column at a time, until a correction
 * is lost in rounding or no longer becomes smaller. Where it fails the unknowns become NaN and the state says why.
 */
export function newtonLoop(parts: NewtonParts): readonly Statement[] {
  const { id, n, names, residual, column, single } = parts;
  const list = names.map((_, i) => i);
  const label = `newton${id}`;
  const spoil = names.map((name) => `${name} = NaN;`);
  const fail = (singular: boolean): readonly string[] => giveUp(parts, singular, spoil);
  const results = residual.result.map((piece) => printed(piece));
  const columns = column.result.map((piece) => printed(piece));
  return [
    // the largest value met on the way: a solution near zero is no more exact than what it is made of
    frame(
      `{ let before = Infinity, reach = 0; const scale = ${parts.scale};`,
      `${label}: for (let round = 1; ; round++) {`,
    ),
    ...residual.statements,
    frame(
      ...list.map((i) => `R[${i}] = ${results[i] ?? 'NaN'} - ${names[i]};`),
      `let size = 0; for (let i = 0; i < ${n}; i++) { const r = Math.abs(R[i]); if (!(r <= size)) size = r; }`,
      `if (!(size < Infinity)) {`,
      ...fail(false),
      '}',
      `for (let c = 0; c < ${n}; c++) {`,
      'D[c] = 1;',
    ),
    ...column.statements,
    frame(
      ...list.map((i) => `M[${i * n} + c] = -${columns[i] ?? '0'};`),
      `M[c * ${n + 1}] += 1;`,
      'D[c] = 0;',
      '}',
      `if (!solveDense(M, R, ${n})) {`,
      ...fail(true),
      '}',
      ...list.map((i) => `reach = Math.max(reach, Math.abs(${names[i]}));`),
      ...list.map((i) => `${names[i]} = ${single ? `F(${names[i]} + R[${i}])` : `${names[i]} + R[${i}]`};`),
      'iterations++;',
      'let moved = 0;',
      ...list.map(
        (i) => `moved = Math.max(moved, Math.abs(R[${i}])); reach = Math.max(reach, Math.abs(${names[i]}));`,
      ),
      ...goOnOrEnd(single, fail(false)),
    ),
  ];
}
