import { mantissaAndExponent, significant } from '../../text/number-text.ts';
import type { CsvCell } from '../csv.ts';
import type { Column } from './table.ts';

/** A number that is set as a mantissa and a power of ten, or as decimals. */
export interface NumberParts {
  readonly mantissa: string;
  readonly exponent: number | null;
}

/** The parts of a number to the digits of its column; whole doubles as they are. */
export function numberParts(value: number, digits: number | null): NumberParts {
  const text = digits === null || Number.isInteger(value) ? String(value) : significant(value, digits);
  if (!text.includes('e')) return { mantissa: text, exponent: null };
  if (digits === null) {
    const [mantissa = '', exponent = '0'] = text.split('e');
    return { mantissa, exponent: Number(exponent) };
  }
  const [mantissa, exponent] = mantissaAndExponent(value, digits);
  return { mantissa, exponent };
}

/** A cell as plain text. */
export function cellText(cell: CsvCell, { digits }: Column): string {
  if (cell === null) return '';
  if (typeof cell !== 'number') return typeof cell === 'boolean' ? (cell ? 'yes' : 'no') : cell;
  if (digits === null || Number.isInteger(cell) || !Number.isFinite(cell)) return String(cell);
  return significant(cell, digits);
}

/** A text in one line. */
export function oneLine(text: string): string {
  return text.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ');
}
