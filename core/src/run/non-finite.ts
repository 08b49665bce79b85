import { general } from '../text/number-text.ts';
import { primed } from '../text/primes.ts';
import type { Operation } from '../formula/evaluate.ts';
import { componentName } from '../problem/problem.ts';
import type { CompiledRun } from '../compile/compile.ts';
import type { Register } from '../program/step-tree.ts';
import { NEWTON } from '../program/state.ts';
import type { DecimalState } from './decimal-state.ts';
import {
  stepInDecimals,
  stepInDoubles,
  StepInterpreter,
  type StepNumbers,
  type StepObserver,
  type StepPlace,
} from './step-interpreter.ts';

/** Where and why the values of a run became infinite or undefined. */
export interface Stop {
  /** The number of the step that could not be done, from 1: from grid point step-1 to step. */
  readonly step: number;
  /** The time at the start of that step. */
  readonly t: number;
  /** The line of the method in which it happened. */
  readonly stage: string;
  /** The operation and its inputs, as a sentence. */
  readonly why: string;
}

/** Thrown to leave a step at the first operation whose result is infinite or undefined. */
class NonFiniteOperation extends Error {
  readonly stage: string;
  constructor(stage: string, why: string) {
    super(why);
    this.stage = stage;
  }
}

function shown(value: number): string {
  return Number.isInteger(value) && Math.abs(value) < 1e6 ? String(value) : general(value, 4);
}

function describe({ node, inputs, result }: Operation): string {
  const values = inputs.map(shown);
  const outcome = Number.isNaN(result) ? 'is not a real number' : 'overflows';
  if (node.kind === 'call') return `${node.name}(${values.join(', ')}) ${outcome}`;
  if (node.kind !== 'binary') return outcome;
  const [left, right] = values;
  if (node.operator === '/' && inputs[1] === 0) return `${left} is divided by 0`;
  const bracketed = inputs[1]! < 0 ? `(${right})` : right;
  const base = inputs[0]! < 0 && node.operator === '^' ? `(${left})` : left;
  return node.operator === '^'
    ? `${base}^${bracketed} ${outcome}`
    : `${base} ${node.operator} ${bracketed} ${outcome}`;
}

/** Leaves a step at the first operation whose result is not finite although its inputs are. */
function watching<V>(run: CompiledRun, toDouble: (value: V) => number): StepObserver<V> {
  return {
    operation: (line, where, { node, inputs, result }) => {
      const operation = { node, inputs: inputs.map(toDouble), result: toDouble(result) };
      if (Number.isFinite(operation.result) || !operation.inputs.every(Number.isFinite)) return;
      throw new NonFiniteOperation(line, `${describe(operation)}${where}`);
    },
    derivative: (line, order, values) => {
      const bad = values.findIndex((value) => !Number.isFinite(toDouble(value)));
      if (bad >= 0)
        throw new NonFiniteOperation(
          line,
          `${primed('f', order)} is not finite for ${componentName(run.problem, bad)}`,
        );
    },
    solved: (line) => {
      throw new NonFiniteOperation(line, "Newton's iterates become infinite or undefined");
    },
  };
}

/** What the numbers about Newton's method say, where a solve has failed. */
function newtonFailure(
  run: CompiledRun,
  after: Float64Array,
): { readonly stage: string; readonly why: string } | null {
  const { newton } = run.shape;
  const failed = after[newton + NEWTON.failed] ?? 0;
  if (!(failed > 0)) return null;
  const residual = after[newton + NEWTON.residual] ?? NaN;
  if (!Number.isFinite(residual)) return null;
  const solves = run.program.instructions.filter((instruction) => instruction.kind === 'solve');
  const stage = solves[failed - 1]?.line ?? '';
  const why =
    after[newton + NEWTON.singular] === 1
      ? `Newton's method: singular Jacobian, residual ${shown(residual)}`
      : `Newton's method does not converge, damped or not, residual ${shown(residual)}`;
  return { stage, why };
}

/** What a step is interpreted with, to find where it becomes non-finite. */
interface FailingStep<V> {
  readonly run: CompiledRun;
  readonly numbers: StepNumbers<V>;
  /** Values of the state at the start of the step, and what the run keeps. */
  readonly before: readonly V[];
  readonly toDouble: (value: V) => number;
}

function firstNonFinite<V>({
  run,
  numbers,
  before,
  toDouble,
}: FailingStep<V>): { readonly stage: string; readonly why: string } | null {
  const { program, layout, shape } = run;
  const zero = numbers.arithmetic.number({ kind: 'number', value: 0, at: { from: 0, to: 0 } });
  const vectors = new Map<Register, readonly V[]>();
  program.present.forEach((register, i) =>
    vectors.set(
      register,
      (layout.places[i] ?? []).map((place) => before[place] ?? numbers.notANumber),
    ),
  );
  program.kept.forEach(({ register }, k) => {
    const from = shape.kept + k * shape.width;
    vectors.set(register, before.slice(from, from + shape.width));
  });
  try {
    new StepInterpreter<V>({
      run,
      numbers,
      vectors,
      unknown: ({ guess }, _, present) => present.map((value) => (guess === 'present' ? value : zero)),
      observer: watching(run, toDouble),
    }).step();
  } catch (thrown) {
    if (thrown instanceof NonFiniteOperation) return { stage: thrown.stage, why: thrown.message };
    throw thrown;
  }
  return null;
}

/**
 * Does one step by interpretation, with the arithmetic of the generated loop, and tells the first operation
 * whose result is not finite although its inputs are.
 *
 * @param before the state at the start of the step
 * @param after the state that the generated loop made of it
 * @returns where it happened, or null where every result is finite
 */
export function findNonFinite(
  run: CompiledRun,
  before: Float64Array,
  after: Float64Array,
  place: StepPlace,
): { readonly stage: string; readonly why: string } | null {
  return (
    newtonFailure(run, after) ??
    firstNonFinite({
      run,
      numbers: stepInDoubles(run, place),
      before: Array.from(before),
      toDouble: (value) => value,
    })
  );
}

/** The same in decimals, for the step from grid point n on of a run that is at its start. */
export function findNonFiniteInDecimals(
  run: CompiledRun,
  at: DecimalState,
  after: Float64Array,
  n: number,
): { readonly stage: string; readonly why: string } | null {
  return (
    newtonFailure(run, after) ??
    firstNonFinite({
      run,
      numbers: stepInDecimals(run, at, n),
      before: at.values,
      toDouble: (value) => value.toNumber(),
    })
  );
}
