import { inspectedText } from '../../trust/inspected-text.ts';
import { parsedFormula } from '../../trust/parsed-formula.ts';
import {
  EXPLICIT,
  IMPLICIT,
  MULTISTEP,
  type PublishedFormula,
  type PublishedTableau,
  ROSENBROCK,
} from '../../trust/published-methods.ts';
import { constantValue } from '../problem/constant-value.ts';
import { amountText } from './form/amount.ts';

function valueOf(coefficient: string): number {
  return constantValue(parsedFormula(coefficient), new Map());
}

/** How coefficients are written, and where h is. */
interface Layout {
  readonly name: string;
  readonly number: (coefficient: string) => string;
  /** Stages as h times slopes. */
  readonly times: boolean;
  /** One bracket with h before it, or h in every term. */
  readonly bracket: boolean;
}

const plain = (coefficient: string): string =>
  /^[\d./]+$/.test(coefficient) ? coefficient : `(${coefficient})`;
const decimal = (coefficient: string): string => {
  const text = valueOf(coefficient).toPrecision(16);
  return text.startsWith('-') ? `(${text})` : text;
};

const LAYOUTS: readonly Layout[] = [
  { name: 'slopes, one bracket', number: plain, times: false, bracket: true },
  { name: 'slopes, h in every term', number: plain, times: false, bracket: false },
  { name: 'h times slopes', number: plain, times: true, bracket: false },
  { name: 'values of stages', number: plain, times: false, bracket: true },
  { name: 'sixteen digits', number: decimal, times: false, bracket: true },
];

function sum(
  weights: readonly string[],
  { number, times, bracket }: Layout,
  slope: (j: number) => string,
): string {
  const terms = weights.flatMap((weight, j) =>
    weight === '0' ? [] : [`${number(weight)}${times || bracket ? '' : '*h'}*${slope(j)}`],
  );
  if (terms.length === 0) return '';
  return bracket && !times ? ` + h*(${terms.join(' + ')})` : ` + ${terms.join(' + ')}`;
}

function textOf({ c, A, b }: PublishedTableau, layout: Layout): string {
  const time = (i: number): string => (c[i] === '0' ? 't' : `t + ${layout.number(c[i] ?? '0')}*h`);
  const isImplicit = A.some((row, i) => row.slice(i).some((a) => a !== '0'));
  if (layout.name === 'values of stages') {
    const slope = (j: number): string => `f(${time(j)}, Y${j + 1})`;
    const values = A.map((row) => `y${sum(row, layout, slope)}`);
    const names = values.map((_, i) => `Y${i + 1}`);
    const lines = isImplicit
      ? [`solve ${names.join(', ')} = ${values.join(', ')}`]
      : values.map((value, i) => `Y${i + 1} = ${value}`);
    return [...lines, `y[n+1] = y${sum(b, layout, slope)}`].join('\n');
  }
  const slope = (j: number): string => `k${j + 1}`;
  const stages = A.map((row, i) => `${layout.times ? 'h*' : ''}f(${time(i)}, y${sum(row, layout, slope)})`);
  const names = stages.map((_, i) => slope(i));
  const lines = isImplicit
    ? [`solve ${names.join(', ')} = ${stages.join(', ')}`]
    : stages.map((stage, i) => `${slope(i)} = ${stage}`);
  return [...lines, `y[n+1] = y${sum(b, layout, slope)}`].join('\n');
}

const TABLEAUS = [...EXPLICIT, ...IMPLICIT].flatMap((tableau) =>
  LAYOUTS.map((layout) => [tableau.name, layout.name, tableau, layout] as const),
);

test('there are at least 60 published methods', () => {
  const all = [...EXPLICIT, ...IMPLICIT, ...MULTISTEP, ...ROSENBROCK];
  expect(new Set(all.map(({ name }) => name)).size).toBeGreaterThanOrEqual(60);
});

test.each(TABLEAUS)('%s, written as %s, has its published order and stages', (_, __, tableau, layout) => {
  const found = inspectedText(textOf(tableau, layout));
  const proof = found.withinDigits?.proof ?? found.order;
  expect(proof).toMatchObject({ order: tableau.order, atLeast: false });
  expect(found.tableau?.b).toHaveLength(tableau.c.length);
  // no false alarm
  expect(found.slips.filter(({ kind }) => kind !== 'digits')).toEqual([]);
  expect(found.nearMisses).toEqual([]);
});

test.each(TABLEAUS.filter(([, layout]) => layout === 'slopes, one bracket'))(
  '%s: R(z) and the imaginary axis are those of a table of its own',
  (_, __, tableau, layout) => {
    const { stability } = inspectedText(textOf(tableau, layout));
    // R(z) = 1 + z b (I - z A)^-1 e at a place, by iteration of the stages where that converges
    const [A, b] = [tableau.A.map((row) => row.map(valueOf)), tableau.b.map(valueOf)];
    const z = -0.17;
    let stages = tableau.c.map(() => 1);
    for (let round = 0; round < 200; round += 1)
      stages = A.map((row) => 1 + z * row.reduce((total, a, j) => total + a * stages[j]!, 0));
    const R = 1 + z * b.reduce((total, weight, j) => total + weight * stages[j]!, 0);
    const at = (p: readonly { readonly value: number }[]): number =>
      p.reduceRight((total, { value }) => total * z + value, 0);
    expect(at(stability!.polynomial.above[0]!) / at(stability!.polynomial.below)).toBeCloseTo(R, 12);
  },
);

