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
const MAX_ITERATIONS = 50;

/** A correction below this is no number to speak of, whatever it is added to. */
const MIN = 1e-300;

/** When a correction counts as lost in rounding, and when one that grows again may be taken for that. */
function tolerances(single: boolean): { readonly epsilon: number; readonly nearly: number } {
  return single ? { epsilon: 2 ** -22, nearly: 1e-4 } : { epsilon: 2 ** -51, nearly: 1e-9 };
}

/** What the code that fails or is damped needs to know. */
interface Damping {
  readonly id: number;
  readonly newton: number;
  /** Takes the unknowns back to the first guess. */
  readonly restore: readonly string[];
  /** Makes the unknowns no numbers. */
  readonly spoil: readonly string[];
}

/** Evaluations after which damped iterations are given up. */
const MAX_DAMPED = 400;

/**
 * Where the iteration fails it begins again from the first guess, damped; where that fails, too, it is left: the state
 * says why, and the unknowns are spoilt. Iterations that converge by themselves are never damped.
 */
export function failing({ id, newton, restore, spoil }: Damping, singular: boolean): readonly string[] {
  return [
    'if (!damped) {',
    `damped = true; S[${newton + NEWTON.damped}] += 1;`,
    'before = Infinity; reach = 0; lower = Infinity; part = 0; round = 0;',
    ...restore,
    `continue newton${id};`,
    '}',
    `S[${newton + NEWTON.failed}] = ${id + 1};`,
    `S[${newton + NEWTON.residual}] = size;`,
    `S[${newton + NEWTON.singular}] = ${singular ? 1 : 0};`,
    ...spoil,
    `break newton${id};`,
  ];
}

/**
 * The beginning of the iterations; `scale` as in NewtonParts, `keep` puts the first guess aside. `reach` is the largest
 * value met on the way: a solution near zero is no more exact than what it is made of.
 */
export function beginIterations(id: number, scale: string, keep: readonly string[]): Statement {
  return frame(
    '{ let before = Infinity, reach = 0, damped = false, lower = Infinity, part = 0;',
    `const scale = ${scale};`,
    ...keep,
    `newton${id}: for (let round = 1; ; round++) {`,
  );
}

/**
 * A damped iteration takes half of its correction, and half of that, until the residual falls.
 *
 * Source: P. Deuflhard, Newton Methods for Nonlinear Problems (2004), section 3.1, with the residual in place of
 * corrections.
 */
export function halveWhereNotSmaller(id: number, moveBack: readonly string[]): readonly string[] {
  return [
    `if (damped && part > ${2 ** -10} && !(size < lower)) {`,
    'part /= 2; iterations++;',
    ...moveBack,
    `continue newton${id};`,
    '}',
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
    `if (moved <= Math.max(${epsilon} * reach, ${epsilon / 64} * scale) + ${MIN} || (moved >= before && moved <= ${nearly} * (round > 2 ? Math.max(reach, scale) : reach))) break;`,
    `if (!(moved < Infinity) || round >= (damped ? ${MAX_DAMPED} : ${MAX_ITERATIONS})) {`,
    ...fail,
    '}',
    'before = moved;',
    '} }',
  ];
}

/**
 * Newton's method for z = g(z) with the exact Jacobian I - g'(z), one column at a time, until a correction
 * is lost in rounding or no longer becomes smaller; damped where it fails. Where that fails, too, the unknowns become
 * NaN and the state says why.
 */
export function newtonLoop(parts: NewtonParts): readonly Statement[] {
  const { id, n, names, residual, column, single } = parts;
  const list = names.map((_, i) => i);
  const value = (text: string): string => (single ? `F(${text})` : text);
  const damping: Damping = {
    ...parts,
    restore: names.map((name, i) => `${name} = Q[${i}];`),
    spoil: names.map((name) => `${name} = NaN;`),
  };
  const fail = (singular: boolean): readonly string[] => failing(damping, singular);
  const results = residual.result.map((piece) => printed(piece));
  const columns = column.result.map((piece) => printed(piece));
  return [
    beginIterations(
      id,
      parts.scale,
      names.map((name, i) => `Q[${i}] = ${name};`),
    ),
    ...residual.statements,
    frame(
      ...list.map((i) => `R[${i}] = ${results[i] ?? 'NaN'} - ${names[i]};`),
      `let size = 0; for (let i = 0; i < ${n}; i++) { const r = Math.abs(R[i]); if (!(r <= size)) size = r; }`,
      ...halveWhereNotSmaller(
        id,
        names.map((name, i) => `${name} = ${value(`Q[${n + i}] + part * Q[${2 * n + i}]`)};`),
      ),
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
      'if (damped) {',
      'lower = size; part = 1;',
      ...list.map((i) => `Q[${n + i}] = ${names[i]}; Q[${2 * n + i}] = R[${i}];`),
      '}',
      ...list.map((i) => `${names[i]} = ${value(`${names[i]} + R[${i}]`)};`),
      'iterations++;',
      'let moved = 0;',
      ...list.map(
        (i) => `moved = Math.max(moved, Math.abs(R[${i}])); reach = Math.max(reach, Math.abs(${names[i]}));`,
      ),
      ...goOnOrEnd(single, fail(false)),
    ),
  ];
}
