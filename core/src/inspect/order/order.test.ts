import { amountText } from '../form/amount.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { parseMethod } from '../../method/parse-method.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { readLinear } from '../form/read-linear.ts';
import { conditionText, conditionTex, principalTex, treeSumTex, treeText } from './condition-tex.ts';
import { highestOrder } from './highest-order.ts';
import { hasConsistentPowers, proveOrder } from './prove-order.ts';
import { exactCoefficient, movedBy, shiftsDiffer, stepSeries } from './step-series.ts';
import { treePicture } from './tree-picture.ts';
import { Forest, type RootedTree } from './trees.ts';

function linear(text: string): LinearMethod {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  const found = readLinear(reading.value);
  if ('why' in found) throw new Error(found.why);
  return found;
}

const FIRST = { form: 'first', withTime: false, withVelocity: true, anyJacobian: false } as const;

/** A tree of order 4 with a long and a short branch: [y[y]]. */
function forked(): RootedTree {
  const found = new Forest(FIRST).ofOrder(4).find((tree) => treeText(tree) === '[y[y]]');
  if (found === undefined) throw new Error('no such tree');
  return found;
}

test('the sum of a tree, its density and symmetry are those of the books', () => {
  const tree = forked();
  expect(treeSumTex(tree, false)).toBe('\\sum_{i,j} b_{i} c_{i} a_{ij} c_{j}');
  expect([tree.density, tree.symmetry]).toEqual([8n, 1n]);
  expect(amountText(exactCoefficient(tree))).toBe('1/8');
});

test('a tree is drawn with its root below and every vertex above the one that it stands on', () => {
  const drawn = treePicture(forked());
  expect(drawn).toHaveLength(4);
  expect(drawn[0]).toMatchObject({ y: 0, below: null });
  for (const { y, below } of drawn.slice(1)) expect(y).toBe((drawn[below!]?.y ?? NaN) + 1);
  // no two vertices lie on one another
  expect(new Set(drawn.map(({ x, y }) => `${x}/${y}`)).size).toBe(4);
});

test('the series of RK4 is what its tableau gives by hand', () => {
  const { of } = { of: stepSeries(linear(findInLibrary('RK4')!.text)) };
  const forest = new Forest(FIRST);
  const [b, c] = [
    [1 / 6, 1 / 3, 1 / 3, 1 / 6],
    [0, 0.5, 0.5, 1],
  ];
  const A = [
    [0, 0, 0, 0],
    [0.5, 0, 0, 0],
    [0, 0.5, 0, 0],
    [0, 0, 1, 0],
  ];
  // a tree by hand: b_i times, for each child, c_i or the sum over j of a_ij times the same
  const inner = (tree: RootedTree, i: number): number =>
    tree.children.reduce(
      (product, child) =>
        product *
        (child.children.length === 0 ? c[i]! : A[i]!.reduce((sum, a, j) => sum + a * inner(child, j), 0)),
      1,
    );
  for (let order = 1; order <= 6; order += 1)
    for (const tree of forest.ofOrder(order)) {
      const byHand = b.reduce((sum, weight, i) => sum + weight * inner(tree, i), 0);
      expect(of.of(tree).value).toBeCloseTo(byHand, 14);
    }
});

test('earlier values are those of the exact solution: (-j)^order over the density', () => {
  const { next, ...more } = linear('start with Heun\ny[n+1] = y[n-2] + 0*h*f(t, y)');
  const series = stepSeries({ next, ...more });
  for (const tree of new Forest(FIRST).ofOrder(3))
    expect(series.of(tree).value).toBeCloseTo((-2) ** 3 / Number(tree.density), 14);
});

test('derivatives of f away from the solution: a method with one of them, by its expansion by hand', () => {
  // y + h f(t, y) + h^2/2 f'(t + h, y + h f(t, y)): the h^3 terms of y' = y^2 are (1, y = 1) 2 f' f = 3 of 3, by hand
  // below
  const method = linear("y[n+1] = y + h*f(t, y) + h^2/2*f'(t + h, y + h*f(t, y))");
  const series = stepSeries(method);
  const byText = new Map(new Forest(FIRST).ofOrder(3).map((tree) => [treeText(tree), series.of(tree).value]));
  // h^2/2 (f_yy f f + f_y f_y f) at y + h f: d/dh of f_y f at y is f_yy f f + f_y f_y f, so 1/2 (f_yy(f,f) + f_y f_y
  // f);
  // coefficients over the symmetries 2 and 1
  expect(byText).toEqual(
    new Map([
      ['[yy]', 1],
      ['[[y]]', 0.5],
    ]),
  );
});

test.each([
  ['k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)', true, false],
  ['k1 = f(t, y)\nk2 = f(t, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)', true, true],
  ['k1 = f(t, y)\ny[n+1] = y + k1', false, false],
  ["y[n+1] = y + h*f(t, y) + h*f'(t, y)", false, false],
  ['v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]', true, false],
  ['v[n+1] = v + a(t, x, v)\nx[n+1] = x + h*v', false, false],
])('%s\nis measured right: %s, shifts time and value apart: %s', (text, measured, apart) => {
  const method = linear(text);
  expect(hasConsistentPowers(method)).toBe(measured);
  if (measured) expect(shiftsDiffer(method)).toBe(apart);
});

