import type { Problem } from '../problem/problem.ts';
import { pow } from '../elementary/power.ts';
import { type JetFunction, jetFunction } from '../compile/jets/jet-function.ts';
import type { Branches } from './switches.ts';

/** One step of a Taylor integration: the polynomials that hold from t to t + length. */
interface Piece {
  readonly t: number;
  readonly length: number;
  /** Coefficient k of component j at [k*size + j]. */
  readonly coefficients: Float64Array;
}

/** A solution that can be evaluated anywhere on the interval it reached. */
export interface DenseSolution {
  /** The last time reached; the end of the interval unless the solution left the numbers. */
  readonly reached: number;
  /** Writes all components at time t into `out`. */
  readonly at: (t: number, out: Float64Array) => void;
  /** Times at which a rate changed its branch: kinks and jumps. */
  readonly switches: readonly number[];
  /** Whether it gave up before the end although the numbers were finite: too many steps, as where rates switch without end. */
  readonly stuck: boolean;
  /** Steps that were needed. */
  readonly steps: number;
}

/** Order of the series. */
export const ORDER = 24;
const MOST_PIECES = 20_000;

/** Largest size of coefficient k over all components. */
function largest(coefficients: Float64Array, size: number, k: number): number {
  let most = 0;
  for (let j = 0; j < size; j += 1) most = Math.max(most, Math.abs(coefficients[k * size + j]!));
  return most;
}

/**
 * Step over which the last terms of all components stay below the tolerance, relative to the size of the solution
 * there: its value, or what it rises to within the radius of the series where it starts from nothing.
 */
function stepLength(coefficients: Float64Array, size: number, tolerance: number): number {
  const last = largest(coefficients, size, ORDER);
  const rise = largest(coefficients, size, 1);
  const radius = last > 0 && rise > 0 ? pow(rise / last, 1 / (ORDER - 1)) : 0;
  const scale = Math.max(largest(coefficients, size, 0), rise * radius, 1e-290);
  let length = Infinity;
  for (const k of [ORDER - 1, ORDER]) {
    const term = largest(coefficients, size, k);
    if (term > 0) length = Math.min(length, pow((tolerance * scale) / term, 1 / k));
  }
  return 0.9 * length;
}

function evaluatePiece(piece: Piece, size: number, t: number, out: Float64Array): void {
  const s = t - piece.t;
  for (let j = 0; j < size; j += 1) {
    let value = 0;
    for (let k = ORDER; k >= 0; k -= 1) value = value * s + piece.coefficients[k * size + j]!;
    out[j] = value;
  }
}

function pieceAt(pieces: readonly Piece[], t: number): Piece | undefined {
  let low = 0;
  let high = pieces.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (pieces[middle]!.t <= t) low = middle;
    else high = middle - 1;
  }
  return pieces[low];
}

/** Looks along one step for a change of branch. */
const LOOKS = 24;

/** The first time at which the branches are others than at the start of a piece; null where they stay. */
function firstSwitch(piece: Piece, size: number, branches: Branches, state: Float64Array): number | null {
  const at = (t: number): readonly number[] => {
    evaluatePiece(piece, size, t, state);
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

export interface TaylorOptions {
  /** Where to end instead of the end of the interval. */
  readonly until?: number;
  readonly jet?: JetFunction;
  /** The branches of rates with kinks: no step reaches over a change of them. */
  readonly branches?: Branches | null;
  /** Most steps, after which it gives up; 20,000 without it. */
  readonly most?: number;
}

/**
 * Integrates a problem by Taylor series of order 24 with steps of varying length, for reference: the last terms
 * of every step stay below the tolerance, relative to the largest component. A step ends where a rate changes its
 * branch, found by bisection to the last bit of t.
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
  const { size, start } = problem;
  const {
    until: end = problem.end,
    jet = jetFunction(problem, ORDER),
    branches = null,
    most = MOST_PIECES,
  } = options;
  const state = Float64Array.from(problem.initial);
  const pieces: Piece[] = [];
  const switches: number[] = [];
  // a branch that lasts for a short time only is not to fall between two looks
  const longest = branches === null ? end - start : (end - start) / 40;
  let t = start;
  while (t < end && pieces.length < most) {
    const coefficients = new Float64Array((ORDER + 1) * size);
    jet(t, state, coefficients);
    if (!coefficients.every((c) => Number.isFinite(c))) break;
    const length = Math.min(stepLength(coefficients, size, tolerance), longest, end - t);
    if (!(t + length > t)) break;
    const turn = branches && firstSwitch({ t, length, coefficients }, size, branches, state);
    const piece = { t, length: turn === null ? length : turn - t, coefficients };
    pieces.push(piece);
    if (turn !== null && turn < end) switches.push(turn);
    const next = turn ?? (length === end - t ? end : t + length);
    evaluatePiece(piece, size, next, state);
    t = next;
  }
  return {
    reached: t,
    steps: pieces.length,
    stuck: pieces.length >= most && t < end,
    switches,
    at: (time, out) => {
      const piece = pieceAt(pieces, time);
      if (piece === undefined || time > t) out.fill(NaN);
      else evaluatePiece(piece, size, time, out);
    },
  };
}
