/** Order of the series. */
export const ORDER = 24;

/** One step of a Taylor integration: the polynomials that hold from t to t + length. */
export interface TaylorSegment {
  readonly t: number;
  readonly length: number;
  /** Coefficient k of component j at [k*size + j]. */
  readonly coefficients: Float64Array;
}

/** All components of a segment at a time. */
export function evaluateSegment(piece: TaylorSegment, size: number, t: number, out: Float64Array): void {
  const s = t - piece.t;
  for (let j = 0; j < size; j += 1) {
    let value = 0;
    for (let k = ORDER; k >= 0; k -= 1) value = value * s + piece.coefficients[k * size + j]!;
    out[j] = value;
  }
}

/** The segment that holds at a time. */
export function segmentAt(pieces: readonly TaylorSegment[], t: number): TaylorSegment | undefined {
  let low = 0;
  let high = pieces.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (pieces[middle]!.t <= t) low = middle;
    else high = middle - 1;
  }
  return pieces[low];
}

/** Slope of a segment at a time. */
export function slopeOf(piece: TaylorSegment, size: number, t: number, out: Float64Array): void {
  const s = t - piece.t;
  for (let j = 0; j < size; j += 1) {
    let value = 0;
    for (let k = ORDER; k >= 1; k -= 1) value = value * s + k * piece.coefficients[k * size + j]!;
    out[j] = value;
  }
}
