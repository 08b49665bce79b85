import type { RightHandSides } from '../compile/right-hand-sides.ts';
import { evaluateSegment, type TaylorSegment, slopeOf } from './taylor-segment.ts';

/**
 * Places of a segment at which its slope is held against the right-hand sides, and how near they must be beside the
 * largest right-hand side.
 */
const CHECKED = [0.25, 0.5, 0.75, 1 - 1e-9];
const ALIKE = 1e-9;
/** Far from zero a time is rounded, and right-hand sides with it. */
const ROUNDED = 1e-15;
/**
 * A difference of slopes that moves values by less than this over a segment is underflow: so near to zero doubles have
 * fewer digits, and a right-hand side that multiplies them makes their rounding as large as themselves.
 */
const UNDERFLOW = 1e-290;
/** How many bisections find the time up to which they are alike. */
const BISECTIONS = 60;

/**
 * Where a segment leaves the solution: its series goes on where the right-hand sides do not, as behind the zero of a
 * root. The last time at which its slope is that of the right-hand sides; null where it always is.
 */
export function leavesAt(
  piece: TaylorSegment,
  size: number,
  rightHandSides: RightHandSides,
  state: Float64Array,
): number | null {
  const slope = new Float64Array(size);
  const isAlike = (t: number): boolean => {
    evaluateSegment(piece, size, t, state);
    slopeOf(piece, size, t, slope);
    const own = rightHandSides(t, state);
    let [most, off] = [0, 0];
    for (let j = 0; j < size; j += 1) {
      most = Math.max(most, Math.abs(own[j]!), Math.abs(piece.coefficients[size + j]!));
      off = Math.max(off, Math.abs(own[j]! - slope[j]!));
      if (Number.isNaN(own[j]!)) return false;
    }
    return off * piece.length <= UNDERFLOW || off <= (ALIKE + ROUNDED * Math.abs(t)) * most;
  };
  let low = piece.t;
  for (const part of CHECKED) {
    let high = piece.t + part * piece.length;
    if (isAlike(high)) {
      low = high;
      continue;
    }
    for (let i = 0; i < BISECTIONS; i += 1) {
      const middle = low + (high - low) / 2;
      if (isAlike(middle)) low = middle;
      else high = middle;
    }
    return low;
  }
  return null;
}

/** Components of larger systems are not looked at. */
const MAX_LOOKED_AT = 50;
/** A change of a value that is none, beside the largest, and how much faster than the solution it must not grow. */
const NUDGE = 1e-12;
const TORN = 1e4;

/**
 * Whether values a little off are driven away at once, so that more than one solution goes on from here: what y' =
 * sqrt(y) does at 0, and y' = -sqrt(y) does not.
 */
export function isTorn(
  rightHandSides: RightHandSides,
  t: number,
  state: Float64Array,
  slope: number,
): boolean {
  if (state.length > MAX_LOOKED_AT) return false;
  const own = rightHandSides(t, state).slice();
  const scale = state.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const nudge = NUDGE * (scale > 0 ? scale : 1);
  return [1, -1].some((sign) =>
    state.some((value, j) => {
      const moved = state.slice();
      moved[j] = value + sign * nudge;
      return sign * (rightHandSides(t, moved)[j]! - own[j]!) > TORN * NUDGE * slope;
    }),
  );
}
