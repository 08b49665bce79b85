import type { Decimal } from 'decimal.js';
import { type DecimalPrecision, decimalPrecisionText } from '../../decimal/decimal-precision.ts';
import { type Decimals, decimalsOf } from '../../decimal/decimals.ts';
import type { Problem } from '../../problem/problem.ts';
import type { Program } from '../../program/program.ts';
import type { Register } from '../../program/step-tree.ts';
import { stateShape } from '../../program/state.ts';
import { layOut } from '../../program/layout.ts';
import { Refusal } from '../../text/refusal.ts';
import { generatedFunction } from '../generated.ts';
import { writeLocalStep } from '../loops/local-step.ts';
import { Scopes } from '../nodes/scopes.ts';
import { decimalNumbers, type DecimalNumbers, decimalOfNode } from './decimal-numbers.ts';
import { solveInDecimals } from './decimal-newton.ts';
import { DecimalWriting } from './decimal-writing.ts';

/** Most components of a run in decimals: its code is written out component by component. */
export const MAX_DECIMAL_COMPONENTS = 100;

/** Which steps are done in decimals. */
export interface DecimalSteps {
  /** State and kept values, changed in place. */
  readonly state: Decimal[];
  /** The numbers about Newton's method are kept in its last five places. */
  readonly numbers: Float64Array;
  readonly origin: Decimal;
  readonly h: Decimal;
  /** The number of the first step, and how many. */
  readonly first: number;
  readonly count: number;
}

/** A problem and a method as one generated loop in decimals. */
export interface DecimalLoop {
  readonly decimals: Decimals;
  readonly numbers: DecimalNumbers;
  /** Does steps; the time of step n is origin + n*h, never a running sum. */
  readonly advance: (steps: DecimalSteps) => void;
  /** The same, and answers the stages of the steps, one row after another. */
  readonly trace: (steps: DecimalSteps) => readonly Decimal[];
  /** Operations of one step, about: one iteration of Newton's method counts. */
  readonly operations: number;
  readonly stageWidth: number;
  /** The generated code. */
  readonly source: string;
}

type Generated = (
  ...inputs: readonly [
    X: Decimal[],
    S: Float64Array,
    origin: Decimal,
    h: Decimal,
    first: number,
    count: number,
    OUT: Decimal[] | null,
  ]
) => void;

/** Registers whose values are rounded where single operations are not: those of the lines of the method. */
export function storedRegisters(program: Program, { rounded }: DecimalPrecision): ReadonlySet<Register> {
  if (rounded === 'operations') return new Set();
  return new Set(program.lines.flatMap((line) => (line.isSolved ? [] : [line.register])));
}

/**
 * Compiles a problem and a method to a loop in decimals, in the text's own order of operations.
 *
 * @throws Refusal for more than MAX_DECIMAL_COMPONENTS components, and for steps that are too long to be compiled
 */
export function compileInDecimals(
  problem: Problem,
  program: Program,
  precision: DecimalPrecision,
): DecimalLoop {
  if (problem.size > MAX_DECIMAL_COMPONENTS)
    throw new Refusal(
      'size',
      `a run with ${decimalPrecisionText(precision)} takes up to ${MAX_DECIMAL_COMPONENTS} components, and this problem has ${problem.size}; take fewer of them, or double precision`,
    );
  const decimals = decimalsOf(precision);
  const numbers = decimalNumbers(problem, decimals);
  const scopes = new Scopes({ pure: true, arithmetic: 'decimal', inlines: false });
  const writing = new DecimalWriting();
  const stored = storedRegisters(program, precision);
  const { before, lines, states, kept, next, stages } = writeLocalStep(problem, program, {
    scopes,
    writing,
    stored,
  });
  const source = [
    'function (X, S, origin, h, first, count, OUT) {',
    ...before,
    ...states.map((name, j) => `let ${name} = X[${j}];`),
    ...kept.map(({ name, place }) => `let ${name} = X[${place}];`),
    'for (let m = first; m < first + count; m++) {',
    'const n = A.fromDouble(m);',
    'const t = A.stored(origin.plus(n.times(h)));',
    ...lines,
    ...(stages.length === 0 ? [] : [`if (OUT !== null) OUT.push(${stages.map(writing.print).join(', ')});`]),
    ...next.map((piece, j) => `const w${j} = ${writing.print(piece)};`),
    ...kept.map(({ name, from }) => `${name} = ${from};`).reverse(),
    ...states.map((name, j) => `${name} = w${j};`),
    '}',
    ...states.map((name, j) => `X[${j}] = ${name};`),
    ...kept.map(({ name, place }) => `X[${place}] = ${name};`),
    '}',
  ].join('\n');
  const run = generatedFunction<Generated>(source, {
    A: decimals,
    C: writing.constants.map((node) => decimalOfNode(node, numbers, decimals)),
    SOLVE: solveInDecimals,
  });
  const shape = stateShape(problem, program, layOut(problem, program));
  const doSteps = (
    { state, numbers: newton, origin, h, first, count }: DecimalSteps,
    out: Decimal[] | null,
  ): void => {
    if (newton.length !== shape.length) throw new Error('the state is of another run');
    run(state, newton, origin, h, first, count, out);
  };
  return {
    decimals,
    numbers,
    advance: (steps) => {
      doSteps(steps, null);
    },
    trace: (steps) => {
      const out: Decimal[] = [];
      doSteps(steps, out);
      return out;
    },
    operations: scopes.spent,
    stageWidth: stages.length,
    source,
  };
}
