import {
  amountOf,
  amountText,
  areEqual,
  exactText,
  fraction,
  inexactly,
  isZero,
  less,
  over,
  plus,
  times,
} from './amount.ts';
import { addForms, type LinearForm, formKey, formOf, NO_FORM, putIn, scaleForm } from './form.ts';
import type { LinearMethod } from './linear-method.ts';
import { addPowers, monomial, multiplyPowers, ONE_POWER, soleTerm } from './powers.ts';
import { readLinear } from './read-linear.ts';
import { method } from '../../test-texts.ts';

function linear(text: string): LinearMethod {
  const found = readLinear(method(text));
  if ('why' in found) throw new Error(found.why);
  return found;
}

/** A form as text: `y[0] + 1/2 h^1 k0`. */
function shown(form: LinearForm): string {
  return [...form]
    .flatMap(([key, { factor }]) =>
      [...factor].map(([power, amount]) => `${amountText(amount)}${power === 0 ? '' : ` h^${power}`} ${key}`),
    )
    .join(' + ');
}

describe('amounts', () => {
  test.each([
    [0.1, '1/10'],
    [1e-3, '1/1000'],
    [-2.5, '-5/2'],
    [3, '3'],
    [0.16666666666666666, '8333333333333333/50000000000000000'],
  ])('%f is exactly what is written: %s', (value, text) => {
    const { exact } = amountOf(value);
    expect(exact && exactText(exact)).toBe(text);
  });

  test('fractions are added, multiplied and divided exactly', () => {
    const [third, sixth] = [fraction(1, 3), fraction(1, 6)];
    expect(amountText(plus(third, sixth))).toBe('1/2');
    expect(amountText(times(third, sixth))).toBe('1/18');
    expect(amountText(over(third, sixth))).toBe('2');
    expect(isZero(less(plus(third, third), fraction(2, 3)))).toBe(true);
    expect(over(third, fraction(0)).value).toBeNaN();
  });

  test('a root makes a double of what it touches, which is compared within a tolerance', () => {
    const root = inexactly(Math.sqrt(3));
    const three = times(root, root);
    expect(three.exact).toBeNull();
    expect(areEqual(three, fraction(3))).toBe(true);
    expect(areEqual(plus(three, inexactly(1e-8)), fraction(3))).toBe(false);
    // fractions are never equal but for a little
    expect(areEqual(fraction(1, 3), amountOf(0.3333333333333333))).toBe(false);
  });
});

describe('powers of h and forms', () => {
  const h = monomial(fraction(1), 1);

  test('(1 + h)(1 - h) is 1 - h^2', () => {
    const product = multiplyPowers(addPowers(ONE_POWER, h), addPowers(ONE_POWER, monomial(fraction(-1), 1)));
    expect([...product].map(([power, amount]) => [power, amountText(amount)])).toEqual([
      [0, '1'],
      [2, '-1'],
    ]);
    expect(soleTerm(product)).toBeNull();
  });

  test('terms that cancel are gone', () => {
    const y = formOf({ kind: 'kept', variable: 'y', back: 0 }, ONE_POWER);
    const none = addForms(y, scaleForm(y, monomial(fraction(-1))));
    expect(none.size).toBe(0);
    expect(formKey(none)).toBe(formKey(NO_FORM));
  });

  test('what was not known is put in with its factor', () => {
    const y = formOf({ kind: 'kept', variable: 'y', back: 1 }, ONE_POWER);
    const unknown = formOf({ kind: 'unknown', name: 'z' }, h);
    expect(shown(putIn(unknown, new Map([['z', y]])))).toBe('1 h^1 y[1]');
  });
});

test.each([
  ['y[n+1] = y + h*f(t, y)', '1 y[0] + 1 h^1 k0'],
  ['k1 = h*f(t, y)\ny[n+1] = y + k1/2', '1 y[0] + 1/2 h^1 k0'],
  [
    'start with Euler\ny[n+1] = (y + y[n-1])/2 + h*(f[n] - f[n-1])',
    '1/2 y[0] + 1/2 y[1] + 1 h^1 k0 + -1 h^1 k1',
  ],
  ["w = h^2/2\ny[n+1] = y + h*f(t, y) + w*f'(t, y)", '1 y[0] + 1 h^1 k0 + 1/2 h^2 k1'],
  // the same evaluation twice is one, however it is written
  ['y[n+1] = y + h/3*f(t, y) + 2*h/3*f(t[n], y[n])', '1 y[0] + 1 h^1 k0'],
  ['start with Euler\ny[n+1] = y + h/2*f(t, y) + h/2*f[n] + 0*y[n-1]', '1 y[0] + 1 h^1 k0'],
  ['half = 0.5\nk1 = f(t, y)\nk2 = f(t + half*h, y + half*h*k1)\ny[n+1] = y + h*k2', '1 y[0] + 1 h^1 k1'],
  ['s = sqrt(4)\ny[n+1] = y + s/2*h*f(t, y)', '1 y[0] + 1 h^1 k0'],
])('the form of\n%s', (text, form) => {
  const { next } = linear(text);
  expect('y' in next && shown(next.y)).toBe(form);
});

test('stages know where they look, and have their names', () => {
  const { stages, implicit } = linear(
    'k1 = f(t, y)\nk2 = h*f(t + 2/3*h, y + 2/3*h*k1)\ny[n+1] = y + (h*k1 + 3*k2)/4',
  );
  expect(stages.map(({ name, shift }) => [name, amountText(shift)])).toEqual([
    ['k1', '0'],
    ['k2', '2/3'],
  ]);
  expect(implicit).toBe(false);
});

test('values that a solve line finds are put into the places that hold them', () => {
  const { stages, next, implicit } = linear('solve y[n+1] = y + h/2*(f(t, y) + f(t + h, y[n+1]))');
  expect(implicit).toBe(true);
  expect('y' in next && shown(next.y)).toBe('1 y[0] + 1/2 h^1 k0 + 1/2 h^1 k1');
  const at = stages[1]?.at;
  expect(at !== undefined && 'y' in at && shown(at.y)).toBe('1 y[0] + 1/2 h^1 k0 + 1/2 h^1 k1');
  const two = linear('solve k1, k2 = f(t, y - h*k2), f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)');
  expect(two.stages.map(({ name }) => name)).toEqual(['k1', 'k2']);
});

test('positions and velocities are forms of their own', () => {
  const { next, stages } = linear('v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]');
  expect('x' in next && [shown(next.x), shown(next.v)]).toEqual([
    '1 x[0] + 1 h^1 v[0] + 1 h^2 k0',
    '1 v[0] + 1 h^1 k0',
  ]);
  expect(stages).toHaveLength(1);
});

test.each([
  ['y[n+1] = y + h*sin(h)*f(t, y)', 'sin of h or of a value of the solution is not linear'],
  ['y[n+1] = y + h*f(t^2, y)', 't is raised to a power'],
  ['y[n+1] = y + h*f(2*t, y)', 'the time of this evaluation is not t plus a multiple of h'],
  ['y[n+1] = y + h*f(t + h^2, y)', 'the time of this evaluation is not t plus a multiple of h'],
  ['y[n+1] = y + h/(1 + h)*f(t, y)', 'something is divided by a sum with h'],
  ['y[n+1] = y + t*h*f(t, y)', 't is multiplied by something other than a number'],
  ['solve y[n+1] = y/2 + y[n+1]/2 + h*f(t, y)', 'y[n+1] appears on both sides outside f'],
])('%s is not linear: %s', (text, why) => {
  const found = readLinear(method(text));
  expect('why' in found && found.why).toBe(why);
});
