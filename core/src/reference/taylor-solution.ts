import type { Problem } from '../problem/problem.ts';
import { pow } from '../elementary/power.ts';
import { type JetFunction, jetFunction } from '../compile/jets/jet-function.ts';
import { type RightHandSides, systemRightHandSides } from '../compile/right-hand-sides.ts';
import { isTorn, leavesAt } from './leaves-series.ts';
import { evaluateSegment, ORDER, type TaylorSegment, segmentAt } from './taylor-segment.ts';
import type { Branches } from './switches.ts';

/** A solution that can be evaluated anywhere on the interval it reached. */
export interface DenseSolution {
  /** The last time reached; the end of the interval unless the solution became non-finite. */
  readonly reached: number;
  /** Writes all components at time t into `out`. */
  readonly at: (t: number, out: Float64Array) => void;
  /** Times at which a right-hand side changed its branch: kinks and jumps. */
  readonly switches: readonly number[];
  /**
   * Why it ended before the end: the solution becomes non-finite; the right-hand sides have no series there; or too
   * many steps are needed, as where right-hand sides switch without end. Null where it did not.
   */
  readonly ending: 'leaves' | 'singular' | 'stuck' | null;
  /** What steps over times without series may have added to its error, relative to its largest component. */
  readonly doubt: number;
  /** Steps that were needed. */
  readonly steps: number;
}

/** Segments of a solution, after which it gives up. */
export const MAX_PIECES = 20_000;

/** Largest size of coefficient k over all components. */
function largest(coefficients: Float64Array, size: number, k: number): number {
  let most = 0;
  for (let j = 0; j < size; j += 1) most = Math.max(most, Math.abs(coefficients[k * size + j]!));
  return most;
}

/**
 * Step over which the last terms of all components stay below the tolerance, relative to the size of the solution
 * there: its value, or what its terms rise to within the radius of the series, or the rest of the interval.
 */
function stepLength(coefficients: Float64Array, size: number, tolerance: number, rest: number): number {
  const last = largest(coefficients, size, ORDER);
  const first = Array.from({ length: ORDER }, (_, k) => k + 1).find(
    (k) => largest(coefficients, size, k) > 0,
  );
  let scale = largest(coefficients, size, 0);
  if (first !== undefined && first < ORDER && last > 0) {
    const radius = pow(largest(coefficients, size, first) / last, 1 / (ORDER - first));
    scale = Math.max(scale, largest(coefficients, size, first) * pow(Math.min(radius, rest), first));
  }
  let length = Infinity;
  for (const k of [ORDER - 1, ORDER]) {
    const term = largest(coefficients, size, k);
    if (term > 0) length = Math.min(length, pow((tolerance * Math.max(scale, 1e-290)) / term, 1 / k));
  }
  return 0.9 * length;
}

/** Tolerance of the step by which the number of steps of a reference is estimated. */
const ROUGHLY = 1e-18;

/** The length of the first step of a solution; the whole interval where it has no series there. */
export function firstStep(problem: Problem): number {
  const { size, start, end, initial } = problem;
  const coefficients = new Float64Array((ORDER + 1) * size);
  jetFunction(problem, ORDER)(start, initial, coefficients);
  const length = stepLength(coefficients, size, ROUGHLY, end - start);
  return length > 0 ? length : end - start;
}

/** Looks along one step for a change of branch. */
const LOOKS = 24;

/** The first time at which the branches are others than at the start of a segment; null where they stay. */
function firstSwitch(
  piece: TaylorSegment,
  size: number,
  branches: Branches,
  state: Float64Array,
): number | null {
  const at = (t: number): readonly number[] => {
    evaluateSegment(piece, size, t, state);
    return branches(t, state);
  };
  const own = at(piece.t);
  const differs = (t: number): boolean => at(t).some((branch, i) => branch !== own[i]);
  for (let i = 1; i <= LOOKS; i += 1) {
    let high = piece.t + (piece.length * i) / LOOKS;
    if (!differs(high)) continue;
    let low = piece.t + (piece.length * (i - 1)) / LOOKS;
    for (;;) {
      const middle = low + (high - low) / 2;
      if (!(middle > low && middle < high)) return high;
      if (differs(middle)) high = middle;
      else low = middle;
    }
  }
  return null;
}

/** A step over a time without series, as a part of the interval, and the most that such steps may add to the error. */
const OVER = 1e-11;
const MAX_DOUBT = 1e-9;
/** Such steps, at most. */
const MAX_OVER = 200;
/** A change of slope that is none but rounding. */
const STRAIGHT = 1e-17;
/** Steps shorter than that, as a part of the interval, go nowhere. */
const SHORTEST = 1e-13;
/**
 * Segments in a row that each end at a change of branch, and the part of the interval they must cover together:
 * right-hand sides that switch to and fro without end come no further.
 */
