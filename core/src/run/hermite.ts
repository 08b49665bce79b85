import type { Decimal } from 'decimal.js';

/** Values and slopes of a solution at one time. */
export interface Knot {
  readonly t: number;
  readonly values: ArrayLike<number>;
  readonly slopes: ArrayLike<number>;
}

/**
 * The polynomial of degree 2m - 1 through m points with given slopes, evaluated at a time among them: its error is of
 * order h^(2m). By Newton's divided differences, every time taken twice.
 *
 * Source: J. Stoer, R. Bulirsch, Introduction to Numerical Analysis (3rd ed., 2002), section 2.1.5.
 *
 * @param knots in the order of time; all components at a time
 */
export function hermite(knots: readonly Knot[], t: number): Float64Array {
  const times = knots.flatMap((knot) => [knot.t, knot.t]);
  const n = times.length;
  const column = new Float64Array(n);
  return Float64Array.from(knots[0]?.values ?? [], (_, j) => {
    knots.forEach(({ values }, i) => column.fill(values[j]!, 2 * i, 2 * i + 2));
    // behind step k column[i] is the divided difference over times i-k..i
    for (let k = 1; k < n; k += 1)
      for (let i = n - 1; i >= k; i -= 1)
        column[i] =
          times[i] === times[i - k]
            ? knots[i >> 1]!.slopes[j]!
            : (column[i]! - column[i - 1]!) / (times[i]! - times[i - k]!);
    let value = column[n - 1]!;
    for (let i = n - 2; i >= 0; i -= 1) value = column[i]! + (t - times[i]!) * value;
    return value;
  });
}

/** The same in decimals. */
export interface DecimalKnot {
  readonly t: Decimal;
  readonly values: readonly Decimal[];
  readonly slopes: readonly Decimal[];
}

/** The polynomial of `hermite` in the arithmetic of the knots. */
export function hermiteInDecimals(knots: readonly DecimalKnot[], t: Decimal): readonly Decimal[] {
  const times = knots.flatMap((knot) => [knot.t, knot.t]);
  const n = times.length;
  return (knots[0]?.values ?? []).map((_, j) => {
    const column = knots.flatMap(({ values }) => [values[j]!, values[j]!]);
    for (let k = 1; k < n; k += 1)
      for (let i = n - 1; i >= k; i -= 1)
        column[i] = times[i]!.eq(times[i - k]!)
          ? knots[i >> 1]!.slopes[j]!
          : column[i]!.minus(column[i - 1]!).div(times[i]!.minus(times[i - k]!));
    let value = column[n - 1]!;
    for (let i = n - 2; i >= 0; i -= 1) value = column[i]!.plus(t.minus(times[i]!).times(value));
    return value;
  });
}
