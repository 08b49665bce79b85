import { findInLibrary } from '../../method/library/find-method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { inspectMethod, type Stability } from '../inspect-method.ts';
import { complex, rootsOf, sizeOf } from './complex.ts';
import { regionPicture } from './region.ts';
import { growthAt } from './stability-limits.ts';
import { zTex } from './z-polynomial.ts';

function stabilityOf(title: string): Stability {
  const { stability } = inspectMethod(findInLibrary(title)!);
  if (stability === null) throw new Error(title);
  return stability;
}

test.each([
  // real, imaginary
  ['Euler', 2, 0],
  ['Heun', 2, 0],
  ['Kutta 3', 2.512745, Math.sqrt(3)],
  ['RK4', 2.785294, 2 * Math.SQRT2],
  ['Adams-Bashforth 2', 1, 0],
  ['Adams-Bashforth 3', 6 / 11, 0.723627],
  ['Adams-Bashforth 4', 3 / 10, 0.429987],
  ['Adams-Bashforth 5', 0.163339, 0],
  ['Adams-Bashforth 6', 0.087719, 0],
  ['Leapfrog', 0, 1],
  ['Adams-Moulton 2, predicted', 2, 1.287189],
  ['Backward Euler', Infinity, Infinity],
  ['Trapezoidal rule', Infinity, Infinity],
] as const)('%s is stable up to %d on the real and %d on the imaginary axis', (title, real, imaginary) => {
  const found = stabilityOf(title);
  if (real === Infinity) expect(found).toMatchObject({ real, imaginary });
  else {
    expect(found.real).toBeCloseTo(real, 5);
    expect(found.imaginary).toBeCloseTo(imaginary, 5);
  }
});

test.each([
  ['Backward Euler', true, true],
  ['Trapezoidal rule', true, false],
  ['Implicit midpoint', true, false],
  ['Gauss 2', true, false],
  ['BDF 2', true, true],
  ['RK4', false, false],
] as const)('%s: A-stable %s, L-stable %s', (title, aStable, lStable) => {
  expect(stabilityOf(title)).toMatchObject({ aStable, lStable });
});

test.each([
  ['RK4', '1', '1 + z + \\tfrac{1}{2}z^{2} + \\tfrac{1}{6}z^{3} + \\tfrac{1}{24}z^{4}'],
  ['Trapezoidal rule', '1 - \\tfrac{1}{2}z', '1 + \\tfrac{1}{2}z'],
  ['Backward Euler', '1 - z', '1'],
  ['Taylor 2', '1', '1 + z + \\tfrac{1}{2}z^{2}'],
] as const)('R(z) of %s', (title, below, above) => {
  const { polynomial } = stabilityOf(title);
  expect(zTex(polynomial.below)).toBe(below);
  expect(zTex(polynomial.above[0]!)).toBe(above);
});

test('growth over one step is that of a run: (1 + h lambda)^N, and the roots of a two-step formula', () => {
  const z = complex(-0.3, 0.8);
  expect(growthAt(stabilityOf('Euler').polynomial, z)).toBeCloseTo(sizeOf(complex(0.7, 0.8)), 14);
  // leapfrog: r^2 - 2 z r - 1 = 0
  const z0 = complex(0.5);
  expect(growthAt(stabilityOf('Leapfrog').polynomial, z0)).toBeCloseTo(0.5 + Math.sqrt(1.25), 12);
});

test('roots of a polynomial, double ones as well', () => {
  // (z - 1)(z + 2)(z^2 + 1)
  const roots = rootsOf([-2, 1, -1, 1, 1].map((c) => complex(c)));
  const found = roots.map(({ re, im }) =>
    `${Math.round(re * 1e9) / 1e9}/${Math.round(im * 1e9) / 1e9}`.replaceAll('-0/', '0/'),
  );
  expect(new Set(found)).toEqual(new Set(['1/0', '-2/0', '0/1', '0/-1'].map((text) => text)));
});

