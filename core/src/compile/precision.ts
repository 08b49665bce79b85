/** Double: 64 bits. Single: every operation is rounded to 32 bits, so that round-off comes within sight. */
export const PRECISIONS = ['double', 'single'] as const;
/** The arithmetic of a run. */
export type Precision = (typeof PRECISIONS)[number];

/** The rounding of one operation. */
export function rounding(precision: Precision): (x: number) => number {
  return precision === 'single' ? Math.fround : (x) => x;
}

/** The unit roundoff: half a unit of the last place of 1, what one rounding does at most. */
export function unitRoundoff(precision: Precision = 'double'): number {
  return precision === 'single' ? 2 ** -24 : 2 ** -53;
}
