import { decimalNumbers } from '../compile/decimal/decimal-numbers.ts';
import { decimalDigits } from '../compile/precision.ts';
import { decimalText } from '../decimal/decimal-text.ts';
import { componentNames } from '../problem/problem.ts';
import { decimalGrid, decimalTime } from '../run/decimal-state.ts';
import type { Grid } from '../run/grid.ts';
import type { Row } from '../run/rows.ts';
import { precisionOf, type Study, type StudyMethod } from './runs/study.ts';
import { decimalTruthOf } from './runs/truth.ts';

/**
 * Rows of a run in decimals with the values and errors of a reference of as many digits, where no exact solution is
 * given; other rows as they are.
 *
 * @example withReference(study, study.methods[0]!, grid, []) // []
 */
export function withReference(
  study: Study,
  method: StudyMethod,
  grid: Grid,
  rows: readonly Row[],
): readonly Row[] {
  const { problem } = study;
  const digits = decimalDigits(precisionOf(study, method));
  if (digits === null) return rows;
  const truths = componentNames(problem).map((_, place) =>
    rows.some((row) => row.digits?.exact[place] === null)
      ? decimalTruthOf(problem, [place], problem.end, digits)
      : null,
  );
  const [truth] = truths.filter((one) => one !== null);
  if (truth === undefined) return rows;
  const { decimals } = truth;
  const times = decimalGrid({ decimals, numbers: decimalNumbers(problem, decimals) }, grid);
  return rows.map((row) => {
    if (row.digits === null) return row;
    const t = decimalTime(times, decimals, row.n);
    const found = row.digits.values.map((value, place) => {
      const own = truths[place] ?? null;
      if (own === null) return null;
      const exact = own.value(place, t);
      return { exact: decimalText(exact), error: decimals.typed(value).minus(exact).toNumber() };
    });
    const exact = row.digits.exact.map((known, place) => known ?? found[place]?.exact ?? null);
    return {
      ...row,
      exact: exact.map((value) => (value === null ? null : Number(value))),
      digits: {
        ...row.digits,
        exact,
        errors: row.digits.errors.map((known, place) => known ?? found[place]?.error ?? null),
      },
    };
  });
}
