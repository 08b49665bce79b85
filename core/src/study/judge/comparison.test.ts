import { compare } from './comparison.ts';
import type { MethodResult, RungResult } from './method-result.ts';

/** A method with the error C h^p on 0..1, of so many evaluations a step. */
function method(constant: number, order: number, stages: number, sizes: readonly number[]): MethodResult {
  const rungs = sizes.map((h, rung): RungResult => {
    const error = constant * h ** order;
    const steps = Math.round(1 / h);
    return {
      ...{
        rung,
        h,
        wished: h,
        steps,
        divides: true,
        shorter: null,
        t: 1,
        values: [1],
        decimals: null,
        taken: null,
        rounding: null,
      },
      ...{ errorAtEnd: null, drift: {}, stopped: null, damped: 0, leap: null, remark: null, leftOut: null },
      cost: { f: stages * steps, derivatives: [], newton: 0, seconds: 0 },
      ...{ error, digits: -Math.log10(error), places: null, ratio: null, order: null, extrapolated: null },
    };
  });
  return {
    title: '',
    rungs,
    fit: null,
    order: null,
    promised: { kind: 'unknown' },
    predicted: null,
    leadingZero: false,
    refused: null,
  };
}

const SIZES = [0.1, 0.05, 0.02, 0.01, 0.005];
const EULER = method(0.5, 1, 1, SIZES);
const FOURTH = method(2, 4, 4, SIZES);

test('what each method needs for an error lies on the line between its rungs', () => {
  const { wished, needs, short } = compare([EULER, FOURTH], 0.01)!;
  expect(wished).toBe(0.01);
  expect(short).toEqual([]);
  // 2 h^4 = 2e-4 at the coarsest rung already: it needs at most what that costs; 0.5 h = 0.01 at h = 0.02
  expect(needs).toEqual([
    { method: 1, h: 0.1, steps: 10, evaluations: 40, atMost: true, isCoarsest: true },
    { method: 0, h: 0.02, steps: 50, evaluations: 50, atMost: false, isCoarsest: false },
  ]);
  const between = compare([EULER, FOURTH], 1e-5)!;
  const [need] = between.needs;
  expect(between.short).toEqual([0]);
  expect(between.needs).toHaveLength(1);
  expect(need!.h).toBeCloseTo((1e-5 / 2) ** 0.25, 10);
  expect(need!.steps).toBe(Math.ceil((2 / 1e-5) ** 0.25));
  expect(need!.evaluations).toBe(Math.ceil(4 * (2 / 1e-5) ** 0.25));
});

test('nothing is concluded between rungs that are not on one expansion: a method needs at most what the finer one costs', () => {
  const [coarse, ...others] = FOURTH.rungs;
  const early = { ...FOURTH, rungs: [{ ...coarse!, leftOut: { kind: 'coarse' } as const }, ...others] };
  const { needs } = compare([EULER, early], 1e-4)!;
  // 2 h^4 = 1e-4 between h = 0.1 and 0.05, and 1.25e-5 at 0.05
  expect(needs).toEqual([
    { method: 1, h: 0.05, steps: 20, evaluations: 80, atMost: true, isCoarsest: false },
  ]);
});

test('without a target, a round error that every method reaches between its rungs', () => {
  // Euler reaches 0.0025 and the other is at 2e-4 at its coarsest: nothing in common, the smallest that all reach
  const apart = compare([EULER, FOURTH], null)!;
  expect(apart.wished).toBe(0.005);
  expect(apart.needs.map(({ atMost }) => atMost)).toEqual([true, false]);
  // with the other at 0.032 and less, a power of ten; with 0.0064, only 0.005 is between
  expect(compare([EULER, method(2, 4, 4, [0.4, ...SIZES])], null)!.wished).toBe(0.01);
  expect(compare([EULER, method(4, 4, 4, [0.2, ...SIZES])], null)!.wished).toBe(0.005);
  expect(compare([method(0.2, 1, 1, SIZES), FOURTH], null)!.wished).toBe(0.001);
});

test('at one step, and at one cost', () => {
  const { equalStep, equalCost } = compare([EULER, FOURTH], null)!;
  expect(equalStep!.h).toBe(0.005);
  expect(equalStep!.errors.map(({ method: of }) => of)).toEqual([1, 0]);
  expect(equalStep!.errors[1]!.error).toBe(0.0025);
  // Euler's dearest rung costs 200: the other has h = 4/200 there
  expect(equalCost!.evaluations).toBe(200);
  expect(equalCost!.errors.map(({ error }) => error)).toEqual([
    expect.closeTo(2 * 0.02 ** 4, 12),
    expect.closeTo(0.0025, 12),
  ]);
  const other = method(2, 4, 4, [0.3, 0.07]);
  expect(compare([EULER, other], null)!.equalStep).toBeNull();
});

test('errors that go up and down are not compared, nor those as large as the value itself', () => {
  const bent = method(0.5, 1, 1, [0.2, 0.1, 0.05]);
  const worse = bent.rungs.map((rung, i) => (i === 1 ? { ...rung, error: 0.2 } : rung));
  expect(compare([{ ...bent, rungs: worse }, FOURTH], 0.05)).toBeNull();
  expect(compare([bent, FOURTH], 0.05)).not.toBeNull();
  const huge = method(9, 1, 1, [0.2, 0.15]);
  expect(compare([huge, FOURTH], null)).toBeNull();
});

test('nothing is taken from between rungs with one between them that left the numbers', () => {
  const [a, b, c, d] = method(0.5, 1, 1, [0.4, 0.2, 0.1, 0.05]).rungs;
  const large = { ...b!, error: 50, digits: -2, leftOut: { kind: 'large' } as const };
  const list = [{ ...EULER, rungs: [a!, large, c!, d!] }, FOURTH];
  // 0.15 lies between h = 0.4 and 0.1 alone
  expect(compare(list, 0.15)!.needs.find(({ method: of }) => of === 0)).toMatchObject({
    atMost: true,
    isCoarsest: false,
    h: 0.1,
  });
});
