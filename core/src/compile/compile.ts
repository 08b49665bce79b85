import { Refusal } from '../text/refusal.ts';
import type { Method } from '../method/method.ts';
import { hasExact, isSecondOrder, type Problem } from '../problem/problem.ts';
import { count } from '../text/number-text.ts';
import { seriesOperations } from './jets/series-size.ts';
import { jetFunction } from './jets/jet-function.ts';
import type { GeneratedLoop } from './loops/generated-loop.ts';
import { arrayLoop } from './loops/array-loop.ts';
import { generatedFunction, type Helpers } from './generated.ts';
import { kernelModule } from './kernel/kernel-module.ts';
import { type Layout, layOut } from '../program/layout.ts';
import type { Precision } from './precision.ts';
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
  readonly advance: Advance;
  readonly trace: Trace;
  /** As `trace`, for the extremes on the way; null for large systems. */
  readonly watch: Trace | null;
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
    };

/** Writes the state of a solution at a time. */
export type Solution = (t: number, state: Float64Array) => void;

export interface CompileOptions {
  readonly precision?: Precision;
  /** For a multistep method: the compiled starting method, or the exact solution. */
  readonly start?: Start;
}

/** Up to this many components every one of them is a local number; beyond it, arrays and inner loops. */
const MAX_LOCAL = 16;

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
  if (start?.kind === 'exact' && start.solution === null && !hasExact(problem))
    throw new Refusal(
      'start',
      'the first steps are to be exact, but the exact solution is not known for all components',
    );
  const { program, loop } = generateLoop(problem, method, precision);
  refuseLargeSeries(problem, program);
  const { advance, trace, watch, atOnce, stageWidth, kernels } = loop;
  const layout = layOut(problem, program);
  const module = kernels === null ? null : kernelModule(kernels.list, kernels.doubles);
  const helpers: Helpers = {
    jet: (order: number) => jetFunction(problem, order),
    ...(module === null ? {} : { BUFFER: module.buffer, K: module.kernels }),
  };
  const traced = lazily(() => generatedFunction<Trace>(trace(), helpers));
  const watched = lazily(() => (watch === null ? null : generatedFunction<Trace>(watch(), helpers)));
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
    atOnce,
    stageWidth,
    start: method.depth > 0 ? start : null,
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
  precision: Precision,
): { readonly program: Program; readonly loop: GeneratedLoop } {
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
  const program = lower(method, problem.size === 1);
  const generate = problem.size <= MAX_LOCAL ? localLoop : arrayLoop;
  return { program, loop: generate(problem, program, precision) };
}

/** A value that is made when it is first asked for. */
function lazily<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

function firstOther(problem: Problem): string {
  return problem.unknowns.find((unknown) => unknown.order !== 2)?.name ?? '';
}
