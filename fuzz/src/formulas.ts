import * as fc from 'fast-check';

/** Numbers as they are typed: plain ones, and those at the ends of what a double holds. */
export const numberText = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.constantFrom('0', '1', '2', '3', '7', '0.5', '1/2', '2/3', '0.1', '.5', '2.', '1.2'),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom('1e-7', '1e-3', '2.5e-12', '1e5', '123456.789', '0.3333333333333333'),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom('1e300', '1e-308', '5e-324', '1e999', '9007199254740993', '1e-400', '1e22'),
  },
);

const UNARY = [
  'sin',
  'cos',
  'tan',
  'asin',
  'acos',
  'atan',
  'sinh',
  'cosh',
  'tanh',
  'exp',
  'ln',
  'log10',
  'log2',
  'sqrt',
  'cbrt',
  'abs',
  'sign',
  'floor',
];
const BINARY = ['atan2', 'min', 'max', 'mod'];
const RELATIONS = ['<', '<=', '>', '>=', '==', '!='];

/**
 * A well-formed formula over some names.
 *
 * @param leaves texts that can be a value, such as `y` or `f(t, y)`
 */
export function formulaOver(leaves: readonly string[], maxDepth = 4): fc.Arbitrary<string> {
  const leaf = fc.oneof(
    { weight: 3, arbitrary: fc.constantFrom(...leaves) },
    { weight: 2, arbitrary: numberText },
  );
  const { formula } = fc.letrec<{ formula: string }>((tie) => ({
    formula: fc.oneof(
      { maxDepth, depthIdentifier: fc.createDepthIdentifier(), withCrossShrink: true },
      leaf,
      fc
        .tuple(tie('formula'), fc.constantFrom('+', '-', '*', '/', '*', '+', '-'), tie('formula'))
        .map(([a, operator, b]) => `(${a} ${operator} ${b})`),
      fc.tuple(fc.constantFrom(...UNARY), tie('formula')).map(([name, a]) => `${name}(${a})`),
      fc
        .tuple(tie('formula'), fc.constantFrom('2', '3', '0.5', '-1', '10', '(1 + t)', '-2'))
        .map(([a, power]) => `(${a})^${power}`),
      tie('formula').map((a) => `-${a}`),
      fc
        .tuple(fc.constantFrom(...BINARY), tie('formula'), tie('formula'))
        .map(([name, a, b]) => `${name}(${a}, ${b})`),
      fc
        .tuple(tie('formula'), fc.constantFrom(...RELATIONS), tie('formula'), tie('formula'), tie('formula'))
        .map(([a, relation, b, yes, no]) => `if(${a} ${relation} ${b}, ${yes}, ${no})`),
    ),
  }));
  return formula;
}

/** A text repeated with its place in each, such as `y1 + y2 + y3`. */
export function repeated(count: number, of: (i: number) => string, by: string): string {
  return Array.from({ length: count }, (_, i) => of(i)).join(by);
}

export const primes = (count: number): string => "'".repeat(count);
