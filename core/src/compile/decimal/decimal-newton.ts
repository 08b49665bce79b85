import type { Decimal } from 'decimal.js';
import type { Decimals } from '../../decimal/decimals.ts';
import { NEWTON } from '../../program/state.ts';
import { MAX_DAMPED, MAX_ITERATIONS, SCALE_PART } from '../newton/newton-loop.ts';

/** The equations z = g(z) of one solve. */
export interface DecimalEquations {
  /** The number of the solve within the step. */
  readonly id: number;
  readonly guess: readonly Decimal[];
  /** The size of the values that a step starts from, in the units of the unknowns: for slopes, over h. */
  readonly scale: Decimal;
  /** g and its Jacobian, column by column, at a guess. */
  readonly at: (z: readonly Decimal[]) => {
    readonly results: readonly Decimal[];
    readonly columns: () => readonly (readonly Decimal[])[];
  };
}

/** How far an iteration has come. */
interface Course {
  /** The correction before. */
  before: Decimal | null;
  /** The residual that a damped iteration has to go below. */
  lower: Decimal | null;
  /** The largest value met on the way. */
  reach: Decimal;
  /** The part of a correction that is taken. */
  part: Decimal;
  isDamped: boolean;
}

/** Solves M x = r by elimination with partial pivoting; null where the matrix is singular. */
function solved(
  matrix: readonly (readonly Decimal[])[],
  right: readonly Decimal[],
): readonly Decimal[] | null {
  const m = matrix.map((row) => [...row]);
  const r = [...right];
  const n = r.length;
  for (let column = 0; column < n; column += 1) {
    let pivot = column;
    for (let row = column + 1; row < n; row += 1)
      if (m[row]![column]!.abs().gt(m[pivot]![column]!.abs())) pivot = row;
    const head = m[pivot]![column]!;
    if (head.isZero() || !head.isFinite()) return null;
    [m[column], m[pivot]] = [m[pivot]!, m[column]!];
    [r[column], r[pivot]] = [r[pivot]!, r[column]!];
    for (let row = column + 1; row < n; row += 1) {
      const factor = m[row]![column]!.div(head);
      if (factor.isZero()) continue;
      for (let k = column + 1; k < n; k += 1) m[row]![k] = m[row]![k]!.minus(factor.times(m[column]![k]!));
      r[row] = r[row]!.minus(factor.times(r[column]!));
    }
  }
  for (let row = n - 1; row >= 0; row -= 1) {
    let sum = r[row]!;
    for (let k = row + 1; k < n; k += 1) sum = sum.minus(m[row]![k]!.times(r[k]!));
    r[row] = sum.div(m[row]![row]!);
  }
  return r;
}

/** When a correction counts as lost in rounding, and when one that grows again may be taken for that. */
function tolerances(decimals: Decimals): { readonly epsilon: Decimal; readonly nearly: Decimal } {
  const { workingDigits } = decimals;
  return {
    epsilon: decimals.typed(`2e${1 - workingDigits}`),
    nearly: decimals.typed(`1e-${Math.floor(workingDigits / 2)}`),
  };
}

/**
 * Newton's method for z = g(z) in decimals, as `newtonLoop` does it in doubles: with the exact Jacobian, until a
 * correction is lost in rounding or no longer becomes smaller; damped where it fails, and where that fails, too, the
 * unknowns become NaN.
 *
 * @param numbers the numbers about Newton's method, from place `from` of the state on: iterations and failures are
 *   written there
 */
export function solveInDecimals(
  decimals: Decimals,
  { id, guess, scale, at }: DecimalEquations,
  numbers: Float64Array,
  from: number,
): readonly Decimal[] {
  const { epsilon, nearly } = tolerances(decimals);
  const half = decimals.typed('0.5');
  const { zero } = decimals;
  let z = guess;
  const course: Course = { before: null, lower: null, reach: zero, part: zero, isDamped: false };
  let [good, correction] = [guess, guess];
  const count = (): void => {
    numbers[from + NEWTON.iterations] = (numbers[from + NEWTON.iterations] ?? 0) + 1;
  };
  for (let round = 1; ; round += 1) {
    const { results, columns } = at(z);
    const right = results.map((result, i) => result.minus(z[i]!));
    const size = decimals.largest(right);
    const fail = (singular: boolean): readonly Decimal[] | null => {
      if (!course.isDamped) {
        Object.assign(course, { before: null, lower: null, reach: zero, part: zero, isDamped: true });
        numbers[from + NEWTON.damped] = (numbers[from + NEWTON.damped] ?? 0) + 1;
        [round, z] = [0, guess];
        return null;
      }
      numbers[from + NEWTON.failed] = id + 1;
      numbers[from + NEWTON.residual] = size.toNumber();
      numbers[from + NEWTON.singular] = singular ? 1 : 0;
      return z.map(() => decimals.notANumber);
    };
    const { lower } = course;
    if (course.isDamped && course.part.gt(2 ** -10) && lower !== null && !size.lt(lower)) {
      course.part = course.part.times(half);
      count();
      z = good.map((own, i) => own.plus(course.part.times(correction[i]!)));
      continue;
    }
    const jacobian = size.isFinite() ? columns() : null;
    const moves =
      jacobian === null
        ? null
        : solved(
            z.map((_, row) =>
              z.map((__, column) => (row === column ? decimals.one : zero).minus(jacobian[column]![row]!)),
            ),
            right,
          );
    if (moves === null) {
      const failed = fail(jacobian !== null);
      if (failed !== null) return failed;
      continue;
    }
    count();
    if (course.isDamped) {
      [course.lower, course.part] = [size, decimals.one];
      [good, correction] = [z, moves];
    }
    const next = z.map((own, i) => own.plus(moves[i]!));
    course.reach = decimals.largest([course.reach, ...z, ...next]);
    const { before, reach } = course;
    z = next;
    const moved = decimals.largest(moves);
    const lost = decimals.call('max', [reach, scale.times(SCALE_PART)]).times(epsilon);
    const beside = round > 2 ? decimals.call('max', [reach, scale]) : reach;
    if (moved.lte(lost)) return z;
    if (before !== null && moved.gte(before) && moved.lte(beside.times(nearly))) return z;
    if (!moved.isFinite() || round >= (course.isDamped ? MAX_DAMPED : MAX_ITERATIONS)) {
      const failed = fail(false);
      if (failed !== null) return failed;
      continue;
    }
    course.before = moved;
  }
}
