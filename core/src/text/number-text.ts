import { formatLocale } from 'd3-format';
import { lazily } from './lazily.ts';

/** Numbers as text, the only place where they are printed for people; the minus is a plain hyphen. */
const plain = formatLocale({ decimal: '.', thousands: ',', grouping: [3], currency: ['', ''], minus: '-' });

const made = new Map<string, (value: number) => string>();

/** The format of a specification, made once. */
function formatOf(specification: string): (value: number) => string {
  const known = made.get(specification);
  if (known !== undefined) return known;
  const format = plain.format(specification);
  made.set(specification, format);
  return format;
}

/**
 * A whole number with its thousands apart: 20,000.
 *
 * @example count(12345) // '12,345'
 */
export function count(n: number): string {
  return formatOf(',d')(n);
}

/**
 * A number of things, in the singular or with an s.
 *
 * @example counted(1, 'step') // '1 step'
 */
export function counted(n: number, thing: string): string {
  return `${count(n)} ${thing}${n === 1 ? '' : 's'}`;
}

const ordinals = lazily(() => new Intl.PluralRules('en', { type: 'ordinal' }));
const ENDINGS: Readonly<Record<string, string>> = { one: 'st', two: 'nd', few: 'rd' };

/**
 * The place of a thing in a sequence.
 *
 * @example ordinal(23) // '23rd'
 */
export function ordinal(n: number): string {
  return `${count(n)}${ENDINGS[ordinals().select(n)] ?? 'th'}`;
}

/**
 * With so many decimals: 2.00.
 *
 * @example fixed(1.005, 1) // '1.0'
 */
export function fixed(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return text.startsWith('-') && Number(text) === 0 ? text.slice(1) : text;
}

/**
 * With a power of ten and so many digits: 1.05e-5.
 *
 * @example exponential(0.00123, 3) // '1.23e-3'
 */
export function exponential(value: number, digits: number): string {
  return formatOf(`.${digits - 1}e`)(value);
}

/**
 * Mantissa and power of ten of a number to some digits: 1.05 and -5.
 *
 * @example mantissaAndExponent(1234, 3) // ['1.23', 3]
 */
export function mantissaAndExponent(value: number, digits: number): readonly [string, number] {
  const [mantissa = '', exponent = '0'] = exponential(value, digits).split('e');
  return [mantissa, Number(exponent)];
}

/**
 * As short as it can be at no more than so many digits: 0.333, 2, 1e-7.
 *
 * @example short(0.25, 6) // '0.25'
 */
export function short(value: number, digits: number): string {
  return String(rounded(value, digits));
}

/**
 * A number cut to so many digits, as a number.
 *
 * @example rounded(1 / 3, 3) // 0.333
 */
export function rounded(value: number, digits: number): number {
  return Number(exponential(value, digits));
}

/**
 * Decimals or a power of ten, whichever is shorter, without needless zeros: 1.2e+5, 0.25.
 *
 * @example general(0.00001234, 3) // '0.0000123'
 */
export function general(value: number, digits: number): string {
  return formatOf(`.${digits}~g`)(value);
}

/** Powers of ten from which on, down to the last, a number is printed without one. */
const PLAIN = [1e6, 1e5, 1e4, 1e3, 100, 10, 1, 0.1, 0.01, 0.001];

/**
 * A number to some significant digits, as a table prints it: 0.0645, 1.05e-5.
 *
 * @example significant(2, 4) // '2.000'
 */
export function significant(value: number, digits: number): string {
  if (value === 0) return '0';
  const size = Math.abs(value);
  const magnitude = size < 1e7 ? PLAIN.findIndex((power) => size >= power) : -1;
  if (magnitude < 0) return exponential(value, digits);
  return fixed(value, Math.max(0, digits - 1 - (6 - magnitude)));
}

/** Digits that a step size has on the page, where it has more than a reader wants. */
const STEP_DIGITS = 6;

/**
 * A step size as short as it can be while it still means the same to a reader: 0.1, 0.03125, 0.142857.
 *
 * @example stepSizeText(0.1) // '0.1'
 */
export function stepSizeText(h: number): string {
  const cut = rounded(h, STEP_DIGITS);
  return Math.abs(cut - h) <= 1e-12 * Math.abs(h) ? String(cut) : formatOf(`.${STEP_DIGITS}g`)(h);
}

/** An order with the range in which it lies, to as many digits as tell its ends apart: 4.00 (3.96 to 4.04). */
export function rangeText({
  value,
  low,
  high,
}: {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}): string {
  const digits = high - low < 0.05 ? 3 : high - low < 0.5 ? 2 : 1;
  const unit = Number(`1e-${digits}`);
  const [from, to] = [Math.floor(low / unit) * unit, Math.ceil(high / unit) * unit];
  return `${fixed(value, digits)} (${fixed(from, digits)} to ${fixed(to, digits)})`;
}

const RAISED = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/**
 * 10 to a whole power in plain characters: 10⁻².
 *
 * @example powerOfTen(-3) // '10⁻³'
 */
export function powerOfTen(exponent: number): string {
  return `10${raised(exponent)}`;
}

/**
 * A number with two digits and its power of ten in print.
 *
 * @example powerText(1.67e-5) // '1.7×10⁻⁵'
 */
export function powerText(value: number): string {
  const [mantissa, exponent] = mantissaAndExponent(value, 2);
  return `${mantissa}×${powerOfTen(exponent)}`;
}

/** A whole number as an exponent: ², ⁻³. */
export function raised(exponent: number): string {
  const digits = String(Math.abs(exponent)).replace(/\d/g, (digit) => RAISED.charAt(Number(digit)));
  return `${exponent < 0 ? '⁻' : ''}${digits}`;
}

/**
 * A text with the sign of a typesetter for every minus.
 *
 * @example withMinus('-1') // '−1'
 */
export function withMinus(text: string): string {
  return text.replaceAll('-', '−');
}