const MAX_CHATTER = 200;
const MIN_PROGRESS = 1e-6;
/** Changes of branch of one solution, at most. */
const MAX_SWITCHES = 5_000;
/** Where slopes are looked at ahead, as parts of what is left of the interval: at no simple fractions of it. */
const AHEAD = [0, 0.0713, 0.237, 0.481, 0.829];
/** A solution that has grown by this factor is regarded as infinite. */
const LARGE = 1e6;

export interface TaylorOptions {
  /** Where to end instead of the end of the interval. */
  readonly until?: number;
  readonly jet?: JetFunction;
  /** The branches of right-hand sides with kinks: no step reaches over a change of them. */
  readonly branches?: Branches | null;
  /** Most steps, after which it gives up; 20,000 without it. */
  readonly most?: number;
}

/** A solution by Taylor series, as it grows. */
class TaylorRun {
  readonly #problem: Problem;
  readonly #end: number;
  readonly #tolerance: number;
  readonly #jet: JetFunction;
  readonly #branches: Branches | null;
  readonly #most: number;
  readonly #rightHandSides: RightHandSides;
  readonly #state: Float64Array;
  readonly #pieces: TaylorSegment[] = [];
  readonly #switches: number[] = [];
  /** The largest component at the start, and up to now. */
  readonly #started: number;
  #scale = 0;
  #t: number;
  #doubt = 0;
  /** Steps over times without series. */
  #over = 0;
  #chatter: { readonly from: number; readonly pieces: number };
  #ending: DenseSolution['ending'] = null;

  constructor(problem: Problem, tolerance: number, options: TaylorOptions) {
    const { until = problem.end, jet = jetFunction(problem, ORDER) } = options;
    this.#problem = problem;
    this.#end = until;
    this.#tolerance = tolerance;
    this.#jet = jet;
    this.#branches = options.branches ?? null;
    this.#most = options.most ?? MAX_PIECES;
    this.#rightHandSides = systemRightHandSides(problem);
    this.#state = Float64Array.from(problem.initial);
    this.#t = problem.start;
    this.#chatter = { from: problem.start, pieces: 0 };
    this.#started = this.#state.reduce((most, value) => Math.max(most, Math.abs(value)), 1);
  }

