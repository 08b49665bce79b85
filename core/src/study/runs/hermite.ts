/** Values and slopes of a solution at one time. */
export interface Knot {
  readonly t: number;
  readonly values: ArrayLike<number>;
  readonly slopes: ArrayLike<number>;
}

/**
 * The cubic through two points with given slopes, evaluated between them: its error is h^4/384 of the fourth
 * derivative.
 *
 * Source: E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I, section II.6.
 */
export function hermite(left: Knot, right: Knot, t: number): Float64Array {
  const h = right.t - left.t;
  const s = (t - left.t) / h;
  const r = 1 - s;
  return Float64Array.from(left.slopes, (slope, j) => {
    const [a, b] = [left.values[j]!, right.values[j]!];
    return r * a + s * b + s * r * (h * (r * slope - s * right.slopes[j]!) - (1 - 2 * s) * (b - a));
  });
}
