import { ln } from '../../elementary/logarithm.ts';

/** An error with what rounding, or a reference, may have done to it. */
export interface UncertainError {
  readonly rung: number;
  readonly h: number;
  readonly error: number;
  readonly uncertainty: number;
}

/** A number that is read off the expansion of an error, and what rounding may have done to it. */
export interface Reading {
  readonly value: number;
  readonly noise: number;
}

/**
 * The expansion ln e = ln C + p ln x + a x + b x^2 + ... in x = h/unit: one term after another.
 */
function term(k: number, x: number): number {
  if (k === 1) return ln(x);
  let power = 1;
  for (let i = 1; i < k; i += 1) power *= x;
  return power;
}

/**
 * The weights by which the logarithms of errors give a linear reading of the expansion that goes through them, with as
 * many terms as there are errors: Gaussian elimination with pivots on the transposed system.
 */
function weightsOf(sizes: readonly number[], reading: readonly number[]): readonly number[] | null {
  const n = sizes.length;
  const rows = Array.from({ length: n }, (_, k) => [...sizes.map((x) => term(k, x)), reading[k]!]);
  for (let column = 0; column < n; column += 1) {
    let pivot = column;
    for (let i = column + 1; i < n; i += 1)
      if (Math.abs(rows[i]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = i;
    if (Math.abs(rows[pivot]![column]!) < 1e-14) return null;
    [rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!];
    for (let i = column + 1; i < n; i += 1) {
      const factor = rows[i]![column]! / rows[column]![column]!;
      for (let j = column; j <= n; j += 1) rows[i]![j]! -= factor * rows[column]![j]!;
    }
  }
  const found = Array.from({ length: n }, () => 0);
  for (let i = n - 1; i >= 0; i -= 1) {
    let sum = rows[i]![n]!;
    for (let j = i + 1; j < n; j += 1) sum -= rows[i]![j]! * found[j]!;
    found[i] = sum / rows[i]![i]!;
  }
  return found;
}

function read(
  points: readonly UncertainError[],
  reading: (x: (h: number) => number) => readonly number[],
): Reading | null {
  const unit = points.reduce((largest, { h }) => Math.max(largest, h), 0);
  const scaled = (h: number): number => h / unit;
  const weights = weightsOf(
    points.map(({ h }) => scaled(h)),
    reading(scaled),
  );
  if (weights === null) return null;
  let [value, noise] = [0, 0];
  points.forEach(({ error, uncertainty }, i) => {
    value += weights[i]! * ln(error);
    noise += (Math.abs(weights[i]!) * uncertainty) / error;
  });
  return Number.isFinite(value) ? { value, noise } : null;
}

/** The order p of the expansion through some errors; null where two of them have the same h. */
export function orderThrough(points: readonly UncertainError[]): Reading | null {
  return read(points, () => points.map((_, k) => (k === 1 ? 1 : 0)));
}

/** ln e at another step size by the expansion through some errors; with `leading`, of its leading term alone. */
export function logarithmAt(points: readonly UncertainError[], h: number, leading = false): Reading | null {
  return read(points, (x) => points.map((_, k) => (leading && k > 1 ? 0 : term(k, x(h)))));
}
