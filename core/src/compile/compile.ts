import type { Decimal } from 'decimal.js';
import { LRUCache } from 'lru-cache';
import { Refusal } from '../text/refusal.ts';
import type { Method } from '../method/method.ts';
import { hasExact, isSecondOrder, type Problem } from '../problem/problem.ts';
import { lazily } from '../text/lazily.ts';
import { count } from '../text/number-text.ts';
import { seriesOperations } from './jets/series-size.ts';
import { jetFunction } from './jets/jet-function.ts';
import type { GeneratedLoop } from './loops/generated-loop.ts';
import { arrayLoop } from './loops/array-loop.ts';
import { generatedFunction, type Helpers } from './generated.ts';
import { kernelModule } from './kernel/kernel-module.ts';
import { type Layout, layOut } from '../program/layout.ts';
import { compileInDecimals, type DecimalLoop, type DecimalSteps } from './decimal/decimal-loop.ts';
import type { DecimalPrecision } from '../decimal/decimal-precision.ts';
import { type BinaryPrecision, isDecimal, type Precision, precisionKey } from './precision.ts';
import { lower } from '../program/lowering.ts';
import type { Program } from '../program/program.ts';
import { type StateShape, stateShape } from '../program/state.ts';
import { localLoop } from './loops/local-loop.ts';

/** What a generated loop takes: plain numbers, since it is called millions of times. */
type LoopInputs = readonly [state: Float64Array, origin: number, h: number, first: number, count: number];

/**
 * Does `count` steps from step number `first` on: the state changes in place, and the time of step n
 * is origin + n*h, never a running sum.
 */
export type Advance = (...inputs: LoopInputs) => void;

/** The same, and writes the stages of every step to `out`, one row after another. */
export type Trace = (...inputs: readonly [...LoopInputs, out: Float64Array]) => void;

/** A problem and a method as one generated loop. */
export interface CompiledRun {
  readonly problem: Problem;
  readonly program: Program;
  readonly precision: Precision;
  readonly layout: Layout;
  readonly shape: StateShape;
  /** In decimals a step from doubles, to the doubles nearest to its results. */
  readonly advance: Advance;
  readonly trace: Trace;
  /** The loop in decimals, which goes on from all their digits; null for a run in binary arithmetic. */
  readonly decimal: DecimalLoop | null;
  /** As `trace`, for the extremes on the way; null for large systems. */
  readonly watch: Trace | null;
  /** As `trace`, for the values after every step, one row after another; null for large systems. */
  readonly rows: Trace | null;
  /** Steps that `advance` may be asked for at once: it checks for non-finite values itself, or they are few. */
  readonly atOnce: number;
  /** Stage values of one step, all components one after another. */
  readonly stageWidth: number;
  /** The starting steps of a multistep method; null for a one-step method. */
  readonly start: Start | null;
}

/** How a multistep run gets its first values. */
export type Start =
  | { readonly kind: 'method'; readonly run: CompiledRun }
  | {
      readonly kind: 'exact';
      /** Where the values come from; null for the exact solution of the problem. */
      readonly solution: Solution | null;
      /** The same for a run in decimals. */
      readonly inDecimals: DecimalSolution | null;
    };

/** Writes the state of a solution at a time. */
export type Solution = (t: number, state: Float64Array) => void;

/** A component of a solution at a time, with all digits that are known of it. */
export type DecimalSolution = (place: number, t: Decimal) => Decimal;

export interface CompileOptions {
  readonly precision?: Precision;
  /** For a multistep method: the compiled starting method, or the exact solution. */
  readonly start?: Start;
}

/** Up to this many components every one of them is a local number; beyond it, arrays and inner loops. */
const MAX_LOCAL = 16;

/** Runs that are kept, and doubles that the arrays of all of them may hold together, about. */
const MAX_RUNS = 100;
const MAX_DOUBLES = 2e6;
/** Arrays of a step, about, each as long as the state. */
const ARRAYS = 16;

/** Runs that were compiled last. */
const known = new LRUCache<string, CompiledRun>({
  max: MAX_RUNS,
  maxSize: MAX_DOUBLES,
  sizeCalculation: ({ shape }) => ARRAYS * shape.length,
});

/** A number for each object that was met: objects that are equal need not be the same, such as a method with a mistake. */
const numbers = new WeakMap<object, number>();
let numbered = 0;

function numberOf(object: object): number {
  const own = numbers.get(object) ?? (numbered += 1);
  numbers.set(object, own);
  return own;
}

/**
 * Compiles a problem and a method to a loop in the text's own order of operations.
 * Nothing that a user typed is in the generated source: names are made here, numbers are printed
 * from their values, and functions come from a fixed table.
 *
 * @throws Refusal with a sentence, where the method cannot be used for this problem: one for x'' = a(t, x, x')
 *   on a problem of another form, derivatives or implicit stages of a system that is too large for them, a formula
 *   that is a multistep method without a starting method
 */
export function compileRun(problem: Problem, method: Method, options: CompileOptions = {}): CompiledRun {
  const { precision = 'double', start = null } = options;
  if (method.depth > 0 && start === null)
    throw new Refusal(
      'start',
      'this formula reaches back and names no method for its first steps; add a line such as start with RK4',
    );
  if (start?.kind === 'exact' && start.solution === null && start.inDecimals === null && !hasExact(problem))
    throw new Refusal(
      'start',
      'the first steps are to be exact, but the exact solution is not known for all components',
    );
  // where starting values come from is a function, of which no two are known to be alike
  if (start?.kind === 'exact' && (start.solution !== null || start.inDecimals !== null))
    return compiled(problem, method, { precision, start });
  const startKey = start?.kind === 'method' ? numberOf(start.run) : (start?.kind ?? '');
  const key = [numberOf(problem), numberOf(method), precisionKey(precision), startKey].join(' ');
  const kept = known.get(key);
  if (kept !== undefined) return kept;
  const made = compiled(problem, method, { precision, start });
  known.set(key, made);
  return made;
}

