import { counted, significant } from '../text/number-text.ts';
import type { KeptDigits } from './kept-digits.ts';
import type { Marking } from './mark-column.ts';
import type { RowVerdict } from './row-verdicts.ts';

/** Who is spoken of: the student, or the one who reads it. */
export type Whose = 'the student’s' | 'your';

function digitsText({ decimals, significant, areCut }: KeptDigits): string {
  const digits =
    decimals > 0 ? counted(decimals, 'decimal place') : counted(significant, 'significant digit');
  return areCut ? `${digits}, cut off and not rounded` : digits;
}

/** Numbers beside each other, of components that are given. */
function valuesText(
  values: readonly (number | null)[],
  given: readonly (number | null)[],
  digits: number,
): string {
  return values
    .flatMap((value, j) =>
      value === null || given[j] == null ? [] : [significant(value, Math.min(MAX_SHOWN, digits))],
    )
    .join(', ');
}

const MAX_SHOWN = 12;

/** What a row is and should be: to one digit more than was given where that is needed to see the difference. */
function wrongText({ n, given, right }: RowVerdict, { significant: own }: KeptDigits): string {
  if (right === null) return `Row ${n} is after the end of the run.`;
  const is = valuesText(given, given, own);
  const should = valuesText(right, given, own);
  return `Row ${n} is ${is} and should be ${should === is ? valuesText(right, given, own + 1) : should}.`;
}

function rowsText(numbers: readonly number[]): string {
  const [first] = numbers;
  const last = numbers.at(-1);
  return numbers.length === 1 ? `Row ${first} agrees` : `Rows ${first}–${last} agree`;
}

/** The first wrong row in sentences: what agrees before it, what it should be, and how the rows behind it go on. */
function sentencesOf(rows: readonly RowVerdict[], digits: KeptDigits, whose: Whose): readonly string[] {
  const at = rows.findIndex((row) => !row.agrees);
  if (at < 0) return [`All ${counted(rows.length, 'row')} agree to ${digitsText(digits)}.`];
  const wrong = rows[at];
  if (wrong === undefined) return [];
  const before = rows.slice(0, at).map(({ n }) => n);
  const behind = rows.slice(at + 1);
  const bad = behind.filter((row) => row.agreesWithOwn === false).map(({ n }) => n);
  const onward =
    behind.length === 0
      ? []
      : behind.every((row) => row.agrees)
        ? ['All later rows agree.']
        : bad.length === 0 && behind.every((row) => row.agreesWithOwn === true)
          ? [`From row ${behind[0]?.n ?? 0} on, each step is right, starting from a wrong value.`]
          : bad.length === behind.length
            ? [`No later step is right, even from ${whose} own previous rows.`]
            : [
                `Of ${counted(behind.length, 'later step')} ${bad.length} are wrong as well, even from ${whose} own previous rows.`,
              ];
  return [
    ...(before.length === 0 ? [] : [`${rowsText(before)} to ${digitsText(digits)}.`]),
    wrongText(wrong, digits),
    ...onward,
  ];
}

/**
 * What is said of one row.
 *
 * @example rowText(row, 'your') // 'wrong; right step from your row before'
 */
export function rowText(
  { agrees, agreesWithOwn, right }: Pick<RowVerdict, 'agrees' | 'agreesWithOwn' | 'right'>,
  whose: Whose,
): string {
  if (agrees) return 'right';
  if (right === null) return 'after the end';
  return agreesWithOwn === true ? `wrong; right step from ${whose} row before` : 'wrong';
}

/**
 * What is said of one student's rows besides their mistakes: cells that were not read, the first wrong row, how later ones go on.
 *
 * @example markingText(marking) // ['All 11 rows agree to 4 decimal places.']
 */
export function markingText(
  { rows, digits, table }: Pick<Marking, 'rows' | 'digits' | 'table'>,
  whose: Whose = 'the student’s',
): readonly string[] {
  return [
    ...table.unread.map(({ line, text }) => `Line ${line}: “${text}” is not a number and was skipped.`),
    ...sentencesOf(rows, digits, whose),
  ];
}
