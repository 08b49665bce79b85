import type { Random } from '../src/elementary/random.ts';
import { fixed } from '../src/text/number-text.ts';

/** A number between two, with so many decimals. */
export function between(random: Random, low: number, high: number, digits = 2): number {
  return Number(fixed(low + (high - low) * random(), digits));
}

/** One of a list. */
export function oneOf<T>(random: Random, list: readonly T[]): T {
  return list[Math.floor(random() * list.length)]!;
}
