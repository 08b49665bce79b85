import { compileWithStart } from '../../compile/compile-with-start.ts';
import { ln } from '../../elementary/logarithm.ts';
import { evaluationsPerStep, type Method } from '../../method/method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import type { Problem } from '../../problem/problem.ts';
import { exactSolution } from '../../run/exact-solution.ts';
import { layGrid, timeAt } from '../../run/grid.ts';
import { begin, goTo } from '../../run/integrate.ts';
import { norm } from '../../run/norm.ts';
import { attempt } from '../../text/refusal.ts';
import { inspectMethod } from '../inspect-method.ts';

/** A problem of the battery. */
interface Bench {
  readonly name: string;
  readonly text: string;
  /** Up to which order of a method its runs are exact but for rounding; null for a problem that none is exact on. */
  readonly exactFrom: number | null;
  /** Whether every h is far above its time constant. */
  readonly isStiff?: boolean;
}

const power = (q: number): string =>
  `y' = ${q === 1 ? '1' : `${q}*t${q === 2 ? '' : `^${q - 1}`}`}\ny(0) = 0\n0 <= t <= 1\ny(t) = t${q === 1 ? '' : `^${q}`}`;

/**
 * Problems with known solutions: powers of t, linear, nonlinear, with time in the right-hand side, systems, a stiff
 * one.
 */
const FIRST: readonly Bench[] = [
  { name: 'f = 1', text: power(1), exactFrom: 1 },
  { name: 'y = t^2', text: power(2), exactFrom: 2 },
  { name: 'y = t^3', text: power(3), exactFrom: 3 },
  { name: 'y = t^4', text: power(4), exactFrom: 4 },
  { name: "linear, y' = -y", text: "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)", exactFrom: null },
  {
    name: "nonlinear, y' = -y^2/2",
    text: "y' = -y^2/2\ny(0) = 1\n0 <= t <= 2\ny(t) = 2/(2 + t)",
    exactFrom: null,
  },
  {
    name: "non-autonomous, y' = cos(t)*y",
    text: "y' = cos(t)*y\ny(0) = 1\n0 <= t <= 3\ny(t) = exp(sin(t))",
    exactFrom: null,
  },
  {
    name: 'a nonlinear system of two',
    text: "u' = w + t*(u^2 - sin(t)^2)/4\nw' = -u + (w^2 - cos(t)^2)/5\nu(0) = 0\nw(0) = 1\n0 <= t <= 3\nu(t) = sin(t)\nw(t) = cos(t)",
    exactFrom: null,
  },
  {
    name: "stiff, y' = -30*(y - cos(t))",
    text: "y' = -30*(y - cos(t)) - sin(t)\ny(0) = 1\n0 <= t <= 1\ny(t) = cos(t)",
    exactFrom: null,
  },
];
/**
 * With steps far above the time constant the order falls to about the stage order. Source: A. Prothero, A. Robinson, Math.
 * Comp. 28 (1974) 145-162; for methods that are stable on the whole negative axis.
 */
const STIFF: Bench = {
  name: "very stiff, y' = -10^6*(y - cos(t))",
  text: "y' = -1e6*(y - cos(t)) - sin(t)\ny(0) = 1\n0 <= t <= 1\ny(t) = cos(t)",
  exactFrom: null,
  isStiff: true,
};
const SECOND: readonly Bench[] = [
  { name: "x'' = 2", text: "x'' = 2\nx(0) = 0\nx'(0) = 0\n0 <= t <= 1\nx(t) = t^2", exactFrom: null },
  { name: "x'' = -x", text: "x'' = -x\nx(0) = 0\nx'(0) = 1\n0 <= t <= 3\nx(t) = sin(t)", exactFrom: null },
  {
    name: "nonlinear, with t, without x'",
    text: "x'' = -x + t*(x^2 - sin(t)^2)/4\nx(0) = 0\nx'(0) = 1\n0 <= t <= 3\nx(t) = sin(t)",
    exactFrom: null,
  },
  {
    name: "damped, with x'",
    text: "x'' = -x - (x'*x - sin(t)*cos(t))/3\nx(0) = 0\nx'(0) = 1\n0 <= t <= 3\nx(t) = sin(t)",
    exactFrom: null,
  },
];

/** How a method did on one problem of the battery. */
export interface BenchResult {
  readonly name: string;
  /** The order between the finest two rungs that are clear of rounding; null where there are none. */
  readonly observed: number | null;
  /** Largest error over the grid of the finest rung. */
  readonly finest: number | null;
  /**
   * `exact`: all errors are rounding. `agrees`: the observed order is the proved one. `above`: it is higher on this problem,
   * and steady; `unsteady`: higher and not steady.
   * `parts`: they stay below it. `reduced`: they stay below it since h is far above the time constant. `digits`: they
   * stay below it, and the decimals of the method are rounded. `unknown`: no order
   * is proved. `grows`: errors do not fall.
   */
  readonly verdict:
    'exact' | 'agrees' | 'above' | 'unsteady' | 'parts' | 'reduced' | 'digits' | 'unknown' | 'grows';
  /** Steps of the coarsest rung from which on the observed orders stay off the proved one; null where they do not. */
  readonly partsAt: number | null;
}

export interface TestBench {
  readonly proved: number | null;
  readonly results: readonly BenchResult[];
}

