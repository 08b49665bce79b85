import type { StudentCell } from './student-table.ts';

/** The digits that a column of numbers was kept with. */
export interface KeptDigits {
  /** Most digits behind the decimal sign. */
  readonly decimals: number;
  /** Most significant digits. */
  readonly significant: number;
  /** Whether further digits were cut off instead of rounded. */
  readonly areCut: boolean;
}

/** Digits beyond which numbers of one run may differ by the order of its operations. */
const MAX_SIGNIFICANT = 12;

/** The digits of numbers that were rounded alike: either to so many decimals or to so many significant digits. */
export function keptDigits(cells: readonly StudentCell[]): KeptDigits {
  let [most, digits] = [0, 1];
  for (const { decimals, significant } of cells) {
    most = Math.max(most, decimals);
    digits = Math.max(digits, significant);
  }
  return { decimals: most, significant: Math.min(MAX_SIGNIFICANT, digits), areCut: false };
}

/** The digits of numbers of which a person has said how many decimal places were kept. */
export function withDecimals(cells: readonly StudentCell[], decimals: number): KeptDigits {
  const places = cells.map(({ value }) => (value === 0 ? 0 : Math.floor(Math.log10(Math.abs(value))) + 1));
  const most = places.reduce((max, place) => Math.max(max, place), 1);
  return { decimals, significant: Math.min(MAX_SIGNIFICANT, Math.max(1, most + decimals)), areCut: false };
}

/**
 * What the last digit of a number counts: that of the decimals, or of the significant digits where these are fewer.
 *
 * @example unitOf(12.345, { decimals: 4, significant: 5, areCut: false }) // 0.001
 */
export function unitOf(value: number, { decimals, significant }: KeptDigits): number {
  const place = value === 0 ? -Infinity : Math.floor(Math.log10(Math.abs(value)));
  return 10 ** Math.max(-decimals, place + 1 - significant);
}

/** A number rounded, or cut off, as a column is. */
export function roundedTo(value: number, digits: KeptDigits): number {
  const unit = unitOf(value, digits);
  const whole = digits.areCut ? Math.trunc : Math.round;
  // a power of ten below 1 is no double; dividing by the one above is exact to the last place
  return unit < 1 ? whole(value * (1 / unit)) / (1 / unit) : whole(value / unit) * unit;
}

/** How far a number may be off that was kept with these digits. */
export function spreadOf(value: number, digits: KeptDigits): number {
  return unitOf(value, digits) / (digits.areCut ? 1 : 2);
}

/** A part of a unit by which halves may be off in binary. */
const SLACK = 1e-6;

/**
 * Whether a number that was rounded, or cut off, is another one.
 *
 * @param more how far the other one may be off for other reasons
 */
export function agrees(given: number, right: number, digits: KeptDigits, more = 0): boolean {
  const unit = Math.max(unitOf(given, digits), unitOf(right, digits));
  const over = right - given;
  if (!digits.areCut) return Math.abs(over) <= (0.5 + SLACK) * unit + more;
  // what is cut off makes a number smaller in size
  const missing = right < 0 ? -over : over;
  return missing >= -SLACK * unit - more && missing < (1 - SLACK) * unit + more;
}
