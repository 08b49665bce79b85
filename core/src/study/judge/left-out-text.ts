import type { LeftOut } from './window.ts';

const WORDS: Readonly<Record<LeftOut['kind'], string>> = {
  struck: 'struck out by hand',
  stopped: 'left the numbers',
  'no error': 'has no error to take the logarithm of',
  'other time': 'its error is taken at another time',
  floor: 'at the floor of rounding',
  coarse: 'off the line of the finer rungs',
  outside: 'outside the window',
};

/** Why a rung does not count for the order, in words. */
export function leftOutText({ kind }: LeftOut): string {
  return WORDS[kind];
}
