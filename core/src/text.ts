// How numbers are written, what is said of what cannot be done, and what both are made with.
export { lazily } from './text/lazily.ts';
export { namesOf } from './text/names-of.ts';
export {
  count,
  counted,
  ordinal,
  exponential,
  fixed,
  general,
  mantissaAndExponent,
  powerOfTen,
  powerText,
  rounded,
  short,
  significant,
  stepSizeText,
  withMinus,
} from './text/number-text.ts';
export { plainName } from './text/plain-name.ts';
export { primed } from './text/primes.ts';
export { attempt, Refusal } from './text/refusal.ts';
export { typesetOptions } from './text/typeset-options.ts';