test('a damped oscillator is inside where its spiral is, on the edge where it is not', () => {
  const two = inspectMethod(
    (() => {
      const reading = parseMethod('k1 = f(t, y)\ny[n+1] = y + h*k1');
      if (!reading.ok) throw new Error('text');
      return reading.value;
    })(),
  ).stability!.polynomial;
  expect(growthAt(two, complex(-1, 0.5))).toBeLessThan(1);
  expect(growthAt(two, complex(-0.1, 0.9))).toBeGreaterThan(1);
});

test('the hatching runs through the stable side from edge to edge: of Euler through the disc about -1', () => {
  const { hatching, box } = regionPicture(stabilityOf('Euler'));
  expect(hatching.length).toBeGreaterThan(7);
  for (const [x1, y, x2] of hatching) {
    const half = Math.sqrt(Math.max(0, 1 - y * y));
    expect(Math.abs(x1 - (-1 - half))).toBeLessThan(0.05);
    expect(Math.abs(x2 - (-1 + half))).toBeLessThan(0.05);
  }
  // an unbounded region is hatched beyond the sides of the picture
  const backward = regionPicture(stabilityOf('Backward Euler'));
  expect(backward.hatching.some(([x1, , x2]) => x1 < backward.box.left && x2 > backward.box.right)).toBe(
    true,
  );
  expect(box.left).toBeLessThan(-2);
});

test('a limit on the imaginary axis has its digits also where growth is slight: order 7 in the exponential series', () => {
  // 1 + z + ... + z^7/5040: |R(iy)|^2 - 1 begins with y^8, and the end of stability is the root of a polynomial
  const text =
    "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y) + h^4/24*f'''(t, y) + h^5/120*f''''(t, y) + h^6/720*f'''''(t, y) + h^7/5040*f''''''(t, y)";
  const reading = parseMethod(text);
  const { stability } = inspectMethod(reading.ok ? reading.value : findInLibrary('Euler')!);
  const square = (y: number): number => {
    let [re, im, term] = [0, 0, 1];
    for (let k = 0; k <= 7; k += 1) {
      if (k % 2 === 0) re += (k % 4 === 0 ? 1 : -1) * term;
      else im += (k % 4 === 1 ? 1 : -1) * term;
      term *= y / (k + 1);
    }
    return re * re + im * im;
  };
  const limit = stability!.imaginary;
  expect(limit).toBeGreaterThan(1);
  expect(square(limit * (1 - 1e-6))).toBeLessThan(1);
  expect(square(limit * (1 + 1e-6))).toBeGreaterThan(1);
});

test.each([
  ['Semi-implicit Euler', 2],
  ['Semi-implicit Euler, position first', 2],
  ['Velocity Verlet', 2],
] as const)("%s is stable on x'' = -w^2 x for h w up to %d", (title, limit) => {
  const { properties } = inspectMethod(findInLibrary(title)!);
  expect(properties.oscillation).toBeCloseTo(limit, 6);
});

test("a step of Nystrom's method on x'' = -w^2 x grows behind its limit and not before", () => {
  const { properties } = inspectMethod(findInLibrary('Nystrom 4')!);
  // the steps by hand: k_i = -w^2 times the position of the stage, with h = 1
  const growth = (w: number): number => {
    let [x, v] = [1, 0.3];
    let size = 0;
    for (let n = 0; n < 4000; n += 1) {
      const a = (at: number): number => -w * w * at;
      const k1 = a(x);
      const k2 = a(x + v / 2 + k1 / 8);
      const k3 = a(x + v / 2 + k1 / 8);
      const k4 = a(x + v + k3 / 2);
      [x, v] = [x + v + (k1 + k2 + k3) / 6, v + (k1 + 2 * k2 + 2 * k3 + k4) / 6];
      size = Math.hypot(x, v);
      if (!(size < 1e6)) return Infinity;
    }
    return size;
  };
  const limit = properties.oscillation!;
  expect(growth(limit * 1.01)).toBe(Infinity);
  expect(growth(limit * 0.99)).toBeLessThan(10);
});
