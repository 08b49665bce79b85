import { findInLibrary } from '../../method/library/find-method.ts';
import { LIBRARY } from '../../method/library/library.ts';
import type { Method } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import { inspectMethod } from '../inspect-method.ts';
import { complex } from './complex.ts';
import { regionPicture } from './region.ts';
import { eigenvalues, largestStep, spectrumAlong } from './spectrum.ts';

const polynomialOf = (title: string) => inspectMethod(findInLibrary(title)!).stability!.polynomial;

function parsedMethod(text: string): Method {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error('a text of the library');
  return reading.value;
}

test('the Jacobian of a damped oscillator has the eigenvalues of its characteristic equation', () => {
  // r^2 + 0.3 r + 2.89 = 0
  const reading = parseProblem("x'' = -0.3*x' - 1.7^2*x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1");
  if (!reading.ok) throw new Error('text');
  const found = spectrumAlong(reading.value, () => 1, [0, 0.5]);
  expect(found).toHaveLength(4);
  for (const { re, im } of found) {
    expect(re).toBeCloseTo(-0.15, 12);
    expect(Math.abs(im)).toBeCloseTo(Math.sqrt(2.89 - 0.0225), 12);
  }
});

test('eigenvalues of a triangular matrix are its diagonal, a zero among them', () => {
  const rows = [
    [-50, 3, 1],
    [0, -2, 7],
    [0, 0, 0],
  ].map((row) => Float64Array.from(row));
  expect(
    eigenvalues(rows)
      .map(({ re }) => Math.round(re * 1e6) / 1e6)
      .sort((a, b) => a - b),
  ).toEqual([-50, -2, 0]);
});

test.each([
  ['RK4', complex(-50), 2.785294 / 50],
  // the classical limit of oscillations, 2 sqrt(2)
  ['RK4', complex(0, 100), (2 * Math.SQRT2) / 100],
  // |1 + h lambda| <= 1: h <= 2 |Re| / |lambda|^2
  ['Euler', complex(-1, 10), 2 / 101],
] as const)('the largest stable h of %s', (title, eigenvalue, h) => {
  expect(largestStep(polynomialOf(title), eigenvalue)! / h).toBeCloseTo(1, 5);
});

test('there is no end for an A-stable method, and nothing is reported of a motion that grows itself', () => {
  expect(largestStep(polynomialOf('Backward Euler'), complex(-1, 40))).toBe(Infinity);
  expect(largestStep(polynomialOf('RK4'), complex(0.5, 1))).toBeNull();
});

test("the edge of Euler's region is the circle about -1", () => {
  const { stability } = inspectMethod(findInLibrary('Euler')!);
  const pieces = regionPicture(stability!).edge;
  expect(pieces.length).toBeGreaterThan(60);
  for (const [x, y] of pieces) expect(Math.hypot(x + 1, y)).toBeCloseTo(1, 2);
});

/** The method of a stability polynomial: z^k/k! up to an order, and terms beyond that are damped by a factor. */
function damped(degree: number, order: number, factor: number): string {
  let [text, factorial] = ['y[n+1] = y', 1];
  for (let k = 1; k <= degree; k += 1) {
    factorial *= k;
    const coefficient = factor ** Math.max(0, k - order) / factorial;
    text += ` + h^${k}*${coefficient}*f${"'".repeat(k - 1)}(t, y)`;
  }
  return text;
}

const PICTURES: readonly (readonly [name: string, text: string])[] = [
  ...LIBRARY.map(({ title, text }) => [title, text] as const),
  ['Taylor 10', damped(10, 10, 1)],
  // their regions reach further off the real axis than along it
  ['degree 7 and order 1', damped(7, 1, 0.5)],
  ['degree 8 and order 4', damped(8, 4, 0.7)],
];

test.each(PICTURES)('the picture of %s shows its whole region where that is bounded', (_, text) => {
  const { stability } = inspectMethod(parsedMethod(text));
  if (stability === null || stability.aStable || !Number.isFinite(stability.real)) return;
  const { box, edge } = regionPicture(stability);
  const near = (box.top - box.bottom) / 100;
  for (const [x1, y1, x2, y2] of edge)
    for (const [x, y] of [
      [x1, y1],
      [x2, y2],
    ] as const) {
      expect(Math.abs(y)).toBeLessThan(box.top - near);
      expect(x).toBeGreaterThan(box.left + near);
    }
});
