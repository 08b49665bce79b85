import { fixed, mantissaAndExponent, withMinus } from '@schritt/core/text';
import type { ReactNode } from 'react';
import './power-number.css';

/**
 * How the numbers of one column are written: as decimals from 1e-3 to 1e6, with a power of ten beyond, and so that they
 * align at the point.
 */
export interface NumberColumn {
  /** Significant digits of numbers with a power of ten; null for columns without such numbers. */
  readonly digits: number | null;
  readonly decimal: (value: number) => string;
  /** Most characters after the point. */
  readonly fraction: number;
  /** Most characters of an exponent; 0 where no number has one. */
  readonly exponent: number;
}

function fractionOf(text: string): number {
  const point = text.indexOf('.');
  return point < 0 || text.includes('e') ? 0 : text.length - point - 1;
}

function needsPower(value: number): boolean {
  const size = Math.abs(value);
  return value !== 0 && Number.isFinite(value) && (size < 1e-3 || size >= 1e6);
}

/** A number in decimals with so many significant digits. */
function inDecimals(value: number, digits: number): string {
  const [, exponent] = mantissaAndExponent(value, digits);
  return fixed(value, Math.max(0, digits - 1 - exponent));
}

/** What is before the exponent, and the exponent; null for a decimal. */
function partsOf(value: number, { digits, decimal }: NumberColumn): readonly [string, string | null] {
  if (digits === null || !needsPower(value)) return [value === 0 ? '0' : decimal(value), null];
  const [mantissa, exponent] = mantissaAndExponent(value, digits);
  return [mantissa, String(exponent)];
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
): NumberColumn {
  const parts = column.flatMap((value) =>
    value == null ? [] : [partsOf(value, { digits, decimal, fraction: 0, exponent: 0 })],
  );
  return {
    digits,
    decimal,
    fraction: Math.max(0, ...parts.map(([text]) => fractionOf(text))),
    exponent: Math.max(0, ...parts.map(([, exponent]) => exponent?.length ?? 0)),
  };
}

/** How a column of errors is written: to three significant digits. */
export function errorColumn(values: readonly (number | null | undefined)[]): NumberColumn {
  return numberColumn(values, 3);
}

/** As wide as a digit, and as the point. */
const [DIGIT_SPACE, POINT_SPACE] = ['\u2007', '\u2008'];

/** The blanks behind a decimal that let it align with the others of its column. */
function blanks(text: string, fraction: number): string {
  if (fraction === 0 || text.includes('e')) return '';
  const own = fractionOf(text);
  return (own === 0 ? POINT_SPACE : '') + DIGIT_SPACE.repeat(fraction - own);
}

/** The width of `×10` with an exponent of so many characters, in em of its font: digits and signs are 0.6 em wide. */
function widthOf(exponent: number): string {
  return `${0.6 * (3 + 0.9 * exponent)}em`;
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
  const [text, exponent] = partsOf(value, column);
  return (
    <span className="power-number" title={String(value)} data-full={String(value)}>
      {withMinus(text) + blanks(text, column.fraction)}
      {column.exponent > 0 && (
        <small className="exponent" style={{ minWidth: widthOf(column.exponent) }}>
          {exponent !== null && (
            <>
              ×10<sup>{withMinus(exponent)}</sup>
            </>
          )}
        </small>
      )}
    </span>
  );
}
