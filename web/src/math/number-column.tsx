import { fixed, mantissaAndExponent, withMinus } from '@schritt/core/text';
import type { ReactNode } from 'react';
import { PowerOfTen } from './power-number.tsx';

/**
 * How the numbers of one column are written: as decimals from 1e-3 to 1e6, with a power of ten beyond, and so that they
 * align at the point.
 */
export interface NumberColumn {
  /** Significant digits of numbers with a power of ten; null for columns without such numbers. */
  readonly digits: number | null;
  readonly decimal: (value: number) => string;
  /** Room from the point on, in em: for the longest fraction, with its power of ten. */
  readonly room: number;
  /** Whether every number is written with all its digits. */
  readonly isFull: boolean;
}

/** A number in parts: up to the point, from the point on, and its power of ten. */
interface Parts {
  readonly whole: string;
  readonly fraction: string;
  readonly exponent: string | null;
}

/** Whether a number is written with a power of ten: below 1e-3, and from 1e6 on. */
export function needsPower(value: number): boolean {
  const size = Math.abs(value);
  return value !== 0 && Number.isFinite(value) && (size < 1e-3 || size >= 1e6);
}

/** A number in decimals with so many significant digits. */
function inDecimals(value: number, digits: number): string {
  const [, exponent] = mantissaAndExponent(value, digits);
  return fixed(value, Math.max(0, digits - 1 - exponent));
}

function partsOf(value: number, digits: number | null, decimal: NumberColumn['decimal']): Parts {
  const [text, exponent] =
    digits !== null && needsPower(value)
      ? mantissaAndExponent(value, digits)
      : ([value === 0 ? '0' : decimal(value), null] as const);
  const point = text.includes('e') ? -1 : text.indexOf('.');
  return {
    whole: point < 0 ? text : text.slice(0, point),
    fraction: point < 0 ? '' : text.slice(point),
    exponent: exponent === null ? null : String(exponent),
  };
}

/** Width of a digit, of the point, of `×10` and of a character of an exponent, in em. */
const WIDTH = { digit: 0.6, point: 0.3, ten: 1.5, exponent: 0.45 } as const;

/** Room that a number takes from the point on, in em. */
function roomOf({ fraction, exponent }: Parts): number {
  const power = exponent === null ? 0 : WIDTH.ten + WIDTH.exponent * exponent.length;
  return (fraction === '' ? 0 : WIDTH.point + WIDTH.digit * (fraction.length - 1)) + power;
}

/**
 * How a column of numbers is written.
 *
 * @param digits significant digits; null where every number is written by `decimal`
 * @param decimal writes a number without a power of ten; to the significant digits where nothing is said
 */
export function numberColumn(
  column: readonly (number | null | undefined)[],
  digits: number | null,
  decimal = (value: number): string => inDecimals(value, digits ?? 1),
  isFull = false,
): NumberColumn {
  const rooms = column.flatMap((value) => (value == null ? [] : [roomOf(partsOf(value, digits, decimal))]));
  return { digits, decimal, isFull, room: Math.max(0, ...rooms) };
}

/** How a column of errors is written: to three significant digits. */
export function errorColumn(values: readonly (number | null | undefined)[]): NumberColumn {
  return numberColumn(values, 3);
}

/** A number of a column; its title has all digits, and a click shows them. */
export function ColumnNumber({
  value,
  column,
  full,
}: {
  readonly value: number | null | undefined;
  readonly column: NumberColumn;
  /** All digits of the number, where a double has fewer. */
  readonly full?: string | null | undefined;
}): ReactNode {
  if (value == null) return null;
  const all = full ?? String(value);
  if (full != null && column.isFull)
    return (
      <span className="power-number" title={all} data-full={all}>
        {withMinus(all)}
      </span>
    );
  const { whole, fraction, exponent } = partsOf(value, column.digits, column.decimal);
  return (
    <span className="power-number" title={all} data-full={all}>
      {withMinus(whole)}
      <span className="from-point" style={{ minWidth: `${fixed(column.room, 2)}em` }}>
        {fraction}
        {exponent !== null && <PowerOfTen exponent={exponent} />}
      </span>
    </span>
  );
}
