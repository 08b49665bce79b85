import type { Chance } from '../elementary/chance.ts';
import { fixed } from '../text/number-text.ts';

/** A number between two, with so many decimals. */
export function between(chance: Chance, low: number, high: number, digits = 2): number {
  return Number(fixed(low + (high - low) * chance(), digits));
}

/** One of a list. */
export function oneOf<T>(chance: Chance, list: readonly T[]): T {
  return list[Math.floor(chance() * list.length)]!;
}
