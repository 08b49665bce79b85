import { count, fixed, mantissaAndExponent, powerOfTen } from '@schritt/core/text';

/** An axis that reaches the first, or does not reach the second, has numbers with powers of ten. */
const LARGE = 1e7;
const SMALL = 1e-4;

/**
 * A number as mantissa and power of ten, the mantissa only where it is not 1.
 *
 * @param digits of the mantissa
 * @example powerLabel(0.002, 1) // '2·10⁻³'
 */
export function powerLabel(value: number, digits: number): string {
  const [mantissa, exponent] = mantissaAndExponent(value, digits);
  const power = powerOfTen(exponent);
  if (Math.abs(Number(mantissa)) === 1) return value < 0 ? `-${power}` : power;
  return `${mantissa}·${power}`;
}

/** Digits after the point of the mantissa that a distance between ticks has: at most one, as in 2.5. */
function placesOf(distance: number): readonly [digits: number, exponent: number] {
  const [mantissa, exponent] = mantissaAndExponent(distance, 2);
  return [mantissa.endsWith('0') ? 0 : 1, exponent];
}

/**
 * The number of a tick of a linear axis: with the digits that tell it from its neighbours, the same in every language.
 *
 * @param ticks the values of all ticks, which are equally far apart, in their order
 * @example linearTick(0.5, [0, 0.25, 0.5]) // '0.50'
 */
export function linearTick(value: number, ticks: readonly number[]): string {
  if (value === 0) return '0';
  // of a tick that is alone the distance from 0
  const [first = 0, second = 0] = ticks;
  const [digits, exponent] = placesOf(Math.abs(second - first));
  const largest = Math.max(...ticks.map(Math.abs));
  if (largest < SMALL || largest >= LARGE) {
    const own = mantissaAndExponent(value, 12)[1];
    return powerLabel(value, Math.max(1, 1 + own - exponent + digits));
  }
  const decimals = Math.max(0, digits - exponent);
  return decimals === 0 ? count(value) : fixed(value, decimals);
}
