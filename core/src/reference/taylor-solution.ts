import type { Problem } from '../problem/problem.ts';
import { type JetFunction, jetFunction } from './jet-function.ts';

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
  /** Steps that were needed. */
  readonly steps: number;
}

const ORDER = 24;
const MOST_PIECES = 20_000;

/** Step over which the last terms of all components stay below the tolerance. */
function stepLength(coefficients: Float64Array, size: number, tolerance: number): number {
  let scale = 0;
  for (let j = 0; j < size; j += 1) scale = Math.max(scale, Math.abs(coefficients[j]!));
  let length = Infinity;
  for (const k of [ORDER - 1, ORDER]) {
    let largest = 0;
    for (let j = 0; j < size; j += 1) largest = Math.max(largest, Math.abs(coefficients[k * size + j]!));
    if (largest > 0) length = Math.min(length, ((tolerance * Math.max(scale, 1e-300)) / largest) ** (1 / k));
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

/**
 * Integrates a problem by Taylor series of order 24 with steps of varying length, for reference: the last terms
 * of every step stay below the tolerance, relative to the largest component.
 *
 * Source: A. Jorba, M. Zou, A software package for the numerical integration of ODEs by means of high-order Taylor
 * methods, Experimental Mathematics 14 (2005) 99-117, section 3.2, for the choice of step.
 *
 * @param tolerance relative size of the last terms, such as 1e-18
 * @throws RangeError for a problem with too many components for jets
 */
export function taylorSolution(
  problem: Problem,
  tolerance: number,
  jet: JetFunction = jetFunction(problem, ORDER),
): DenseSolution {
  const { size, start, end } = problem;
  const state = Float64Array.from(problem.initial);
  const pieces: Piece[] = [];
  let t = start;
  while (t < end && pieces.length < MOST_PIECES) {
    const coefficients = new Float64Array((ORDER + 1) * size);
    jet(t, state, coefficients);
    if (!coefficients.every((c) => Number.isFinite(c))) break;
    const length = Math.min(stepLength(coefficients, size, tolerance), end - t);
    if (!(t + length > t)) break;
    const piece = { t, length, coefficients };
    pieces.push(piece);
    const next = length === end - t ? end : t + length;
    evaluatePiece(piece, size, next, state);
    t = next;
  }
  return {
    reached: t,
    steps: pieces.length,
    at: (time, out) => {
      const piece = pieceAt(pieces, time);
      if (piece === undefined || time > t) out.fill(NaN);
      else evaluatePiece(piece, size, time, out);
    },
  };
}
