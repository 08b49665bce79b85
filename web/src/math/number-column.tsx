import { fixed, mantissaAndExponent, withMinus } from '@schritt/core/text';
import type { ReactNode } from 'react';
import { PowerNumber } from './power-number.tsx';

/** How the numbers of one column are written: all as decimals that align at the point, or all with a power of ten. */
export interface NumberColumn {
  readonly isPower: boolean;
  /** Significant digits of numbers with a power of ten. */
  readonly digits: number;
  readonly decimal: (value: number) => string;
  /** Most characters after the point. */
  readonly fraction: number;
}

/** Sizes that are written as decimals; a column that crosses zero also has smaller ones, relative to its largest. */
const [SMALLEST, LARGEST, CROSSING] = [1e-3, 1e6, 1e-4];

function fractionOf(text: string): number {
  const point = text.indexOf('.');
  return point < 0 || text.includes('e') ? 0 : text.length - point - 1;
}

function inDecimals(value: number, digits: number): string {
  const [, exponent] = mantissaAndExponent(value, digits);
  return fixed(value, Math.max(0, digits - 1 - exponent));
}

function needsPower(values: readonly number[]): boolean {
  const sizes = values.filter((value) => value !== 0).map(Math.abs);
  if (sizes.length === 0) return false;
  const [low, high] = [Math.min(...sizes), Math.max(...sizes)];
  const crosses = values.some((value) => value < 0) && values.some((value) => value > 0);
  return high >= LARGEST || high < SMALLEST || low < (crosses ? Math.min(1, high) * CROSSING : SMALLEST);
}

/**
 * How a column of numbers is written.
 *
 * @param digits significant digits
 * @param decimal writes one number without a power of ten; to the significant digits where nothing is said
 * @param mayUsePower false for columns that are always decimals
 */
export function numberColumn(
  column: readonly (number | null | undefined)[],
  digits: number,
  decimal = (value: number): string => inDecimals(value, digits),
  mayUsePower = true,
): NumberColumn {
  const values = column.flatMap((value) => (value == null || !Number.isFinite(value) ? [] : [value]));
  const isPower = mayUsePower && needsPower(values);
  const fraction = isPower ? 0 : Math.max(0, ...values.map((value) => fractionOf(decimal(value))));
  return { isPower, digits, decimal, fraction };
}

/** How a column of errors is written: to three significant digits. */
export function errorColumn(values: readonly (number | null | undefined)[]): NumberColumn {
  return numberColumn(values, 3);
}

/** As wide as a digit, and as the point. */
const [DIGIT_SPACE, POINT_SPACE] = ['\u2007', '\u2008'];

/** The blanks behind a decimal that let it align with the others of its column. */
function blanks(text: string, { fraction }: NumberColumn): string {
  if (fraction === 0 || text.includes('e')) return '';
  const own = fractionOf(text);
  return (own === 0 ? POINT_SPACE : '') + DIGIT_SPACE.repeat(fraction - own);
}

/** A number of a column; its title has all digits, and a click shows them. */
export function ColumnNumber({
  value,
  column,
}: {
  readonly value: number | null | undefined;
  readonly column: NumberColumn;
}): ReactNode {
  if (value == null) return null;
  if (column.isPower) return <PowerNumber value={value} digits={column.digits} />;
  const text = value === 0 ? '0' : column.decimal(value);
  return (
    <span className="column-number" title={String(value)} data-full={String(value)}>
      {withMinus(text) + blanks(text, column)}
    </span>
  );
}
