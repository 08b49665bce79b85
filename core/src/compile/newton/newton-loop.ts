import { type Block, frame, type Statement } from '../nodes/statement.ts';
import { NEWTON } from '../../program/state.ts';

/** Where the unknowns of one `solve` are, and their equations. */
export interface NewtonSystem {
  /** Number of unknown numbers. */
  readonly n: number;
  /**
   * Lines for every unknown. `place` holds the first guess and, behind the loop, the solution; `index` is its place
   * among all; `result` is what its formula gives.
   */
  readonly each: (
    line: (place: string, index: string, result: string) => readonly string[],
  ) => readonly string[];
  /** A number of the right side of the equations by its index; it becomes one of their solution. */
  readonly right: (index: string) => string;
  /** Lines that declare what one iteration needs. */
  readonly declarations: readonly string[];
  /** The name of room for the first guess, the last good values and the last correction, n numbers each. */
  readonly room: string;
  /** Sets up the matrix I - g'(z). */
  readonly assemble: readonly Statement[];
  /** Lines that solve the equations, and whether these were singular. */
  readonly solve: { readonly lines: readonly string[]; readonly isSingular: string };
  /** Makes the unknowns no numbers. */
  readonly spoil: readonly string[];
}

/** What the code of Newton's method for one `solve` is made of. */
export interface NewtonParts {
  readonly id: number;
  /** Computes the formulas at the present guess. */
  readonly residual: Block;
  /** Where the numbers about Newton's method are in the state. */
  readonly newton: number;
  readonly single: boolean;
  /** The size of the values that a step starts from, in the units of the unknowns: for slopes, over h. */
  readonly scale: string;
}

/** Iterations after which Newton's method is given up. */
export const MAX_ITERATIONS = 50;
/** Evaluations after which damped iterations are given up. */
export const MAX_DAMPED = 400;

/** A correction below this is no number to speak of, whatever it is added to. */
export const MIN_CORRECTION = 1e-300;
/** The part of `epsilon` that counts beside the size of the values that a slope is made of. */
export const SCALE_PART = 1 / 64;

/** When a correction counts as lost in rounding, and when one that grows again may be taken for that. */
export function tolerances(single: boolean): { readonly epsilon: number; readonly nearly: number } {
  return single ? { epsilon: 2 ** -22, nearly: 1e-4 } : { epsilon: 2 ** -51, nearly: 1e-9 };
}

/**
 * Where the iteration fails it begins again from the first guess, damped; where that fails, too, it is left: the state
 * says why, and the unknowns are spoilt. Iterations that converge by themselves are never damped.
 */
function failing({ id, newton }: NewtonParts, system: NewtonSystem, singular: boolean): readonly string[] {
  return [
    'if (!damped) {',
    `damped = true; S[${newton + NEWTON.damped}] += 1;`,
    'before = Infinity; reach = 0; lower = Infinity; part = 0; round = 0;',
    ...system.each((place, index) => [`${place} = ${system.room}[${index}];`]),
    `continue newton${id};`,
    '}',
    `S[${newton + NEWTON.failed}] = ${id + 1};`,
    `S[${newton + NEWTON.residual}] = size;`,
    `S[${newton + NEWTON.singular}] = ${singular ? 1 : 0};`,
    ...system.spoil,
    `break newton${id};`,
  ];
}

/**
 * A damped iteration takes half of its correction, and half of that, until the residual falls.
 *
 * Source: P. Deuflhard, Newton Methods for Nonlinear Problems (2004), section 3.1, with the residual in place of
 * corrections.
 */
function halveWhereNotSmaller(
  { id, single }: NewtonParts,
  { each, room, n }: NewtonSystem,
): readonly string[] {
  return [
    `if (damped && part > ${2 ** -10} && !(size < lower)) {`,
    'part /= 2; iterations++;',
    ...each((place, index) => {
      const moved = `${room}[${n} + ${index}] + part * ${room}[${2 * n} + ${index}]`;
      return [`${place} = ${single ? `F(${moved})` : moved};`];
    }),
    `continue newton${id};`,
    '}',
  ];
}

/**
 * The end of an iteration: it is done when the correction `moved` is lost in rounding beside `reach`, or no longer
 * becomes smaller and nearly is; for a slope at rest, which is no more exact than the values it is made of allow,
 * beside the `scale` of those. It is given up when it becomes infinite or takes too long.
 */
function goOnOrEnd({ single }: NewtonParts, fail: readonly string[]): readonly string[] {
  const { epsilon, nearly } = tolerances(single);
  return [
    `if (moved <= Math.max(${epsilon} * reach, ${epsilon * SCALE_PART} * scale) + ${MIN_CORRECTION} || (moved >= before && moved <= ${nearly} * (round > 2 ? Math.max(reach, scale) : reach))) break;`,
    `if (!(moved < Infinity) || round >= (damped ? ${MAX_DAMPED} : ${MAX_ITERATIONS})) {`,
    ...fail,
    '}',
    'before = moved;',
    '} }',
  ];
}

/**
 * Newton's method for z = g(z) with the exact Jacobian I - g'(z), until a correction is lost in rounding or no longer
 * becomes smaller; damped where it fails. Where that fails, too, the unknowns become NaN and the state says why.
 * `reach` is the largest value met on the way: a solution near zero is no more exact than what it is made of.
 */
export function newtonLoop(parts: NewtonParts, system: NewtonSystem): readonly Statement[] {
  const { id, residual, single } = parts;
  const { n, each, right, room } = system;
  const fail = (singular: boolean): readonly string[] => failing(parts, system, singular);
  return [
    frame(
      '{ let before = Infinity, reach = 0, damped = false, lower = Infinity, part = 0;',
      `const scale = ${parts.scale};`,
      ...each((place, index) => [`${room}[${index}] = ${place};`]),
      `newton${id}: for (let round = 1; ; round++) {`,
    ),
    ...residual.statements,
    frame(
      ...system.declarations,
      'let size = 0;',
      ...each((place, index, result) => [
        `${right(index)} = ${result} - ${place};`,
        `if (!(Math.abs(${right(index)}) <= size)) size = Math.abs(${right(index)});`,
      ]),
      ...halveWhereNotSmaller(parts, system),
      'if (!(size < Infinity)) {',
      ...fail(false),
      '}',
    ),
    ...system.assemble,
    frame(
      ...system.solve.lines,
      `if (${system.solve.isSingular}) {`,
      ...fail(true),
      '}',
      'iterations++;',
      'if (damped) {',
      'lower = size; part = 1;',
      ...each((place, index) => [
        `${room}[${n} + ${index}] = ${place}; ${room}[${2 * n} + ${index}] = ${right(index)};`,
      ]),
      '}',
      'let moved = 0;',
      ...each((place, index) => {
        const next = `${place} + ${right(index)}`;
        return [
          `reach = Math.max(reach, Math.abs(${place}));`,
          `${place} = ${single ? `F(${next})` : next};`,
          `moved = Math.max(moved, Math.abs(${right(index)})); reach = Math.max(reach, Math.abs(${place}));`,
        ];
      }),
      ...goOnOrEnd(parts, fail(false)),
    ),
  ];
}
