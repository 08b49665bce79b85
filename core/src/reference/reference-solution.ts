import { parseMethod } from '../method/parse-method.ts';
import { attempt } from '../text/refusal.ts';
import type { Problem } from '../problem/problem.ts';
import { outOfUnits, scaledProblem, type Scales } from '../problem/scaled-problem.ts';
import { compileRun } from '../compile/compile.ts';
import { rhsSeconds } from '../compile/rhs-cost.ts';
import { systemRightHandSides } from '../compile/right-hand-sides.ts';
import { layGrid, timeAt } from '../run/grid.ts';
import { hermite, type Knot } from '../run/hermite.ts';
import { begin, goTo } from '../run/integrate.ts';
import { MAX_JET_COMPONENTS } from '../compile/jets/jet-function.ts';
import { ORDER } from './taylor-segment.ts';
import { seriesOperations } from '../compile/jets/series-size.ts';
import { branchesOf, switchOperations } from './switches.ts';
import { type DenseSolution, taylorSolution } from './taylor-solution.ts';

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

/** Points that a solution by fine steps keeps, with their slopes. */
const KEPT = 240;
/** Points that a polynomial between them goes through. */
const THROUGH = 4;
/** Component steps of a solution in fine steps, about. */
const FINE_COMPONENT_STEPS = 2e7;
/** Seconds that a reference in fine steps may take, its second run included. */
const FINE_SECONDS = 6;
/** A step of RK4 evaluates the right-hand side four times; the second run of a reference has twice as many steps. */
const EVALUATIONS = 4;
const BOTH_RUNS = 1 + 2;

/** RK4 in many small steps, thinned to points with a polynomial between them. */
function fineSteps(problem: Problem, until: number, finer: number, work: number): DenseSolution {
  const method = parseMethod(RK4);
  if (!method.ok) throw new Error('the built-in method cannot be read');
  const kept = KEPT * finer;
  const stride = Math.max(1, Math.min(400, Math.floor(work / (problem.size * KEPT))));
  const grid = layGrid(problem.start, until, { steps: kept * stride });
  const at = begin(compileRun(problem, method.value), grid);
  const rightHandSides = systemRightHandSides(problem);
  const knot = (): Knot => {
    const [t, values] = [timeAt(grid, at.n), at.state.slice(0, problem.size)];
    return { t, values, slopes: rightHandSides(t, values) };
  };
  const knots = [knot()];
  while (at.n < grid.steps) {
    const before = at.n;
    goTo(at, before + stride);
    if (at.n < before + stride) break;
    knots.push(knot());
  }
  const width = (until - problem.start) / kept;
  const through = Math.min(THROUGH, knots.length);
  return {
    reached: timeAt(grid, at.n),
    ending: at.n < grid.steps ? 'leaves' : null,
    steps: at.n,
    switches: [],
    doubt: 0,
    at: (t, out) => {
      const left = Math.floor((t - problem.start) / width) + 1 - (through >> 1);
      const first = Math.min(knots.length - through, Math.max(0, left));
      out.set(hermite(knots.slice(first, first + through), t));
    },
  };
}

const TOLERANCE = 1e-18;
const TIGHTER = 1e-21;

/** Operations of a series, and of all segments together, that a solution for a picture is worth. */
const SERIES_DRAWN = 60_000;
const OPERATIONS_DRAWN = 4e7;
const PIECES_DRAWN = { most: 1_500, least: 40 };
/** Seconds that RK4 in fine steps may take for a picture, about. */
const SECONDS_DRAWN = 0.05;

/** Seconds that a step of RK4 takes for each component, about. */
function componentStepSeconds(problem: Problem): number {
  return (EVALUATIONS * rhsSeconds(problem)) / problem.size;
}

/** Component steps of a solution in fine steps that takes no longer than some seconds, about. */
function workWithin(problem: Problem, seconds: number): number {
  return Math.min(FINE_COMPONENT_STEPS, seconds / componentStepSeconds(problem));
}

/** About how many seconds a reference in fine steps takes on one core. */
export function fineStepsSeconds(problem: Problem): number {
  return Math.min(FINE_SECONDS, BOTH_RUNS * FINE_COMPONENT_STEPS * componentStepSeconds(problem));
}

/**
 * A solution of any problem that is good enough for a picture and takes no more than a moment: by Taylor series of
 * order 24 where these are short, and by RK4 in fine steps where not, with polynomials of degree 7 between some of
 * them.
 */
export function drawnSolution(problem: Problem): Reference {
  const series = seriesOperations(problem, ORDER);
  if (problem.size > MAX_JET_COMPONENTS || series > SERIES_DRAWN)
    return {
      kind: 'fine steps',
      solution: fineSteps(problem, problem.end, 1, workWithin(problem, SECONDS_DRAWN)),
    };
  const pieces = Math.floor(OPERATIONS_DRAWN / (series + switchOperations(problem)));
  const most = Math.max(PIECES_DRAWN.least, Math.min(PIECES_DRAWN.most, pieces));
  const branches = branchesOf(problem);
  return { kind: 'taylor', solution: taylorSolution(problem, TOLERANCE, { branches, most }) };
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
  const taylor = attempt(() => taylorReference(problem, until));
  if (taylor.ok) return taylor.value;
  // its series are too large
  const work = workWithin(problem, FINE_SECONDS / BOTH_RUNS);
  const solution = fineSteps(problem, until, 1, work);
  const finer = fineSteps(problem, until, 2, work);
  return { kind: 'fine steps', solution: finer, error: difference(problem, until, solution, finer) };
}

/** Beyond so many roundings two runs differ by rounding that the problem has amplified. */
const AMPLIFIED = 1e3;
/** Then their distance is a sample of it: how many times it the error of one of them may be. */
const BY_CHANCE = 5;

/** @throws Refusal for a problem whose series are too large */
function taylorReference(problem: Problem, until: number): EstimatedReference {
  const solution = taylorSolution(problem, TOLERANCE, { until, branches: branchesOf(problem) });
  const tighter = inOtherUnits(problem, until);
  const apart = difference(problem, until, solution, tighter);
  const error = (apart > AMPLIFIED * Number.EPSILON ? BY_CHANCE : 1) * apart + solution.doubt;
  return { kind: 'taylor', solution, error };
}

/** Units in which a second run rounds another way. */
const UNITS: Scales = { values: 3, time: 0.75 };

/** The same solution by shorter steps and with other rounding, so that what both agree on is not rounding in common. */
function inOtherUnits(problem: Problem, until: number): DenseSolution {
  const scaled = scaledProblem(problem, UNITS);
  const { time } = UNITS;
  const solution = taylorSolution(scaled, TIGHTER, { until: until * time, branches: branchesOf(scaled) });
  return {
    ...solution,
    reached: solution.reached === until * time ? until : solution.reached / time,
    at: (t, out) => {
      solution.at(Math.min(t * time, solution.reached), out);
      outOfUnits(problem, UNITS, out);
    },
  };
}

function difference(problem: Problem, until: number, one: DenseSolution, other: DenseSolution): number {
  const [a, b] = [new Float64Array(problem.size), new Float64Array(problem.size)];
  const reached = Math.min(one.reached, other.reached);
  // where the solution becomes non-finite nothing near that time is sure
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