/** Texts of a multistep formula: a common bracket, single terms, terms in the opposite order, decimals. */
function formulaTexts({ alpha, beta, next }: PublishedFormula): readonly string[] {
  const isImplicit = next !== '0';
  const back = (of: string, j: number): string => (j === 0 ? (of === 'y' ? 'y' : 'f[n]') : `${of}[n-${j}]`);
  const write = (number: (coefficient: string) => string, bracket: boolean, isTurned: boolean): string => {
    const values = alpha.flatMap((a, j) => (a === '0' ? [] : [`${number(a)}*${back('y', j)}`]));
    const slopes = [
      ...(isImplicit ? [[next, 'f(t + h, y[n+1])'] as const] : []),
      ...beta.map((coefficient, j) => [coefficient, back('f', j)] as const),
    ].filter(([coefficient]) => coefficient !== '0');
    const terms = slopes.map(([coefficient, of]) => `${number(coefficient)}*${bracket ? '' : 'h*'}${of}`);
    const all = [...values, ...(bracket ? [`h*(${terms.join(' + ')})`] : terms)];
    return `${isImplicit ? 'solve ' : ''}y[n+1] = ${(isTurned ? all.reverse() : all).join(' + ')}`;
  };
  const bracketed = (coefficient: string): string =>
    coefficient.startsWith('-') ? `(${coefficient})` : coefficient;
  return [
    write(bracketed, true, false),
    write(bracketed, false, false),
    write(bracketed, false, true),
    write(decimal, true, false),
    write(decimal, false, true),
  ];
}

const FORMULAS = MULTISTEP.flatMap((formula) =>
  formulaTexts(formula).map((text, i) => [formula.name, i, formula, text] as const),
);

test.each(FORMULAS)(
  '%s, layout %i, has its published order and error constant',
  (_, layout, formula, text) => {
    const found = inspectedText(`start with RK8\n${text}`);
    const proof = found.withinDigits?.proof ?? found.order;
    expect(proof).toMatchObject({ order: formula.order, atLeast: false });
    expect(proof?.zero?.stable).toBe(true);
    expect(found.kind).toBe(`${formula.next === '0' ? 'explicit' : 'implicit'} linear multistep`);
    const constant = proof!.errorConstant!;
    if (layout < 3) expect(amountText(constant)).toBe(formula.constant);
    else expect(constant.value).toBeCloseTo(valueOf(formula.constant), 10);
  },
);

test.each([
  ['BDF 3', 86.03],
  ['BDF 4', 73.35],
  ['BDF 5', 51.84],
  ['BDF 6', 17.84],
] as const)(
  '%s is A(alpha)-stable with alpha = %f degrees (Hairer and Wanner, table V.2.3)',
  (name, alpha) => {
    const formula = MULTISTEP.find((one) => one.name === name)!;
    const { stability } = inspectedText(`start with RK8\n${formulaTexts(formula)[0]!}`);
    expect(stability?.alpha).toBeCloseTo(alpha, 2);
    expect(stability?.aStable).toBe(false);
  },
);

test.each(ROSENBROCK.map((one) => [one.name, one] as const))(
  '%s is analysed with the exact Jacobian and with any matrix',
  (_, { text, order, anyJacobian, lStable }) => {
    const found = inspectedText(text);
    expect(found.kind).toBe('Rosenbrock');
    expect(found.order).toMatchObject({ order });
    expect(found.ordersOn.anyJacobian).toBe(anyJacobian);
    expect(found.stability).toMatchObject({ aStable: true, lStable });
  },
);

test.each([
  ['SSP(3,3)', 1],
  ['SSP(3,2)', 2],
  ['SSP(4,3)', 2],
  ['Kutta, order 4', 0],
] as const)('the SSP coefficient of %s is %f', (name, coefficient) => {
  const tableau = EXPLICIT.find((one) => one.name === name)!;
  expect(inspectedText(textOf(tableau, LAYOUTS[0]!)).properties.ssp).toBeCloseTo(coefficient, 6);
});

