import { exactSolution } from '../run/exact-solution.ts';
import { type Layout, layOut } from '../program/layout.ts';
import { lower } from '../program/lowering.ts';
import type { Program } from '../program/program.ts';
import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import type { Precision } from '../compile/precision.ts';
import { doubleRounding } from './double-rounding.ts';
import { memoizeFor } from '../text/memoize.ts';
import { TrialRhs } from './trial-rhs.ts';
import { type TrialPlace, TrialStep } from './trial-step.ts';

/** How the times of grid points are kept. */
export type TimeKeeping =
  | 'times h'
  /** The time of the start in every step. */
  | 'constant'
  /** The time of the next grid point in every step. */
  | 'ahead'
  /** h is added up in single precision. */
  | 'single sum';

/** A run as a student may have done it. */
export interface Trial {
  /** The problem, of which formulas may be others than in its text. */
  readonly problem: Problem;
  /** The method, then its starting methods. */
  readonly methods: readonly Method[];
  /** Two lines of the method, by what they give, that are done in the wrong order; null for the order of the text. */
  readonly exchanged: readonly [string, string] | null;
  /** Whether what no starting method does is taken from the exact solution. */
  readonly exactStart: boolean;
  readonly initial: readonly number[];
  readonly h: number;
  readonly steps: number;
  /** The step of another size, from a grid point on; null where all are alike. */
  readonly shorter: { readonly n: number; readonly h: number } | null;
  readonly time: TimeKeeping;
  readonly precision: Precision;
  /** Rounds a value before it is used for the next step; null for values as they are. */
  readonly kept: ((value: number) => number) | null;
  /** Whether components are updated one after the other, each with those that are new; in which order. */
  readonly sequential: 'no' | 'first to last' | 'last to first';
  /** Whether right-hand sides are taken at the exact solution. */
  readonly rhsAtExact: boolean;
}

/** A grid point of a trial. */
export interface TrialRow {
  readonly n: number;
  readonly t: number;
  readonly values: ArrayLike<number>;
  /** Those of the step from there on; null at the last point, and for steps of the starting method. */
  readonly stages: () => readonly number[] | null;
}

/** What was made of a method for the problems of one text, whose formulas may be others: most trials share it. */
interface MadeOf {
  readonly text: string;
  readonly program: Program;
  readonly layout: Layout;
  readonly step: TrialStep;
}

const made = new WeakMap<Method, MadeOf>();
/** By the number of vectors that a method has: y, or x and v. */
const rightHandSides = memoizeFor<Problem, TrialRhs>();

/** The right-hand sides of a problem in double precision, at the values of the run. */
function plainRhs(problem: Problem, program: Program): TrialRhs {
  return rightHandSides(
    problem,
    program.present.length,
    () => new TrialRhs(problem, layOut(problem, program), { round: null, exact: null }),
  );
}

function madeOf(problem: Problem, method: Method): MadeOf {
  const known = made.get(method);
  if (known?.text === problem.text) return known;
  const program = lower(method, problem.size === 1 && method.form === 'first order');
  const layout = layOut(problem, program);
  const step = new TrialStep(program, layout, plainRhs(problem, program), null);
  const own = { text: problem.text, program, layout, step };
  made.set(method, own);
  return own;
}

/** A method with two of its lines done in each other's place. */
function withExchanged(program: Program, lines: readonly [string, string] | null): Program {
  if (lines === null) return program;
  const [one, other] = lines.map((line) => program.instructions.filter((each) => each.line === line));
  const instructions = program.instructions.flatMap((each, i, all) => {
    const isFirst = all.findIndex(({ line }) => line === each.line) === i;
    if (each.line === lines[0]) return isFirst ? (other ?? []) : [];
    if (each.line === lines[1]) return isFirst ? (one ?? []) : [];
    return [each];
  });
  return { ...program, instructions };
}

/** The size of the step from grid point n on. */
function stepSizeIn({ h, shorter }: Trial, n: number): number {
  return shorter?.n === n ? shorter.h : h;
}

/** The time of a grid point, or of a place between two. */
export function timeIn({ problem, h, shorter }: Pick<Trial, 'problem' | 'h' | 'shorter'>, n: number): number {
  const { start } = problem;
  return shorter === null || n <= shorter.n
    ? start + n * h
    : start + shorter.n * h + (n - shorter.n) * shorter.h;
}

function keeping(trial: Trial): (n: number) => number {
  const { time, h, precision, problem } = trial;
  const { start } = problem;
  switch (time) {
    case 'times h': {
      const round = doubleRounding(precision);
      if (round === null || trial.shorter !== null) return (n) => timeIn(trial, n);
      const [first, size] = [round(start), round(h)];
      return (n) => round(first + round(n * size));
    }
    case 'constant':
      return (n) => start + Math.max(0, n - Math.floor(n)) * h;
    case 'ahead':
      return (n) => start + (n + 1) * h;
    case 'single sum': {
      const sums = [Math.fround(start)];
      return (n) => {
        const whole = Math.floor(n);
        for (let i = sums.length; i <= whole; i += 1) sums.push(Math.fround(sums[i - 1]! + Math.fround(h)));
        return (sums[Math.max(0, whole)] ?? start) + (n - whole) * h;
      };
    }
  }
}