function compiled(
  problem: Problem,
  method: Method,
  { precision, start }: { readonly precision: Precision; readonly start: Start | null },
): CompiledRun {
  if (isDecimal(precision)) return decimalRun(lowered(problem, method), problem, { precision, start });
  const { program, loop } = generateLoop(problem, method, precision);
  refuseLargeSeries(problem, program);
  const { advance, trace, watch, rows, atOnce, stageWidth, parameters, kernels } = loop;
  const layout = layOut(problem, program);
  const module = kernels === null ? null : kernelModule(kernels.list, kernels.doubles);
  const helpers: Helpers = {
    jet: (order: number) => jetFunction(problem, order),
    P: Float64Array.from(parameters),
    ...(module === null ? {} : { BUFFER: module.buffer, K: module.kernels }),
  };
  const traced = lazily(() => generatedFunction<Trace>(trace(), helpers));
  const optional = (source: (() => string) | null): (() => Trace | null) =>
    lazily(() => (source === null ? null : generatedFunction<Trace>(source(), helpers)));
  const [watched, filled] = [optional(watch), optional(rows)];
  return {
    problem,
    program,
    precision,
    layout,
    shape: stateShape(problem, program, layout),
    advance: generatedFunction<Advance>(advance, helpers),
    get trace() {
      return traced();
    },
    get watch() {
      return watched();
    },
    get rows() {
      return filled();
    },
    decimal: null,
    atOnce,
    stageWidth,
    start: method.depth > 0 ? start : null,
  };
}

/** Steps in decimals between two looks at whether the values are finite. */
const DECIMAL_STEPS = 32;

function decimalRun(
  program: Program,
  problem: Problem,
  { precision, start }: { readonly precision: DecimalPrecision; readonly start: Start | null },
): CompiledRun {
  refuseLargeSeries(problem, program);
  const loop = compileInDecimals(problem, program, precision);
  const { decimals } = loop;
  const layout = layOut(problem, program);
  const shape = stateShape(problem, program, layout);
  const fromDoubles = (
    of: Float64Array,
    [origin, h, first, count]: readonly [origin: number, h: number, first: number, count: number],
  ): DecimalSteps => ({
    state: Array.from(of.subarray(0, shape.newton), (value) => decimals.fromDouble(value)),
    numbers: of,
    origin: decimals.fromDouble(origin),
    h: decimals.fromDouble(h),
    first,
    count,
  });
  const intoDoubles = (of: Float64Array, { state }: DecimalSteps): void => {
    for (let j = 0; j < shape.newton; j += 1) of[j] = state[j]!.toNumber();
  };
  return {
    problem,
    program,
    precision,
    layout,
    shape,
    advance: (state, ...steps) => {
      const own = fromDoubles(state, steps);
      loop.advance(own);
      intoDoubles(state, own);
    },
    trace: (...inputs) => {
      const [state, origin, h, first, count, out] = inputs;
      const own = fromDoubles(state, [origin, h, first, count]);
      out.set(loop.trace(own).map((value) => value.toNumber()));
      intoDoubles(state, own);
    },
    watch: null,
    rows: null,
    decimal: loop,
    atOnce: DECIMAL_STEPS,
    stageWidth: loop.stageWidth,
    start: program.depth > 0 ? start : null,
  };
}

/** Operations of all series that the derivatives of one method may take together. */
const MAX_SERIES = 150_000;

/** Refuses derivatives of many orders whose series are too large together, before any of them is built. */
function refuseLargeSeries(problem: Problem, { instructions }: Program): void {
  const orders = new Set(instructions.flatMap((one) => (one.kind === 'derivative' ? [one.order] : [])));
  let operations = 0;
  for (const order of orders) operations += seriesOperations(problem, order);
  if (operations > MAX_SERIES)
    throw new Refusal(
      'size',
      `the derivatives of this method take about ${count(operations)} operations on this problem, more than ${count(MAX_SERIES)}; take fewer components or derivatives`,
    );
}

/**
 * The generated code of a problem and a method, not yet made a function.
 *
 * @throws Refusal where the method is for problems of another form, or the system is too large for it
 * @example generateLoop(problem, heun, 'double').program.depth // 0
 */
export function generateLoop(
  problem: Problem,
  method: Method,
  precision: BinaryPrecision,
): { readonly program: Program; readonly loop: GeneratedLoop } {
  const program = lowered(problem, method);
  const generate = problem.size <= MAX_LOCAL ? localLoop : arrayLoop;
  return { program, loop: generate(problem, program, precision) };
}

/** The instructions of a method for a problem, where it can be used for it. */
function lowered(problem: Problem, method: Method): Program {
  if (method.form === 'second order' && !isSecondOrder(problem))
    throw new Refusal(
      'form',
      `this method is for equations x'' = a(t, x, x'), and ${firstOther(problem)} is of another order; write the problem with second derivatives`,
    );
  if (method.oneEquation && problem.size !== 1)
    throw new Refusal(
      'form',
      `this method multiplies values or types derivatives out, which is for one equation of first order, and the problem has ${problem.size} components; f'(t, y) and f_y(t, y)*f(t, y) are for systems, too`,
    );
  return lower(method, problem.size === 1);
}

function firstOther(problem: Problem): string {
  return problem.unknowns.find((unknown) => unknown.order !== 2)?.name ?? '';
}