test('a stage that looks at a mixture of earlier values is where their places say', () => {
  const { stages } = linear('start with Heun\nk = f(t, 2*y - y[n-1])\ny[n+1] = y + h*k');
  const at = stages[0]!.at;
  // 2*0 - (-1): one h further, though no slope was taken
  expect('y' in at && movedBy(at.y, linear('start with Heun\ny[n+1] = y[n-1] + 2*h*f(t, y)')).value).toBe(1);
});

test('a principal error is how far each tree is off', () => {
  const proof = proveOrder(linear(findInLibrary('Heun')!.text))!;
  expect(proof.failing.map(principalTex)).toEqual(['\\tfrac{1}{6}', '-\\tfrac{1}{6}']);
  const multistep = proveOrder(linear(findInLibrary('Adams-Bashforth 2')!.text))!;
  expect(conditionTex(multistep.failing[0]!, false)).toBe(
    '[h^{3} y^{(3)}] = -\\tfrac{1}{4},\\quad \\text{should be } \\tfrac{1}{6}',
  );
});

test('no method of the library is above what its kind can have', () => {
  for (const { text, order } of LIBRARY) {
    const reading = parseMethod(text);
    const form = reading.ok ? readLinear(reading.value) : null;
    if (form === null || 'why' in form) continue;
    expect(order).toBeLessThanOrEqual(highestOrder('explicit Runge-Kutta', 11, 0));
  }
  expect([1, 2, 3, 4, 5, 6, 7, 8, 9].map((s) => highestOrder('explicit Runge-Kutta', s, 0))).toEqual([
    1, 2, 3, 4, 4, 5, 6, 6, 7,
  ]);
  // Dahlquist: k explicit steps have order k, k implicit ones k + 1, or k + 2 for even k
  expect([0, 1, 2, 3].map((back) => highestOrder('explicit linear multistep', 2, back))).toEqual([
    1, 2, 3, 4,
  ]);
  expect([0, 1, 2, 3].map((back) => highestOrder('implicit linear multistep', 2, back))).toEqual([
    2, 4, 4, 6,
  ]);
  expect(highestOrder('Taylor', 3, 0)).toBe(Infinity);
});

/** The value of a sum such as `sum b_i a_ij c_j^2`, added up over all stages. */
function sumOf(text: string, { A, b, c }: { A: number[][]; b: number[]; c: number[] }): number {
  const factors = [...text.matchAll(/([abc])_([a-z]+)(?:\^(\d+))?/g)].map(
    ([, letter = '', indices = '', power = '1']) => ({
      letter,
      indices,
      power: Number(power),
    }),
  );
  const names = [...new Set(factors.flatMap(({ indices }) => Array.from(indices)))];
  const valueAt = (place: ReadonlyMap<string, number>): number =>
    factors.reduce((product, { letter, indices, power }) => {
      const [i = 0, j = 0] = Array.from(indices, (name) => place.get(name));
      const value = letter === 'a' ? A[i]![j]! : letter === 'b' ? b[i]! : c[i]!;
      return product * value ** power;
    }, 1);
  const add = (place: ReadonlyMap<string, number>, left: readonly string[]): number => {
    const [name, ...others] = left;
    if (name === undefined) return valueAt(place);
    return b.reduce((sum, _, i) => sum + add(new Map(place).set(name, i), others), 0);
  };
  return add(new Map(), names);
}

function fraction(text: string): number {
  const [above = '', below = '1'] = text.split('/');
  return Number(above) / Number(below);
}

test('a printed condition is the sum that it names, also where the shifts in time are no sums of rows', () => {
  let seed = 11;
  const draw = (from: readonly number[]): number => {
    seed = (seed * 48271) % 2147483647;
    return from[seed % from.length]!;
  };
  let printed = 0;
  for (let round = 0; round < 120; round += 1) {
    const parts = [0, 1, 2, -1, 4];
    const A = [
      [0, 0, 0],
      [draw(parts) / 4, 0, 0],
      [draw(parts) / 4, draw(parts) / 4, 0],
    ];
    const sums = A.map((row) => row.reduce((sum, value) => sum + value, 0));
    const isApart = round % 3 > 0;
    const c = sums.map((sum, i) => (isApart && i > 0 ? draw([0, 1, 2, 4]) / 4 : sum));
    const [b1, b2] = [draw([0, 1, 2]) / 4, draw([1, 2, 3]) / 4];
    const b = [b1, b2, 1 - b1 - b2];
    const terms = (row: readonly number[]): string =>
      row.map((value, j) => `(${value})*k${j + 1}`).join(' + ');
    const text = [
      ...A.map(
        (row, i) => `k${i + 1} = f(t + ${c[i]!}*h, y${i === 0 ? '' : ` + h*(${terms(row.slice(0, i))})`})`,
      ),
      `y[n+1] = y + h*(${terms(b)})`,
    ].join('\n');
    const proof = proveOrder(linear(text));
    for (const condition of proof?.failing ?? []) {
      const [, sum = '', value = ''] =
        /^(sum .*) = (\S+), should be/.exec(conditionText(condition, true)) ?? [];
      expect(sumOf(sum, { A, b, c })).toBeCloseTo(fraction(value), 12);
      printed += 1;
    }
  }
  expect(printed).toBeGreaterThan(100);
});

test('a stage at another time than its value has the time in the condition that fails', () => {
  const proof = proveOrder(linear('k1 = f(t, y)\nk2 = f(t + h, y + h/2*k1)\ny[n+1] = y + h*k2'));
  expect(proof?.failing.map((condition) => conditionText(condition, true))).toEqual([
    'sum b_i c_i = 1, should be 1/2',
  ]);
});
