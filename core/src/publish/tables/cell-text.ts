import { mantissaAndExponent, significant } from '../../text/number-text.ts';
import { roundedText } from '../../decimal/decimal-text.ts';
import { type CsvCell, isNumberCell, type LongNumber, nearestDouble, type NumberCell } from '../csv.ts';
import type { Column } from './table.ts';

/** A number that is set as a mantissa and a power of ten, or as decimals. */
export interface NumberParts {
  readonly mantissa: string;
  readonly exponent: number | null;
}

/** Digits that a double has for certain: to no more of them a number may be shown as its double. */
const SURE = 15;
/** Digits that tell any double from all others: more of it say nothing. */
const DOUBLE = 17;

/** A number as its double, where no more digits are shown than that has. */
function shownAs(value: NumberCell, digits: number | null): NumberCell {
  return typeof value === 'object' && digits !== null && digits <= SURE ? nearestDouble(value) : value;
}

/** All digits of a long number, or those that are asked for. */
function longText({ digits: all }: LongNumber, digits: number | null): string {
  return digits === null ? all : roundedText(all, digits);
}

/** The parts of a number to the digits of its column; whole doubles and long numbers as they are. */
export function numberParts(of: NumberCell, digits: number | null): NumberParts {
  const value = shownAs(of, digits);
  if (typeof value === 'object') {
    const [mantissa = '', exponent] = longText(value, digits).split('e');
    return { mantissa, exponent: exponent === undefined ? null : Number(exponent) };
  }
  const text =
    digits === null || Number.isInteger(value) ? String(value) : significant(value, Math.min(digits, DOUBLE));
  if (!text.includes('e')) return { mantissa: text, exponent: null };
  if (digits === null) {
    const [mantissa = '', exponent = '0'] = text.split('e');
    return { mantissa, exponent: Number(exponent) };
  }
  const [mantissa, exponent] = mantissaAndExponent(value, Math.min(digits, DOUBLE));
  return { mantissa, exponent };
}

/** A cell as plain text. */
export function cellText(cell: CsvCell, { digits }: Column): string {
  if (cell === null) return '';
  if (!isNumberCell(cell)) return typeof cell === 'boolean' ? (cell ? 'yes' : 'no') : cell;
  const value = shownAs(cell, digits);
  if (typeof value === 'object') return longText(value, digits);
  if (digits === null || Number.isInteger(value) || !Number.isFinite(value)) return String(value);
  return significant(value, Math.min(digits, DOUBLE));
}

/** A text in one line. */
export function oneLine(text: string): string {
  return text.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ');
}