test.each([
  // stage order, symplectic, symmetric, |R(infinity)|, Pade approximant (Hairer and Wanner, IV.5; Hairer, Lubich, Wanner)
  ['Gauss 3', 3, true, true, 1, [3, 3]],
  ['Radau IIA 3', 3, false, false, 0, [2, 3]],
  ['Radau IA 2', 1, false, false, 0, [1, 2]],
  ['Lobatto IIIA 3', 3, false, true, 1, [2, 2]],
  ['Lobatto IIIB 3', 1, false, true, 1, [2, 2]],
  ['Lobatto IIIC 3', 2, false, false, 0, [1, 3]],
] as const)(
  '%s: stage order %i, symplectic %s, symmetric %s',
  (name, q, symplectic, symmetric, infinity, pade) => {
    const tableau = IMPLICIT.find((one) => one.name === name)!;
    const { properties, stability } = inspectedText(textOf(tableau, LAYOUTS[0]!));
    expect(properties).toMatchObject({ stageOrder: q, symplectic, symmetric });
    expect(stability?.atInfinity).toBeCloseTo(infinity, 9);
    const [numerator, denominator] = pade;
    expect(stability?.pade).toEqual({ numerator, denominator });
  },
);

/** Gauss method of five stages, order 10: nodes in closed form, weights as integrals of Lagrange polynomials. */
function gauss5(): PublishedTableau {
  const nodes = [-1, 1].flatMap((sign) =>
    [-1, 1].map((inner) => (sign * Math.sqrt(5 + 2 * inner * Math.sqrt(10 / 7))) / 3),
  );
  const c = [...nodes, 0].sort((a, b) => a - b).map((x) => (1 + x) / 2);
  // the integral of the j-th Lagrange polynomial from 0 to a time, from its coefficients
  const integral = (j: number, to: number): number => {
    let polynomial = [1];
    c.forEach((node, k) => {
      if (k === j) return;
      const scale = c[j]! - node;
      const next: number[] = Array.from({ length: polynomial.length + 1 }, () => 0);
      polynomial.forEach((a, i) => {
        next[i]! -= (a * node) / scale;
        next[i + 1]! += a / scale;
      });
      polynomial = next;
    });
    return polynomial.reduce((sum, a, i) => sum + (a * to ** (i + 1)) / (i + 1), 0);
  };
  // the sums above are right to about fifteen digits
  const text = (value: number): string => value.toPrecision(13);
  return {
    name: 'Gauss 5',
    order: 10,
    c: c.map(text),
    A: c.map((ci) => c.map((_, j) => text(integral(j, ci)))),
    b: c.map((_, j) => text(integral(j, 1))),
  };
}

test('orders above those of the trees follow from B(p), C(q) and D(r)', () => {
  const found = inspectedText(textOf(gauss5(), LAYOUTS[0]!));
  expect(found.withinDigits?.proof).toMatchObject({ order: 10, atLeast: false });
  expect(found.properties).toMatchObject({ stageOrder: 5, symplectic: true, symmetric: true });
});

test.each([
  ['Taylor 2', 'y[n+1] = y + h*f(t, y) + h^2/2*(f_t(t, y) + f_y(t, y)*f(t, y))', 2, 1],
  [
    'Taylor 3',
    'k = f(t, y)\nd = f_t(t, y) + f_y(t, y)*k\ny[n+1] = y + h*k + h^2/2*d + h^3/6*(f_tt(t, y) + 2*f_ty(t, y)*k + f_yy(t, y)*k^2 + f_y(t, y)*d)',
    3,
    1.7320508,
  ],
  [
    // products of the same derivatives count together: 4 f_yy f_y f^2 stands for two elementary differentials
    'Taylor 4, one autonomous equation',
    'k = f(t, y)\nJ = f_y(t, y)\ny[n+1] = y + h*k + h^2/2*J*k + h^3/6*(f_yy(t, y)*k^2 + J^2*k) + h^4/24*(f_yyy(t, y)*k^3 + 4*J*f_yy(t, y)*k^2 + J^3*k)',
    4,
    2.8284271,
  ],
] as const)('%s in partial derivatives has its order and stability', (_, text, order, imaginary) => {
  const { ordersOn, stability } = inspectedText(text);
  expect(ordersOn.autonomous).toBe(order);
  expect(ordersOn.linear).toBe(order);
  // of order 2 nothing on the axis is stable
  expect(stability?.imaginary).toBe(order === 2 ? 0 : imaginary);
});

test('the two-step formula of Stormer has an order, and the root condition of second-order equations', () => {
  const { order, orderWithoutVelocity } = inspectedText(
    'x[n+1] = 2*x - x[n-1] + h^2*a(t, x, v)\nv[n+1] = (3*x[n+1] - 4*x + x[n-1])/(2*h)',
  );
  expect(orderWithoutVelocity).toMatchObject({ order: 2, zero: { stable: true } });
  expect(order).toMatchObject({ order: 2 });
  const growing = inspectedText('x[n+1] = 3*x - 2*x[n-1] + h^2*a(t, x, v)\nv[n+1] = (x[n+1] - x)/h');
  expect(growing.order?.zero?.stable).not.toBe(true);
});

test('the kind and the tableau do not depend on the order of terms', () => {
  const one = inspectedText('solve y[n+1] = y + h/2*(f(t, y) + f(t + h, y[n+1]))');
  const other = inspectedText('solve y[n+1] = y + h/2*(f(t + h, y[n+1]) + f(t, y))');
  expect(other.kind).toBe('diagonally implicit Runge-Kutta');
  expect(other.tableau).toEqual(one.tableau);
});
