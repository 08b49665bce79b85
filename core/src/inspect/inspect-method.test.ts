import { findInLibrary } from '../method/library/find-method.ts';
import { LIBRARY } from '../method/library/library.ts';
import { parseMethod } from '../method/parse-method.ts';
import { amountText } from './form/amount.ts';
import { inspectMethod } from './inspect-method.ts';
import { conditionText, conditionTex } from './order/condition-tex.ts';
import { Forest } from './order/trees.ts';
import { findSlips } from './slips/find-slips.ts';
import { method } from '../test-texts.ts';

function orderOf(text: string): number | null {
  const { order } = inspectMethod(method(text));
  return order === null ? null : order.order;
}

/** Methods of order 1 for any x'' = a, and of a higher one where a does not hold the velocity. */
const FREE: ReadonlyMap<string, number> = new Map([['Velocity Verlet', 2]]);

test.each(LIBRARY.map(({ title, order }) => [title, order] as const))(
  '%s is proved to have the order %i of its source',
  (title, order) => {
    const { order: proof, orderWithoutVelocity } = inspectMethod(findInLibrary(title)!);
    const best = FREE.has(title) ? orderWithoutVelocity : proof;
    expect(best).toMatchObject({ order, atLeast: false });
    expect(proof?.zero?.stable ?? true).toBe(true);
  },
);

test('there are as many rooted trees as the literature counts: 200 up to order 8', () => {
  const forest = new Forest({ form: 'first', withTime: false, withVelocity: true, anyJacobian: false });
  const counts = Array.from({ length: 8 }, (_, k) => forest.ofOrder(k + 1).length);
  expect(counts).toEqual([1, 1, 2, 4, 9, 20, 48, 115]);
  // the densities and symmetries of order 4: Butcher, table 304
  const four = forest.ofOrder(4).map(({ density, symmetry }) => `${density}/${symmetry}`);
  expect(new Set(four)).toEqual(new Set(['4/6', '8/1', '12/2', '24/1']));
});

test.each([
  ['Adams-Bashforth 2', '5/12'],
  ['Adams-Bashforth 3', '3/8'],
  ['Adams-Bashforth 4', '251/720'],
  ['Adams-Bashforth 5', '95/288'],
  ['Adams-Bashforth 6', '19087/60480'],
  ['Trapezoidal rule', '-1/12'],
  // C_3 = -2/9 over the weight 2/3 of the slope
  ['BDF 2', '-1/3'],
  ['Leapfrog', '1/6'],
  ['Euler', '1/2'],
  ['Backward Euler', '-1/2'],
  ['Adams-Moulton 3, predicted', '-1/24'],
  ['Taylor 4', '1/120'],
] as const)('the error constant of %s is %s', (title, constant) => {
  const { order } = inspectMethod(findInLibrary(title)!);
  expect(order?.errorConstant && amountText(order.errorConstant)).toBe(constant);
});

test.each([
  ['Heun', 'sum b_i c_i^2 = 1/2, should be 1/3'],
  ['Kutta 3', 'sum b_i c_i a_ij c_j = 1/6, should be 1/8'],
  ['RK4', 'sum b_i c_i^4 = 5/24, should be 1/5'],
] as const)('the first condition that %s fails: %s', (title, text) => {
  const { order } = inspectMethod(findInLibrary(title)!);
  expect(conditionText(order!.failing[0]!, true)).toBe(text);
});

test('a condition is typeset with its sum, value and what it should be', () => {
  const { order } = inspectMethod(findInLibrary('Kutta 3')!);
  expect(conditionTex(order!.failing[0]!, true)).toBe(
    '\\sum_{i,j} b_{i} c_{i} a_{ij} c_{j} = \\tfrac{1}{6},\\quad \\text{should be } \\tfrac{1}{8}',
  );
});

