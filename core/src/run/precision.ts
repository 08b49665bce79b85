/** Double: 64 bits. Single: every operation is rounded to 32 bits, so that round-off comes within sight. */
export type Precision = 'double' | 'single';

/** The rounding of one operation. */
export function rounding(precision: Precision): (x: number) => number {
  return precision === 'single' ? Math.fround : (x) => x;
}
