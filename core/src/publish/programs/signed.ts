import type { Writing } from './language.ts';

/** Writes numbers of either sign in a language. */
export function signedBy({ number }: Writing): (value: number) => string {
  return (value) => (value < 0 ? `-${number(-value)}` : number(value));
}