const HEUN_FORMS = [
  'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)',
  'k1 = h*f(t, y)\nk2 = h*f(t + h, y + k1)\ny[n+1] = y + (k1 + k2)/2',
  'half = h/2\nk1 = f(t, y)\np = y\nq = p + h*k1\nk2 = f(t + h, q)\ns = half*k1\ny[n+1] = y + s + half*k2',
  'w = 0.5\nk1 = f(t[n], y[n])\nk2 = f(t[n] + h, y[n] + h*f(t, y))\ny[n+1] = y[n] + h*(w*f[n] + (1 - w)*k2)',
];

test.each(HEUN_FORMS)('one tableau, however it is laid out:\n%s', (text) => {
  const { kind, tableau } = inspectMethod(method(text));
  expect(kind).toBe('explicit Runge-Kutta');
  expect(tableau?.A.map((row) => row.map(amountText))).toEqual([
    ['0', '0'],
    ['1', '0'],
  ]);
  expect(tableau?.b.map(amountText)).toEqual(['1/2', '1/2']);
  expect(tableau?.c.map(amountText)).toEqual(['0', '1']);
});

test('multistep coefficients are read, those of the new value too', () => {
  const { multistep } = inspectMethod(findInLibrary('BDF 2')!);
  expect(multistep?.alpha.map(amountText)).toEqual(['4/3', '-1/3']);
  expect(multistep?.beta.map(amountText)).toEqual(['0', '0']);
  expect(amountText(multistep!.next)).toBe('2/3');
});

test.each([
  // Milne's explicit formula of four steps: an order of 6 was once read off coarse trials
  ['start with RK4\ny[n+1] = y[n-3] + 4*h/3*(2*f[n] - f[n-1] + 2*f[n-2])', 4],
  // four digits of 1/6 and 1/3 do not sum to one
  [
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h*(0.1667*k1 + 0.3333*k2 + 0.3333*k3 + 0.1667*k4)',
    2,
  ],
  [
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h*(0.166*k1 + 0.333*k2 + 0.333*k3 + 0.166*k4)',
    0,
  ],
  ['theta = 0.501\nsolve y[n+1] = y + h*((1 - theta)*f(t, y) + theta*f(t + h, y[n+1]))', 1],
  ['theta = 0.5\nsolve y[n+1] = y + h*((1 - theta)*f(t, y) + theta*f(t + h, y[n+1]))', 2],
  ['start with Heun\nsolve y[n+1] = 1.333*y - 0.333*y[n-1] + 0.667*h*f(t + h, y[n+1])', 1],
  ['y[n+1] = y + h/2*f(t, y)', 0],
  ["y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y)", 3],
  ['y[n+1] = y + h*f(t, y) + h^2/2*(f_t(t, y) + f_y(t, y)*f(t, y))', 2],
  // two derivatives at two places: order 4 (Hairer, Norsett & Wanner II.13)
  ['start with Heun\nsolve y[n+1] = y + h/2*(f(t, y) + f(t + h, y[n+1]))', 2],
  ["k = f(t + h, y + h*f(t, y) + h^2/2*f'(t, y))\ny[n+1] = y + h*(2/3*f(t, y) + 1/3*k) + h^2/6*f'(t, y)", 3],
  // two-stage Radau IIA and a singly diagonally implicit method of order 3
  [
    'solve k1, k2 = f(t + h/3, y + h*(5/12*k1 - 1/12*k2)), f(t + h, y + h*(3/4*k1 + 1/4*k2))\ny[n+1] = y + h*(3/4*k1 + 1/4*k2)',
    3,
  ],
  [
    'g = (3 + sqrt(3))/6\nsolve k1 = f(t + g*h, y + g*h*k1)\nsolve k2 = f(t + (1 - g)*h, y + h*((1 - 2*g)*k1 + g*k2))\ny[n+1] = y + h/2*(k1 + k2)',
    3,
  ],
  // a stage whose time is forgotten: right for problems without t, order 1 for others
  ['k1 = f(t, y)\nk2 = f(t, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)', 1],
] as const)('the order of\n%s\nis %i', (text, order) => {
  expect(orderOf(text)).toBe(order);
});

