import { plainText } from '../formula/plain-text.ts';
import { givenText, type Method, valuesOf } from '../method/method.ts';
import { CONSTANT_HINTS, FUNCTION_HINTS, type Hint, statement, word } from './hint.ts';

const BY_HAND =
  "a derivative worked out by hand can be given in the problem as y'' = ..., and is checked against the automatic one";

const FIRST_ORDER: readonly Hint[] = [
  statement('k1 = f(t, y)', 'a stage: the slope at the present point'),
  statement('k2 = f(t + h, y + h*k1)', 'a stage at another point'),
  statement('y[n+1] = y + h*k1', 'the new value; every method has this line'),
  statement('solve y[n+1] = y + h*f(t + h, y[n+1])', "an implicit formula, solved by Newton's method"),
  statement('start with RK4', 'the starting method of a multistep method, as with f[n-1]'),
  statement("y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)", `f' is computed automatically; ${BY_HAND}`),
  statement('d2(t, y) = 2*t*y', `a typed derivative, for a single equation; ${BY_HAND}`),
];

const WORDS: readonly Hint[] = [
  word('t', 'the present time, t[n]'),
  word('h', 'the step size, which the study chooses'),
  word('y', 'the present value, y[n]: a vector of all components'),
  word(
    'f',
    "the right-hand side of the problem: f(t, y); f[n] is stored for later steps; f'(t, y) is its derivative along the solution",
  ),
  word('n', 'the step number; allowed only in an index'),
  word('f_t', 'the partial derivative of f with respect to t: f_t(t, y)'),
  word(
    'f_y',
    'the partial derivative of f with respect to y; for systems the Jacobian, applied to a vector: f_y(t, y)*f(t, y)',
  ),
  word('solve', 'solves for values that are defined implicitly'),
  word('start', 'start with NAME: the starting method'),
];

const SECOND_ORDER: readonly Hint[] = [
  statement('v[n+1] = v + h*a(t, x, v)', "for x'' = a(t, x, x'): the new velocity"),
  statement('x[n+1] = x + h*v[n+1]', "for x'' = a(t, x, x'): the new position"),
];

const SECOND_WORDS: readonly Hint[] = [
  word('x', 'the present position'),
  word('v', 'the present velocity'),
  word('a', "the right-hand side of x'' = a(t, x, x'): a(t, x, v)"),
];

/**
 * What can be typed in a method and what its names represent.
 *
 * @param method the last good reading of the text; null where there is none yet
 * @example methodHints(heun).some(({ text }) => text === 'k1') // true
 */
export function methodHints(method: Method | null): readonly Hint[] {
  const names = (method?.statements ?? []).flatMap((line): readonly Hint[] => {
    if (line.kind === 'function')
      return [
        {
          text: line.name,
          kind: 'name',
          says: `${line.name}(${line.inputs.join(', ')}) = ${plainText(line.value)}`,
        },
      ];
    const given = line.kind === 'let' ? [line.given] : line.given;
    return given.flatMap((of, i): readonly Hint[] => {
      const value = valuesOf(line)[i];
      return of.kind === 'next' || value === undefined
        ? []
        : [{ text: of.name, kind: 'name', says: `${givenText(of)} = ${plainText(value)}` }];
    });
  });
  const isSecond = method?.form === 'second order';
  return [
    ...names,
    ...(isSecond ? [...SECOND_WORDS, ...WORDS] : [...WORDS, ...SECOND_WORDS]),
    ...(isSecond ? [...SECOND_ORDER, ...FIRST_ORDER] : [...FIRST_ORDER, ...SECOND_ORDER]),
    ...FUNCTION_HINTS,
    ...CONSTANT_HINTS,
  ];
}
