import { exponential, fixed, short } from '@schritt/core/text';
import { createContext } from 'react';
import { errorColumn, needsPower, type NumberColumn, numberColumn } from '../math/number-column.tsx';

/** How numbers of rows are written: to significant digits, to decimal places, or with all their digits. */
export type NumberFormat =
  | { readonly kind: 'digits'; readonly count: number }
  | { readonly kind: 'places'; readonly count: number }
  | { readonly kind: 'full' };

/** The digits that a table has room for. */
export const USUAL_FORMAT: NumberFormat = { kind: 'digits', count: 8 };

export const FORMATS: readonly {
  readonly value: string;
  readonly label: string;
  readonly format: NumberFormat;
}[] = [
  ...[4, 6, 8, 12].map((count) => ({
    value: `${count} digits`,
    label: `${count} digits`,
    format: { kind: 'digits', count } as const,
  })),
  ...[2, 3, 4, 6, 8].map((count) => ({
    value: `${count} places`,
    label: `${count} places`,
    format: { kind: 'places', count } as const,
  })),
  { value: 'full', label: 'all digits', format: { kind: 'full' } },
];

export const FormatContext = createContext<NumberFormat>(USUAL_FORMAT);

/** A number as plain text in a format; where places would leave nothing of it, all the same to those places. */
export function formatted(value: number, format: NumberFormat): string {
  if (format.kind === 'full' || !Number.isFinite(value)) return String(value);
  if (format.kind === 'places') return Math.abs(value) < 1e15 ? fixed(value, format.count) : String(value);
  return needsPower(value) ? exponential(value, format.count) : short(value, format.count);
}

/** How a column of errors is written: to three digits, or to as many as were chosen; decimal places leave nothing of small ones. */
export function errorsIn(format: NumberFormat, errors: readonly (number | null | undefined)[]): NumberColumn {
  return format === USUAL_FORMAT || format.kind === 'places' ? errorColumn(errors) : columnIn(format, errors);
}

/** How a column of values is written in a format. */
export function columnIn(format: NumberFormat, values: readonly (number | null | undefined)[]): NumberColumn {
  return format.kind === 'digits'
    ? numberColumn(values, format.count, (value) => short(value, format.count))
    : numberColumn(values, null, (value) => formatted(value, format), format.kind === 'full');
}
