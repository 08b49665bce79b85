/** How a result is rounded to the digits of a run: to the nearest, a tie to the even digit or away from zero; or chopped. */
export const ROUNDINGS = ['half-even', 'half-up', 'chop'] as const;
export type Rounding = (typeof ROUNDINGS)[number];

/** What is rounded: the result of every operation, or only the values that a step stores under a name. */
export const ROUNDED = ['operations', 'stored'] as const;
export type Rounded = (typeof ROUNDED)[number];

/** Fewest and most significant digits of a run in decimals. */
export const FEWEST_DIGITS = 2;
export const MOST_DIGITS = 200;

/** Arithmetic with a number of significant decimal digits. */
export interface DecimalPrecision {
  /** From FEWEST_DIGITS to MOST_DIGITS. */
  readonly digits: number;
  readonly rounding: Rounding;
  readonly rounded: Rounded;
}

/**
 * The same arithmetic with another number of digits, every operation rounded to the nearest: what values are compared
 * with.
 */
export function wider(digits: number): DecimalPrecision {
  return { digits, rounding: 'half-even', rounded: 'operations' };
}

/** A text that is the same for the same arithmetic. */
export function decimalPrecisionKey({ digits, rounding, rounded }: DecimalPrecision): string {
  return `${digits}/${rounding}/${rounded}`;
}

/** The arithmetic in a few words, such as `4 digits, chopped`. */
export function decimalPrecisionText({ digits, rounding, rounded }: DecimalPrecision): string {
  const how = { 'half-even': '', 'half-up': ', half up', chop: ', chopped' }[rounding];
  return `${digits} digits${how}${rounded === 'stored' ? ', stored values only' : ''}`;
}