  get #interval(): number {
    return this.#end - this.#problem.start;
  }

  solution(): DenseSolution {
    while (this.#t < this.#end && this.#ending === null) {
      if (this.#pieces.length >= this.#most) this.#ending = 'stuck';
      else this.#step();
    }
    const [pieces, reached, { size }] = [this.#pieces, this.#t, this.#problem];
    return {
      reached,
      ending: this.#ending,
      steps: pieces.length,
      doubt: this.#scale > 0 ? this.#doubt / this.#scale : 0,
      switches: this.#switches,
      at: (time, out) => {
        const piece = segmentAt(pieces, time);
        if (piece === undefined || time > reached) out.fill(NaN);
        else evaluateSegment(piece, size, time, out);
      },
    };
  }

  /** One segment of the solution: as long as its series is good, and no further than to a change of branch. */
  #step(): void {
    const { size } = this.#problem;
    for (const value of this.#state) this.#scale = Math.max(this.#scale, Math.abs(value));
    const coefficients = new Float64Array((ORDER + 1) * size);
    this.#jet(this.#t, this.#state, coefficients);
    const rest = this.#end - this.#t;
    const length = this.#lengthOf(coefficients, rest);
    // near a time without series the steps become ever shorter
    if (!(length > SHORTEST * this.#interval) && !(length === rest && length > 0)) {
      const isFinite = this.#rightHandSides(this.#t, this.#state).every((rhs) => Number.isFinite(rhs));
      if (!this.#stepOver())
        this.#ending = isFinite && this.#scale < LARGE * this.#started ? 'singular' : 'leaves';
      return;
    }
    const whole = { t: this.#t, length, coefficients };
    const turn = this.#branches && firstSwitch(whole, size, this.#branches, this.#state);
    const tried = { ...whole, length: turn === null ? length : turn - this.#t };
    // a segment of a bit or two before a change of branch has no inside
    const hasInside = tried.length > SHORTEST * this.#interval;
    const left = hasInside ? leavesAt(tried, size, this.#rightHandSides, this.#state) : null;
    const piece = left === null ? tried : { ...whole, length: left - this.#t };
    if (left !== null && !(left > this.#t)) {
      evaluateSegment(piece, size, this.#t, this.#state);
      if (!this.#stepOver()) this.#ending = 'singular';
      return;
    }
    if (turn !== null && turn < this.#end && left === null) this.#switches.push(turn);
    if (left !== null) this.#switches.push(left);
    this.#take(piece, left ?? turn ?? (length === rest ? this.#end : this.#t + length));
    this.#watchChatter(turn !== null || left !== null);
  }

  #lengthOf(coefficients: Float64Array, rest: number): number {
    if (!coefficients.every((c) => Number.isFinite(c))) return 0;
    // a branch that lasts for a short time only is not to fall between two looks
    const longest = this.#branches === null ? this.#interval : this.#interval / 40;
    return Math.min(stepLength(coefficients, this.#problem.size, this.#tolerance, rest), longest, rest);
  }

  #take(piece: TaylorSegment, next: number): void {
    this.#pieces.push(piece);
    evaluateSegment(piece, this.#problem.size, next, this.#state);
    this.#t = next;
  }

  /** Gives up where branches change to and fro and the solution comes no further. */
  #watchChatter(isCut: boolean): void {
    const { from, pieces } = this.#chatter;
    this.#chatter = isCut ? { from, pieces: pieces + 1 } : { from: this.#t, pieces: 0 };
    if (this.#switches.length > MAX_SWITCHES) this.#ending = 'stuck';
    if (this.#chatter.pieces < MAX_CHATTER) return;
    if (this.#t - this.#chatter.from < MIN_PROGRESS * this.#interval) this.#ending = 'stuck';
    this.#chatter = { from: this.#t, pieces: 0 };
  }

  /** How far a component may come with the slopes of here and of later times: the size of a solution that starts from 0. */
  #moves(): number {
    const [t, rest] = [this.#t, this.#end - this.#t];
    const slopes = AHEAD.flatMap((part) => [...this.#rightHandSides(t + part * rest, this.#state)]);
    return slopes.reduce((most, slope) => Math.max(most, Math.abs(slope) || 0), 0) * this.#interval;
  }

  /**
   * Over a time at which there is no series, by a straight line: as long a one as is exact to rounding, and else a
   * short one whose doubt is the change of the slope on it.
   */
  #stepOver(): boolean {
    const [t, state, rest] = [this.#t, this.#state, this.#end - this.#t];
    const own = this.#rightHandSides(t, state).slice();
    const along = (length: number): Float64Array => state.map((value, j) => value + length * own[j]!);
    const change = (length: number): number => {
      const ahead = this.#rightHandSides(t + length, along(length));
      return own.reduce((most, slope, j) => Math.max(most, Math.abs(slope - ahead[j]!) * length), 0);
    };
    const isStraight = (length: number): boolean =>
      Math.max(change(length), change(length / 2), change(length / 3)) <= STRAIGHT * this.#scale;
    const least = Math.min(OVER * this.#interval, rest);
    let length = rest;
    while (length > least && !isStraight(length)) length = Math.max(least, length / 8);
    const added = change(length);
    this.#over += 1;
    if (!Number.isFinite(added) || !(t + length > t) || this.#over > MAX_OVER) return false;
    const scale = Math.max(this.#scale, this.#moves());
    if (!(this.#doubt + added <= MAX_DOUBT * scale)) return false;
    if (isTorn(this.#rightHandSides, t, state, scale / rest)) return false;
    this.#doubt += added;
    const coefficients = new Float64Array((ORDER + 1) * this.#problem.size);
    coefficients.set(state);
    coefficients.set(own, this.#problem.size);
    this.#pieces.push({ t, length, coefficients });
    if (added > STRAIGHT * this.#scale) this.#switches.push(t);
    state.set(along(length));
    this.#t = length === rest ? this.#end : t + length;
    return true;
  }
}

/**
 * Integrates a problem by Taylor series of order 24 with steps of varying length, for reference: the last terms of
 * every step stay below the tolerance, relative to the largest component. A step ends where a right-hand side changes
 * its branch, found by bisection to the last bit of t.
 *
 * Source: A. Jorba, M. Zou, A software package for the numerical integration of ODEs by means of high-order Taylor
 * methods, Experimental Mathematics 14 (2005) 99-117, section 3.2, for the choice of step.
 *
 * @param tolerance relative size of the last terms, such as 1e-18
 * @throws Refusal for a problem with too many components for jets
 */
export function taylorSolution(
  problem: Problem,
  tolerance: number,
  options: TaylorOptions = {},
): DenseSolution {
  return new TaylorRun(problem, tolerance, options).solution();
}
