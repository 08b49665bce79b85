import { log10 } from '../../elementary/logarithm.ts';
import { pow } from '../../elementary/power.ts';
import { rounded } from '../../text/number-text.ts';

/** The part of an axis that is shown, and the places along it that are numbered or only marked. */
export interface Scale {
  readonly low: number;
  readonly high: number;
  readonly numbered: readonly number[];
  readonly marked: readonly number[];
}

/** A number to so many digits that a multiple of a step loses what rounding left. */
function clean(value: number): number {
  return rounded(value, 13);
}

/** Widest and narrowest finite values; a single value gets room about it. */
function reach(values: readonly number[]): readonly [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const value of values) {
    if (!Number.isFinite(value)) continue;
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  if (!(low <= high)) return [0, 1];
  if (low < high) return [low, high];
  const room = low === 0 ? 1 : Math.abs(low) / 2;
  return [low - room, high + room];
}

/** A linear scale about values, with about so many numbers at steps of 1, 2 or 5. */
export function linearScale(values: readonly number[], wanted = 6): Scale {
  const [least, most] = reach(values);
  const rough = (most - least) / wanted;
  const power = pow(10, Math.floor(log10(rough)));
  const step = clean(([1, 2, 5, 10].find((by) => by * power >= rough * 0.999) ?? 10) * power);
  const first = Math.floor(least / step + 1e-9);
  const last = Math.ceil(most / step - 1e-9);
  const numbered = Array.from({ length: last - first + 1 }, (_, i) => clean((first + i) * step));
  return { low: numbered[0] ?? least, high: numbered.at(-1) ?? most, numbered, marked: [] };
}

/** A logarithmic scale about positive values: decades are numbered, and within few of them 2 and 5, too. */
export function logarithmicScale(values: readonly number[], wanted = 8): Scale {
  const [least, most] = reach(values.filter((value) => value > 0).map(log10));
  const [low, high] = values.some((value) => value > 0) ? [least, most] : [0, 1];
  const decades = high - low;
  const digits = decades < 3 ? [1, 2, 5] : [1];
  const every = Math.max(1, Math.ceil(decades / wanted));
  const [from, to] = [low - 0.04 * Math.max(decades, 0.3), high + 0.04 * Math.max(decades, 0.3)];
  const numbered: number[] = [];
  const marked: number[] = [];
  for (let exponent = Math.floor(from); exponent <= Math.ceil(to); exponent += 1)
    for (let digit = 1; digit <= 9; digit += 1) {
      const place = exponent + log10(digit);
      if (place < from || place > to) continue;
      const value = clean(digit * pow(10, exponent));
      if (digits.includes(digit) && exponent % every === 0) numbered.push(value);
      else if (every === 1) marked.push(value);
    }
  return { low: pow(10, from), high: pow(10, to), numbered, marked };
}
