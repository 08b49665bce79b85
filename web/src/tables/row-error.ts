import { agreeingDigits, correctPlaces, type ErrorChoice } from '@schritt/core/study';

type Scale = ErrorChoice['scale'];

/** The errors of rows as the study expresses its errors. */
export interface RowErrors {
  readonly heading: string;
  /** The error of a value; null where the exact one is unknown, or zero for a relative error. */
  readonly of: (value: number | null | undefined, exact: number | null | undefined) => number | null;
  /** The same of a difference that is known with more digits than those of doubles. */
  readonly ofDifference: (
    difference: number | null | undefined,
    exact: number | null | undefined,
  ) => number | null;
}

const HEADINGS: Readonly<Record<Scale, string>> = {
  absolute: 'error',
  relative: 'relative error',
  digits: 'digits',
  places: 'places',
};

function expressed(scale: Scale, error: number, size: number): number | null {
  switch (scale) {
    case 'absolute':
      return error;
    case 'relative':
      return size > 0 ? error / size : null;
    case 'digits':
      return size > 0 ? agreeingDigits(error / size) : null;
    case 'places':
      return correctPlaces(error);
  }
}

/** Errors of single values, without sign: absolute, relative to the exact value, or as digits or places that are correct. */
export function rowErrors(scale: Scale): RowErrors {
  const ofDifference: RowErrors['ofDifference'] = (difference, exact) =>
    difference == null || exact == null ? null : expressed(scale, Math.abs(difference), Math.abs(exact));
  return {
    heading: HEADINGS[scale],
    of: (value, exact) => (value == null || exact == null ? null : ofDifference(value - exact, exact)),
    ofDifference,
  };
}
