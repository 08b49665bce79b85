import { mantissaAndExponent, powerOfTen, short, significant, stepSizeText } from '../../text/number-text.ts';

/** A quantity to three digits, as it is set in print: 0.0557, 2.36×10⁻¹⁴. */
export function number(value: number): string {
  const plain = significant(value, 3);
  if (!plain.includes('e')) return plain;
  const [mantissa, exponent] = mantissaAndExponent(value, 3);
  return `${mantissa}×${powerOfTen(exponent)}`;
}

/** A factor, in print a power of ten where it is large: 3.1, 1.48×10⁵. */
export function large(value: number): string {
  if (Math.abs(value) < 1e4) return number(value);
  const [mantissa, exponent] = mantissaAndExponent(value, 3);
  return `${mantissa}×${powerOfTen(exponent)}`;
}

/** Digits of a factor at most. */
const MAX_DIGITS = 12;

/** A factor to three digits, or to as many as tell it from 1: 1.82, 1.0021. */
export function factor(value: number): string {
  for (let digits = 3; digits <= MAX_DIGITS; digits += 1) {
    const text = significant(value, digits);
    if (Number(text) !== 1) return digits === 3 ? number(value) : text;
  }
  return number(value);
}

/** A time to as many digits as a reader wants: 0.333, 2. */
export function time(value: number): string {
  return short(value, 3);
}

/** `h = 0.5`, `h = 0.5 and 0.25`, `h = 0.5, 0.25 and two more`. */
export function steps(sizes: readonly number[]): string {
  const [first, second, ...more] = sizes.map(stepSizeText);
  if (second === undefined) return `h = ${first ?? ''}`;
  if (more.length === 0) return `h = ${first ?? ''} and ${second}`;
  return `h = ${first ?? ''}, ${second} and ${more.length === 1 ? 'one' : more.length} more`;
}

/** Step sizes that are all listed. */
const LISTED = 8;

/** All step sizes, the largest first: `h = 0.5, 0.25 and 0.125`, or `the 12 step sizes from h = 0.5 to 0.0002`. */
export function allSteps(sizes: readonly number[]): string {
  const falling = [...sizes].sort((a, b) => b - a).map(stepSizeText);
  const last = falling.at(-1) ?? '';
  if (falling.length > LISTED)
    return `the ${falling.length} step sizes from h = ${falling[0] ?? ''} to ${last}`;
  return falling.length < 2 ? `h = ${last}` : `h = ${falling.slice(0, -1).join(', ')} and ${last}`;
}

/** `Euler`, `Euler and Heun`, `Euler, Heun and 3 more methods`. */
export function titleList(titles: readonly string[]): string {
  const [first = '', second, ...more] = titles;
  if (second === undefined) return first;
  if (more.length === 0) return `${first} and ${second}`;
  return more.length === 1
    ? `${first}, ${second} and ${more.join()}`
    : `${first}, ${second} and ${more.length} more methods`;
}
