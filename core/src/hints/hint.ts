/** What a name or a way of writing represents, for the reader. */
export interface Hint {
  /** What is typed. */
  readonly text: string;
  readonly kind: 'statement' | 'name' | 'function' | 'word';
  /** What it represents, in a few words. */
  readonly says: string;
}

/** Functions and constants of the notation. */
export const FUNCTION_HINTS: readonly Hint[] = (
  [
    ['sin', 'sine, argument in radians'],
    ['cos', 'cosine, argument in radians'],
    ['tan', 'tangent, argument in radians'],
    ['asin', 'inverse sine, in radians'],
    ['acos', 'inverse cosine, in radians'],
    ['atan', 'inverse tangent, in radians'],
    ['atan2', 'atan2(y, x): the angle of the point (x, y)'],
    ['sinh', 'hyperbolic sine'],
    ['cosh', 'hyperbolic cosine'],
    ['tanh', 'hyperbolic tangent'],
    ['exp', 'exponential function'],
    ['ln', 'natural logarithm'],
    ['log10', 'logarithm to the base 10'],
    ['log2', 'logarithm to the base 2'],
    ['sqrt', 'square root'],
    ['cbrt', 'cube root'],
    ['abs', 'absolute value'],
    ['sign', 'sign: -1, 0 or 1'],
    ['floor', 'largest integer not above'],
    ['min', 'minimum of its arguments'],
    ['max', 'maximum of its arguments'],
    ['mod', 'mod(x, y) = x - y*floor(x/y)'],
    ['if', 'if(a < b, x, y): x where the comparison holds, otherwise y'],
  ] as const
).map(([text, says]) => ({ text, kind: 'function', says }));

export const CONSTANT_HINTS: readonly Hint[] = [
  { text: 'pi', kind: 'word', says: '3.141592653589793' },
  { text: 'e', kind: 'word', says: '2.718281828459045' },
];

export function statement(text: string, says: string): Hint {
  return { text, kind: 'statement', says };
}

export function word(text: string, says: string): Hint {
  return { text, kind: 'word', says };
}