/** Does the steps of a trial, as they are done by its method or, at first, by a starting method. */
class Stepper {
  readonly #trial: Trial;
  readonly #steps: readonly TrialStep[];
  readonly #exact: (t: number) => Float64Array;
  readonly #timeOf: (n: number) => number;

  constructor(trial: Trial) {
    this.#trial = trial;
    const { problem, methods, exchanged, precision, rhsAtExact } = trial;
    // made where it is asked for: most trials take nothing of it
    let solution: ReturnType<typeof exactSolution> | null = null;
    this.#exact = (t) => {
      const known = (solution ??= exactSolution(problem));
      return Float64Array.from(trial.initial, (_, place) => known.value(place, t));
    };
    const round = doubleRounding(precision);
    const isPlain = round === null && !rhsAtExact;
    this.#steps = methods.map((method, i) => {
      const { program, layout, step } = madeOf(problem, method);
      const isExchanged = i === 0 && exchanged !== null;
      if (isPlain && !isExchanged) return step.begin(plainRhs(problem, program));
      // the layout of a method names the blocks of the problem that it was made for
      const rhs = new TrialRhs(problem, layOut(problem, program), {
        round,
        exact: rhsAtExact ? this.#exact : null,
      });
      return new TrialStep(withExchanged(program, isExchanged ? exchanged : null), layout, rhs, round);
    });
    this.#timeOf = keeping(trial);
  }

  /** The values one step on, and the stages where the method itself does the step. */
  step(
    past: readonly ArrayLike<number>[],
    n: number,
  ): { readonly values: Float64Array; readonly stages: () => readonly number[] | null } {
    const { exactStart } = this.#trial;
    const h = stepSizeIn(this.#trial, n);
    const doing = this.#steps.find(({ depth }) => depth <= n);
    if (doing === undefined)
      return {
        values: exactStart ? this.#exact(timeIn(this.#trial, n + 1)) : new Float64Array(0),
        stages: () => null,
      };
    const place = { n, h, timeOf: this.#timeOf };
    const values =
      this.#trial.sequential === 'no' ? doing.step(past, place) : this.#oneByOne(doing, past, place);
    // asked for before the next step is done
    return { values, stages: () => (doing === this.#steps[0] ? doing.stages() : null) };
  }

  #oneByOne(doing: TrialStep, past: readonly ArrayLike<number>[], place: TrialPlace): Float64Array {
    const [present = [], ...before] = past;
    const mixed = Float64Array.from(present);
    const isForward = this.#trial.sequential === 'first to last';
    for (let i = 0; i < mixed.length; i += 1) {
      const j = isForward ? i : mixed.length - 1 - i;
      mixed[j] = doing.step([mixed, ...before], place)[j] ?? NaN;
    }
    return mixed;
  }
}

/**
 * Does a trial row by row.
 *
 * @param visit is given each row; false ends the run
 */
export function runTrial(trial: Trial, visit: (row: TrialRow) => boolean): void {
  const { initial, steps, kept, precision } = trial;
  const stepper = new Stepper(trial);
  const depth = Math.max(0, ...trial.methods.map((method) => method.depth));
  const stored = (values: ArrayLike<number>): Float64Array => {
    const own = new Float64Array(values);
    if (precision === 'single') own.forEach((value, j) => (own[j] = Math.fround(value)));
    return kept === null ? own : own.map(kept);
  };
  let past: readonly ArrayLike<number>[] = [stored(initial)];
  for (let n = 0; n <= steps; n += 1) {
    const own = past;
    let next: ReturnType<Stepper['step']> | null = null;
    // a step is done when its stages or the row behind it are asked for
    const step = (): ReturnType<Stepper['step']> | null =>
      n < steps ? (next ??= stepper.step(own, n)) : null;
    const row = {
      n,
      t: timeIn(trial, n),
      values: own[0] ?? [],
      stages: () => step()?.stages() ?? null,
    };
    if (!visit(row)) return;
    const values = step()?.values ?? null;
    if (values === null || values.length === 0 || !values.every(Number.isFinite)) return;
    past = [stored(values), ...own.slice(0, depth)];
  }
}

/** Answers the values one step on from others, with those of the grid points before them: the newest first. */
export function stepsOf(trial: Trial): (past: readonly ArrayLike<number>[], n: number) => ArrayLike<number> {
  const stepper = new Stepper(trial);
  return (past, n) => stepper.step(past, n).values;
}
