import { cos, sin, tan } from '../elementary/trigonometric.ts';
import { cosh, exp, POWERS, sinh, tanh } from '../elementary/exponential.ts';
import { acos, asin, atan, atan2 } from '../elementary/inverse.ts';
import { ln, log10, log2 } from '../elementary/logarithm.ts';
import { cbrt, pow } from '../elementary/power.ts';

/** A function of the notation, and how many inputs it takes. */
export interface KnownFunction {
  readonly fewest: number;
  readonly most: number;
  /** The value in double precision: what a run does, to the last bit. */
  readonly evaluate: (...inputs: number[]) => number;
  /** The name under which generated code calls it. */
  readonly code: string;
}

/** `x - y*floor(x/y)`: the remainder that takes the sign of y, as in number theory. */
export function mod(x: number, y: number): number {
  return x - y * Math.floor(x / y);
}

function one(code: string, evaluate: (x: number) => number): KnownFunction {
  return { fewest: 1, most: 1, evaluate, code };
}

/** The functions of the notation. Nothing outside this table ever reaches generated code. */
export const FUNCTIONS: ReadonlyMap<string, KnownFunction> = new Map<string, KnownFunction>([
  ['sin', one('sin', sin)],
  ['cos', one('cos', cos)],
  ['tan', one('tan', tan)],
  ['asin', one('asin', asin)],
  ['acos', one('acos', acos)],
  ['atan', one('atan', atan)],
  ['atan2', { fewest: 2, most: 2, evaluate: atan2, code: 'atan2' }],
  ['sinh', one('sinh', sinh)],
  ['cosh', one('cosh', cosh)],
  ['tanh', one('tanh', tanh)],
  ['exp', one('exp', exp)],
  ['ln', one('ln', ln)],
  ['log10', one('log10', log10)],
  ['log2', one('log2', log2)],
  ['sqrt', one('Math.sqrt', Math.sqrt)],
  ['cbrt', one('cbrt', cbrt)],
  ['abs', one('Math.abs', Math.abs)],
  ['sign', one('Math.sign', Math.sign)],
  ['floor', one('Math.floor', Math.floor)],
  ['min', { fewest: 2, most: 20, evaluate: Math.min, code: 'Math.min' }],
  ['max', { fewest: 2, most: 20, evaluate: Math.max, code: 'Math.max' }],
  ['mod', { fewest: 2, most: 2, evaluate: mod, code: 'mod' }],
]);

/** What generated code calls by name, beside Math: made here, so that every machine rounds it alike. */
export const GENERATED_CALLS = {
  POWERS,
  mod,
  sin,
  cos,
  tan,
  asin,
  acos,
  atan,
  atan2,
  sinh,
  cosh,
  tanh,
  exp,
  ln,
  log10,
  log2,
  cbrt,
  pow,
} as const;

/** The constants of the notation. */
export const CONSTANTS: ReadonlyMap<string, number> = new Map([
  ['pi', Math.PI],
  ['π', Math.PI],
  ['e', Math.E],
]);

const OTHER_NAMES: ReadonlyMap<string, string> = new Map([
  ['arcsin', 'asin'],
  ['arccos', 'acos'],
  ['arctan', 'atan'],
  ['arctan2', 'atan2'],
  ['tg', 'tan'],
  ['sgn', 'sign'],
  ['fabs', 'abs'],
  ['root', 'sqrt'],
  ['log_10', 'log10'],
  ['lg', 'log10'],
  ['ld', 'log2'],
  ['ceil', '-floor(-x)'],
  ['pow', 'a^b'],
  ['sec', '1/cos(x)'],
  ['csc', '1/sin(x)'],
  ['cot', '1/tan(x)'],
]);

/** The function of the notation that another name represents; null where there is none. */
export function otherFunction(text: string): string | null {
  const other = OTHER_NAMES.get(text) ?? text.toLowerCase();
  return FUNCTIONS.has(other) ? other : null;
}

/** What to write instead of a function that is not of the notation, as the end of a sentence, or ''. */
export function functionHint(text: string): string {
  const other = OTHER_NAMES.get(text) ?? otherFunction(text);
  return other === null ? '' : `; write ${other}`;
}
