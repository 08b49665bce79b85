import { findInLibrary } from '../../method/library/find-method.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { expectedOrder } from './trial-order.ts';
import { method, problem } from '../../test-texts.ts';

const FREE = problem("x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1");

test.each(LIBRARY.map(({ title, order }) => [title, order] as const))(
  '%s promises the order %i of its source',
  (title, order) => {
    expect(expectedOrder(findInLibrary(title)!, FREE)).toEqual({ kind: 'order', order, by: 'proof' });
  },
);

test.each([
  ['a forgotten h has order 0', 'k1 = f(t, y)\ny[n+1] = y + k1/10', 0, 'trial'],
  [
    'a stage at the wrong place has order 1',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\ny[n+1] = y + h/2*(k1 + k2)',
    1,
    'proof',
  ],
  ['weights that do not add up have order 0', 'k1 = f(t, y)\ny[n+1] = y + h/2*k1', 0, 'proof'],
  // the root 5 of r^2 + 4 r - 5: order 3 by its error, and every error grows
  [
    'an unstable two-step formula diverges',
    'start with Euler\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])',
    ['diverges'],
    'proof',
  ],
] as const)('%s', (_, text, expected, by) => {
  const promised = expectedOrder(method(text), FREE);
  expect(promised).toEqual(
    typeof expected === 'number' ? { kind: 'order', order: expected, by } : { kind: expected[0] },
  );
});
