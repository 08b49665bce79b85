import { LIBRARY } from '../../method/library/library.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { amountText } from '../form/amount.ts';
import { inspectMethod } from '../inspect-method.ts';
import { type Complex, complex, overComplex, polynomialAt, sizeOf } from './complex.ts';
import { orderStar, relativeGrowthAt } from './order-star.ts';
import { leadingTermTex, type LeadingTerm } from './phase-errors.ts';
import { regionPicture, regionsTogether } from './region.ts';
import type { StabilityPolynomial } from './stability-polynomial.ts';

/** One-step methods of the library whose stability function is known. */
const ONE_STEP = LIBRARY.flatMap(({ title }) => {
  const { stability } = inspectMethod(findInLibrary(title)!);
  return stability?.polynomial.above.length === 1 ? [{ title, ...stability }] : [];
});

function stabilityOf(title: string): (typeof ONE_STEP)[number] {
  return ONE_STEP.find((one) => one.title === title)!;
}

function R({ below, above }: StabilityPolynomial, z: Complex): Complex {
  const [over, under] = [above[0]!, below].map((p) =>
    polynomialAt(
      p.map(({ value }) => complex(value)),
      z,
    ),
  );
  return overComplex(over!, under!);
}

const at = ({ power, coefficient }: LeadingTerm, x: number): number => coefficient.value * x ** power;

test.each(ONE_STEP.map(({ title }) => title))(
  '%s errs on an oscillation as its leading terms say',
  (title) => {
    const { polynomial, phase } = stabilityOf(title);
    const { dissipation, dispersion } = phase!;
    // far enough from 0 that the error is above rounding; two points show that the rest falls with x^2
    const seen = [0.4, 0.2].map((x) => {
      const value = R(polynomial, complex(0, x));
      return { x, size: sizeOf(value) - 1, angle: Math.atan2(value.im, value.re) - x };
    });
    const isNear = (measured: number, expected: number, x: number): boolean =>
      Math.abs(measured - expected) < 4 * x * x * Math.abs(expected) + 2e-15;
    for (const { x, size, angle } of seen) {
      expect(isNear(size, dissipation === null ? 0 : at(dissipation, x), x)).toBe(true);
      expect(isNear(angle, at(dispersion!, x), x)).toBe(true);
    }
  },
);

test.each([
  ['RK4', '-1/144', 6, '-1/120', 5],
  ['Kutta 3', '-1/24', 4, '1/30', 5],
  ['Euler', '1/2', 2, '-1/3', 3],
] as const)('%s: |R(ix)| - 1 = %s x^%d, arg R(ix) - x = %s x^%d', (title, damped, p, turned, q) => {
  const { dissipation, dispersion } = stabilityOf(title).phase!;
  expect([amountText(dissipation!.coefficient), dissipation!.power]).toEqual([damped, p]);
  expect([amountText(dispersion!.coefficient), dispersion!.power]).toEqual([turned, q]);
});

test('a symmetric method damps no oscillation; a multistep method has no such terms', () => {
  const { dissipation, dispersion } = stabilityOf('Trapezoidal rule').phase!;
  expect(dissipation).toBeNull();
  expect(leadingTermTex(dispersion!)).toBe('-\\tfrac{1}{12}x^{3}');
  expect(inspectMethod(findInLibrary('BDF 2')!).stability!.phase).toBeNull();
});

test.each([
  ['Euler', 1],
  ['Kutta 3', 3],
  ['RK4', 4],
  ['RK8', 8],
  ['Backward Euler', 1],
  ['Gauss 2', 4],
])('p + 1 sectors of the order star of %s meet at the origin', (title, order) => {
  const { edge } = orderStar(stabilityOf(title))!;
  // far enough from the origin that several points of the grid lie in a sector
  const radius = 1;
  const crossing = edge.filter(
    ([x1, y1, x2, y2]) => Math.hypot(x1, y1) < radius !== Math.hypot(x2, y2) < radius,
  );
  expect(crossing).toHaveLength(2 * (order + 1));
});

test('an order star is hatched where R(z) is larger than exp(z), and bounded by places where both are equal', () => {
  const stability = stabilityOf('RK4');
  const { polynomial } = stability;
  const { edge, hatching, box } = orderStar(stability)!;
  expect(edge.length).toBeGreaterThan(100);
  for (const [x1, y1, x2, y2] of hatching) {
    const middle = R(polynomial, complex((x1 + x2) / 2, (y1 + y2) / 2));
    expect(sizeOf(middle)).toBeGreaterThan(Math.exp((x1 + x2) / 2) * (1 - 1e-9));
  }
  for (const [re, im] of edge)
    if (Math.hypot(re, im) < box.right / 2)
      expect(relativeGrowthAt(polynomial, { re, im })).toBeCloseTo(1, 1);
});

test('regions drawn together share a part of the plane that shows all of each', () => {
  const all = ['Euler', 'RK4', 'RK8'].map(stabilityOf);
  const pictures = regionsTogether(all);
  const [first] = pictures;
  pictures.forEach(({ box, edge }, i) => {
    const own = regionPicture(all[i]!).box;
    expect(box).toBe(first!.box);
    expect(edge.length).toBeGreaterThan(8);
    expect(box.left).toBeLessThanOrEqual(own.left);
    expect(box.top).toBeGreaterThanOrEqual(own.top);
    // Euler: the circle of radius 1 about -1
    if (i === 0) for (const [x, y] of edge) expect(Math.hypot(x + 1, y)).toBeCloseTo(1, 1);
  });
});