const COUNTS = [8, 16, 32, 64, 128, 256, 512, 1024, 2048];
/** Evaluations of one run, at most: a method of very many stages is run with fewer steps. */
const MAX_EVALUATIONS = 100_000;

/** Numbers of steps with which a method is run. */
function countsFor(method: Method): readonly number[] {
  const most = MAX_EVALUATIONS / Math.max(1, evaluationsPerStep(method));
  return COUNTS.filter((steps) => steps > method.depth && steps <= Math.max(most, COUNTS[2]!));
}
/** Errors below that many units of the largest value are rounding. */
const ROUNDING = 400 * Number.EPSILON;
/** An observed order that is so much higher is another one. */
const ABOVE = 0.6;
/** Neighbouring orders that differ by no more are one order; elsewhere a run has just become stable. */
const STEADY = 0.3;
/** How near to the proved order an observed one must come; high orders are seen at few and coarse rungs alone. */
function nearTo(proved: number): number {
  return proved - Math.max(0.2, proved / 10);
}

function read(text: string): Problem {
  const reading = parseProblem(text);
  if (!reading.ok) throw new Error(`a built-in problem cannot be read: ${JSON.stringify(reading.errors)}`);
  return reading.value;
}

function errorsOn(method: Method, problem: Problem): readonly number[] | null {
  const compiled = attempt(() => compileWithStart(problem, method, { find: () => null, instead: 'exact' }));
  if (!compiled.ok) return null;
  const exact = exactSolution(problem);
  return countsFor(method).map((steps) => {
    const at = begin(compiled.value, layGrid(problem.start, problem.end, { steps }));
    // the largest error: at one time alone an error may happen to change its sign
    let largest = 0;
    for (let n = 1; n <= steps; n += 1) {
      goTo(at, n);
      if (at.stopped !== null) return Infinity;
      const t = timeAt(at.grid, n);
      const error = norm(Array.from({ length: problem.size }, (_, j) => at.state[j]! - exact.value(j, t)));
      largest = Math.max(largest, error);
    }
    return largest;
  });
}

/** The order that a method has, and whether within the digits of rounded decimals alone. */
interface Proved {
  readonly order: number | null;
  readonly isRounded: boolean;
}

function resultOn(
  { name, text, exactFrom, isStiff = false }: Bench,
  method: Method,
  { order: proved, isRounded }: Proved,
): BenchResult {
  const problem = read(text);
  const errors = errorsOn(method, problem);
  const none = { name, observed: null, finest: null, partsAt: null };
  if (errors === null) return { ...none, verdict: 'unknown' };
  const clear = errors.filter((error) => error > ROUNDING * COUNTS.length);
  const finest = errors.at(-1) ?? null;
  if (clear.length === 0) return { ...none, finest, verdict: 'exact' };
  const counts = countsFor(method);
  const orders = errors.slice(1).flatMap((error, i) => {
    const before = errors[i]!;
    if (!Number.isFinite(before) || error <= ROUNDING * 20) return [];
    return [{ steps: counts[i + 1]!, order: ln(before / error) / Math.LN2 }];
  });
  const observed = orders.at(-1)?.order ?? null;
  // what is left between the first error and rounding is too little for an order
  if (observed === null) return { ...none, finest, verdict: Number.isFinite(finest) ? 'exact' : 'grows' };
  // a run that overflows has no order
  if (observed < 0.3 && (finest ?? 0) > 1e-6)
    return { ...none, observed: Number.isFinite(observed) ? observed : null, finest, verdict: 'grows' };
  if (proved === null) return { ...none, observed, finest, verdict: 'unknown' };
  if (exactFrom !== null && proved >= exactFrom)
    return { name, observed, finest, verdict: isRounded ? 'digits' : 'parts', partsAt: counts[0] ?? null };
  if (observed >= proved + ABOVE) {
    const before = orders.at(-2)?.order ?? NaN;
    const isSteady = Math.abs(observed - before) <= STEADY;
    return { ...none, observed, finest, verdict: isSteady ? 'above' : 'unsteady' };
  }
  if (observed >= nearTo(proved)) return { ...none, observed, finest, verdict: 'agrees' };
  if (isStiff) return { ...none, observed, finest, verdict: 'reduced' };
  const last = orders.findLastIndex(({ order }) => order >= nearTo(proved));
  const partsAt = orders[last + 1]?.steps ?? null;
  if (isRounded) return { ...none, observed, finest, verdict: 'digits', partsAt };
  return { name, observed, finest, verdict: 'parts', partsAt };
}

/**
 * Runs a method on a fixed battery of problems with known solutions, with exact starting values, and holds the observed
 * orders against the proved one. A method of order p is exact for powers of t up to p.
 *
 * @example testBench(heun)
 */
export function testBench(method: Method): TestBench {
  const { order: exact, orderWithoutVelocity, stability, withinDigits } = inspectMethod(method);
  const order = withinDigits?.proof ?? exact;
  const isSecond = method.form === 'second order';
  const proved = order !== null && order.zero?.stable !== false ? order.order : null;
  const free = orderWithoutVelocity?.order ?? proved;
  return {
    proved,
    results: [...(isSecond ? SECOND : FIRST), ...(stability?.real === Infinity ? [STIFF] : [])].map((bench) =>
      resultOn(bench, method, {
        order: isSecond && !bench.name.startsWith('damped') ? free : proved,
        isRounded: withinDigits !== null,
      }),
    ),
  };
}