test('a root outside the circle, and a double one on it, are no convergence, whatever the order of the formula', () => {
  const outside = method('start with RK4\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])');
  expect(inspectMethod(outside).order).toMatchObject({ order: 3, zero: { stable: false } });
  expect(findSlips(outside).slips.map(({ message }) => message)).toEqual([
    'an error is multiplied by 5 per step for every h: the method does not converge',
  ]);
  const double = inspectMethod(method('start with RK4\ny[n+1] = 2*y - y[n-1] + h*(f[n] - f[n-1])'));
  expect(double.order?.zero?.stable).toBe(false);
  expect(inspectMethod(findInLibrary('Leapfrog')!).order?.zero?.undamped).toHaveLength(1);
});

test.each([
  ['y[n+1] = y + h*if(t < 1, 0, 1)*f(t, y)', 'if(...) is not linear'],
  ['y[n+1] = y + h*f(t, y)*f(t, y)/y', 'two values of the solution are multiplied'],
  ['y[n+1] = y + h*exp(h)*f(t, y)', 'exp of h or of a value of the solution is not linear'],
])('%s is of no known form, and says why', (text, why) => {
  const reading = parseMethod(text);
  if (!reading.ok) return;
  expect(inspectMethod(reading.value)).toMatchObject({ kind: null, order: null, why: { why } });
});

test('kinds are distinguished', () => {
  const kinds = new Map(LIBRARY.map(({ title }) => [title, inspectMethod(findInLibrary(title)!).kind]));
  expect(kinds.get('Gauss 2')).toBe('implicit Runge-Kutta');
  expect(kinds.get('Implicit midpoint')).toBe('diagonally implicit Runge-Kutta');
  expect(kinds.get('BDF 2')).toBe('implicit linear multistep');
  expect(kinds.get('Adams-Bashforth 4')).toBe('explicit linear multistep');
  expect(kinds.get('Adams-Moulton 2, predicted')).toBe('predictor-corrector');
  expect(kinds.get('Nystrom 4')).toBe('Nystrom');
  expect(kinds.get('Taylor 3')).toBe('Taylor');
});

test.each([
  ['1e-7', '1/10000000'],
  ['2.5e-12', '1/400000000000'],
  ['1e5', '100000'],
  ['0.1', '1/10'],
  ['12.50', '25/2'],
])('the coefficient %s is read from its digits as %s', (written, exact) => {
  const { order } = inspectMethod(method(`y[n+1] = y + ${written}*h*f(t, y)`));
  expect(amountText(order!.failing[0]!.value)).toBe(exact);
});

test('coefficients that multiply to long fractions become doubles, and the analysis ends', () => {
  const squares = Array.from({ length: 30 }, (_, i) => `c${i + 1} = c${i}*c${i} + 1/5`).join('\n');
  const { order } = inspectMethod(method(`c0 = 1/7\n${squares}\ny[n+1] = y + h*f(t, y)*c30/c30`));
  expect(order).toMatchObject({ order: 1 });
});

test('powers of h that multiply up and too many evaluations are reported, not worked out', () => {
  const powers = `c = (1 + h)^40\nd = c^40\ny[n+1] = y + h*d*f(t, y)`;
  expect(inspectMethod(method(powers)).why?.why).toContain('too many powers of h');
  const stages = Array.from({ length: 101 }, (_, i) => `f(t + ${i}*h/7, y)`).join(' + ');
  expect(inspectMethod(method(`y[n+1] = y + h*(${stages})`)).why?.why).toContain('more than 100 evaluations');
});

// k = (I - h gamma J)^-1 f: without the derivative by t, h^2/2 f_t is missing whatever gamma is (Hairer & Wanner IV.7)
test.each(['h*J*k', 'h/2*J*k'])(
  'a linearly implicit method is analysed, not followed without end: %s',
  (term) => {
    const text = `J = f_y(t, y)\nsolve k = f(t, y) + ${term}\ny[n+1] = y + h*k`;
    expect(inspectMethod(method(text)).order).toMatchObject({ order: 1, atLeast: false });
  },
);
