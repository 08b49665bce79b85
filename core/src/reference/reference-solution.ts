import { parseMethod } from '../method/parse-method.ts';
import type { Problem } from '../problem/problem.ts';
import { compileRun } from '../compile/compile.ts';
import { layGrid, timeAt } from '../run/grid.ts';
import { begin, goTo } from '../run/integrate.ts';
import { jetFunction, MOST_JET_COMPONENTS } from '../compile/jets/jet-function.ts';
import { branchesOf } from './switches.ts';
import { type DenseSolution, ORDER, taylorSolution } from './taylor-solution.ts';

/** A solution to compare with where no exact one is known, and how it was made. */
export interface Reference {
  /** `taylor`: series of order 24, ended at every kink. `fine steps`: RK4 with many small steps. */
  readonly kind: 'taylor' | 'fine steps';
  readonly solution: DenseSolution;
}

const RK4 = `k1 = f(t, y)
k2 = f(t + h/2, y + h/2*k1)
k3 = f(t + h/2, y + h/2*k2)
k4 = f(t + h, y + h*k3)
y[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)`;

/** Points that a solution by fine steps keeps; between them it is linear. */
const KEPT = 1_000;
/** Component steps that are worth a picture. */
const WORK = 2e7;

/** RK4 in many small steps, thinned to points; null where even that leaves the numbers at once. */
function fineSteps(problem: Problem, until: number, finer: number): DenseSolution {
  const method = parseMethod(RK4);
  if (!method.ok) throw new Error('the built-in method cannot be read');
  const stride = finer * Math.max(1, Math.min(100, Math.floor(WORK / (problem.size * KEPT))));
  const grid = layGrid(problem.start, until, { steps: KEPT * stride });
  const at = begin(compileRun(problem, method.value), grid);
  const points = [Float64Array.from(problem.initial)];
  while (at.n < grid.steps) {
    const before = at.n;
    goTo(at, before + stride);
    if (at.n < before + stride) break;
    points.push(at.state.slice());
  }
  const width = (until - problem.start) / KEPT;
  return {
    reached: timeAt(grid, at.n),
    steps: at.n,
    stuck: false,
    switches: [],
    at: (t, out) => {
      const place = (t - problem.start) / width;
      const left = Math.min(points.length - 1, Math.max(0, Math.floor(place)));
      const right = Math.min(points.length - 1, left + 1);
      const part = Math.min(1, Math.max(0, place - left));
      const [a, b] = [points[left]!, points[right]!];
      for (let j = 0; j < out.length; j += 1) out[j] = a[j]! + part * (b[j]! - a[j]!);
    },
  };
}

const TOLERANCE = 1e-18;
const TIGHTER = 1e-21;

/**
 * The solution of any problem: by Taylor series of order 24, to about 1e-15 of its size where it is smooth; beyond
 * 1,000 components by RK4 in fine steps.
 *
 * @param until where to end instead of the end of the interval
 */
export function referenceSolution(problem: Problem, until = problem.end): Reference {
  if (problem.size > MOST_JET_COMPONENTS)
    return { kind: 'fine steps', solution: fineSteps(problem, until, 1) };
  const branches = branchesOf(problem);
  return { kind: 'taylor', solution: taylorSolution(problem, TOLERANCE, { until, branches }) };
}

/** A reference with an estimate of its own error. */
export interface EstimatedReference extends Reference {
  /** Largest difference from a second run with tighter steps, relative to the largest component on the way. */
  readonly error: number;
}

/** Times at which two runs of a reference are compared. */
const COMPARED = 64;

/** The same, run a second time with a tighter tolerance or finer steps, whose difference is its estimated error. */
export function estimatedReference(problem: Problem, until = problem.end): EstimatedReference {
  if (problem.size > MOST_JET_COMPONENTS) {
    const solution = fineSteps(problem, until, 1);
    const finer = fineSteps(problem, until, 2);
    return { kind: 'fine steps', solution: finer, error: difference(problem, until, solution, finer) };
  }
  const branches = branchesOf(problem);
  const jet = jetFunction(problem, ORDER);
  const solution = taylorSolution(problem, TOLERANCE, { until, branches, jet });
  const tighter = taylorSolution(problem, TIGHTER, { until, branches, jet });
  return { kind: 'taylor', solution, error: difference(problem, until, solution, tighter) };
}

function difference(problem: Problem, until: number, one: DenseSolution, other: DenseSolution): number {
  const [a, b] = [new Float64Array(problem.size), new Float64Array(problem.size)];
  const reached = Math.min(one.reached, other.reached);
  // where the solution leaves the numbers nothing near that time is sure
  const last = reached < until ? problem.start + 0.99 * (reached - problem.start) : until;
  // one that never began is known nowhere
  if (!(reached > problem.start)) return Infinity;
  let scale = 0;
  let largest = 0;
  for (let i = 0; i <= COMPARED; i += 1) {
    const t = i === COMPARED ? last : problem.start + ((last - problem.start) * i) / COMPARED;
    one.at(t, a);
    other.at(t, b);
    for (let j = 0; j < problem.size; j += 1) {
      scale = Math.max(scale, Math.abs(a[j]!));
      largest = Math.max(largest, Math.abs(a[j]! - b[j]!));
    }
  }
  return Math.max(largest / Math.max(scale, Number.MIN_VALUE), Number.EPSILON);
}
