import type { ErrorChoice } from '@schritt/core/study';

type Scale = ErrorChoice['scale'];

/** The errors of rows as the study expresses its errors. */
export interface RowErrors {
  readonly heading: string;
  /** The error of a value; null where the exact one is unknown, or zero for a relative error. */
  readonly of: (value: number | null | undefined, exact: number | null | undefined) => number | null;
}

const HEADINGS: Readonly<Record<Scale, string>> = {
  absolute: 'error',
  relative: 'relative error',
  digits: 'digits',
  places: 'places',
};
/** Digits and decimal places that a double has. */
const MOST = 15.65;

function expressed(scale: Scale, error: number, size: number): number | null {
  switch (scale) {
    case 'absolute':
      return error;
    case 'relative':
      return size > 0 ? error / size : null;
    case 'digits':
      return size > 0 ? Math.min(MOST, -Math.log10(Math.max(error / size, Number.MIN_VALUE))) : null;
    case 'places':
      return Math.max(
        0,
        Math.min(Math.floor(MOST), Math.floor(-Math.log10(Math.max(2 * error, Number.MIN_VALUE)))),
      );
  }
}

/** Errors of single values, without sign: absolute, relative to the exact value, or as digits or places that are correct. */
export function rowErrors(scale: Scale): RowErrors {
  return {
    heading: HEADINGS[scale],
    of: (value, exact) =>
      value == null || exact == null ? null : expressed(scale, Math.abs(value - exact), Math.abs(exact)),
  };
}
