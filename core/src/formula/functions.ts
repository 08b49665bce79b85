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
  ['sin', one('Math.sin', Math.sin)],
  ['cos', one('Math.cos', Math.cos)],
  ['tan', one('Math.tan', Math.tan)],
  ['asin', one('Math.asin', Math.asin)],
  ['acos', one('Math.acos', Math.acos)],
  ['atan', one('Math.atan', Math.atan)],
  ['atan2', { fewest: 2, most: 2, evaluate: Math.atan2, code: 'Math.atan2' }],
  ['sinh', one('Math.sinh', Math.sinh)],
  ['cosh', one('Math.cosh', Math.cosh)],
  ['tanh', one('Math.tanh', Math.tanh)],
  ['exp', one('Math.exp', Math.exp)],
  ['ln', one('Math.log', Math.log)],
  ['log10', one('Math.log10', Math.log10)],
  ['log2', one('Math.log2', Math.log2)],
  ['sqrt', one('Math.sqrt', Math.sqrt)],
  ['cbrt', one('Math.cbrt', Math.cbrt)],
  ['abs', one('Math.abs', Math.abs)],
  ['sign', one('Math.sign', Math.sign)],
  ['floor', one('Math.floor', Math.floor)],
  ['min', { fewest: 2, most: 20, evaluate: Math.min, code: 'Math.min' }],
  ['max', { fewest: 2, most: 20, evaluate: Math.max, code: 'Math.max' }],
  ['mod', { fewest: 2, most: 2, evaluate: mod, code: 'mod' }],
]);

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

/** What to write instead of a function that is not of the notation, as the end of a sentence, or ''. */
export function functionHint(text: string): string {
  const other = OTHER_NAMES.get(text) ?? (FUNCTIONS.has(text.toLowerCase()) ? text.toLowerCase() : null);
  return other === null ? '' : `; write ${other}`;
}
