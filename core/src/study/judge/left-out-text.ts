import type { LeftOut } from './window.ts';

const WORDS: Readonly<Record<LeftOut['kind'], string>> = {
  struck: 'struck out by hand',
  stopped: 'left the numbers',
  'no error': 'has no error to take the logarithm of',
  'other time': 'its error is taken at another time',
  'same grid': 'on the same grid as another rung',
  large: 'its error is larger than the solution',
  floor: 'a good part of its error is rounding, or the error of the reference',
  coarse: 'not yet on the expansion that the finer rungs show',
  outside: 'outside the window',
};

/** Why a rung does not count for the order, in words. */
export function leftOutText({ kind }: LeftOut): string {
  return WORDS[kind];
}
