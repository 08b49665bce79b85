import type { FactOf, FindingKind } from './facts.ts';
import type { Figures } from './figures.ts';
import { number, steps, time } from './finding-words.ts';
import { RULES } from './rules/rules.ts';
import { sentenceOf } from './sentences.ts';

function said<K extends FindingKind>(kind: K, figures: Figures[K]): string {
  const fact: FactOf<K> = { kind, rungs: [], tone: 'plain', figures };
  return sentenceOf(fact);
}

const RANGE = { value: 3.02, low: 2.95, high: 3.09 };
const PROOF = { promised: 4, by: 'proof', local: false } as const;
const COURSE = { orders: [3.5, 3.2, 3.1], goes: 'falling' } as const;

test('every kind of finding has a rule', () => {
  for (const rule of Object.values(RULES))
    expect(rule.ofMethod ?? rule.eachOfMethod ?? rule.ofStudy).toBeDefined();
});

test.each<[string, string]>([
  [
    said('refused', { why: 'it is of another form' }),
    'Cannot be run on this problem: it is of another form.',
  ],
  [
    said('left the numbers', {
      sizes: [0.5, 0.25],
      step: 1200,
      t: 1.23456,
      stage: 'k2',
      why: 'sqrt(-1) is not a real number',
      axis: { independent: 'x', start: 0, end: 8 },
    }),
    'Stops at h = 0.5 and 0.25: step 1,200 from x = 1.235, k2: sqrt(-1) is not a real number.',
  ],
  [
    said('left the numbers', {
      sizes: [0.5],
      step: 0,
      t: 0,
      stage: 'start',
      why: 'too few steps',
      axis: { independent: 't', start: 0, end: 8 },
    }),
    'Cannot be run at h = 0.5: too few steps.',
  ],
  [
    said('as promised', { ...RANGE, promised: 3, by: 'proof', local: false, ...COURSE }),
    'Order 3.02 (2.95 to 3.09), as expected; between successive h: 3.50, 3.20, 3.10, decreasing.',
  ],
  [
    said('as promised', {
      value: 3.2,
      low: 2.7,
      high: 3.7,
      promised: 3,
      by: 'trial',
      local: false,
      orders: [3, 3],
      goes: 'steady',
    }),
    'Order 3.2 (2.7 to 3.7), as observed on test problems for small h: 3.',
  ],
  [
    said('as promised', {
      ...RANGE,
      promised: 3,
      by: 'theory here',
      local: false,
      orders: [3, 3],
      goes: 'steady',
    }),
    'Order 3.02 (2.95 to 3.09), as predicted for this problem.',
  ],
  [
    said('two rungs', { order: 1.987 }),
    'Slope 1.99 from two step sizes only; an order estimate needs three.',
  ],
  [
    said('damped', { sizes: [1, 0.5], times: 1, steps: 3 }),
    "At h = 1 and 0.5 Newton's method converges only with damping: once in 3 steps.",
  ],
  [
    said('leap', {
      sizes: [2, 1],
      leap: { step: 3, t: 4, h: 1.02041, component: 'y', from: 0.111111, to: -0.0898 },
      axis: { independent: 'x', start: 0, end: 8 },
    }),
    "At h = 2 and 1 Newton's method converges to another solution branch: in step 3 at h = 2, from x = 4, y jumps from 0.111 to -0.0898 where the step size passes 1.02.",
  ],
  [
    said('no order', {
      ...COURSE,
      ...PROOF,
      says: 'unknown',
      cause: {
        kind: 'kinks',
        kinks: [1 / 3, 1 / 3 + 1e-9],
        axis: { independent: 't', start: 0, end: 8 },
      },
    }),
    'The order cannot be estimated: between successive h: 3.50, 3.20, 3.10, decreasing; 4 is expected; the right-hand side has a kink or jump at t = 0.333.',
  ],
  [
    said('no order', { ...COURSE, ...PROOF, says: 'not yet', cause: { kind: 'unknown' } }),
    'Not yet in the asymptotic range: between successive h: 3.50, 3.20, 3.10, decreasing; 4 is expected.',
  ],
  [
    said('no order', {
      ...COURSE,
      ...PROOF,
      says: 'orders',
      cause: { kind: 'decay', times: 5, rate: 40 },
    }),
    'Between successive h: 3.50, 3.20, 3.10, decreasing; 4 is expected; the smallest h is still 5.00 times the fastest time constant 1/40.',
  ],
  [
    said('order lost', {
      ...RANGE,
      ...PROOF,
      cause: { kind: 'kinks', kinks: [1, 2, 3, 4], axis: { independent: 't', start: 0, end: 8 } },
    }),
    'Order 3.02 (2.95 to 3.09), where 4 is expected; the right-hand side has kinks or jumps at t = 1, 2 and 2 more.',
  ],
  [
    said('order lost', { ...RANGE, ...PROOF, cause: { kind: 'starter', name: 'Euler', order: 1 } }),
    'Order 3.02 (2.95 to 3.09), where 4 is expected; the starting method Euler has a local error of order 2.',
  ],
  [
    said('order lost', { ...RANGE, ...PROOF, cause: { kind: 'decay', times: 2.5, rate: 50 } }),
    'Order 3.02 (2.95 to 3.09), where 4 is expected; the smallest h is still 2.50 times the fastest time constant 1/50.',
  ],
  [
    said('order lost', {
      ...RANGE,
      promised: 4,
      by: 'theory here',
      local: false,
      cause: { kind: 'unknown' },
    }),
    'Order 3.02 (2.95 to 3.09), where 4 is predicted for this problem.',
  ],
  [
    said('not yet', { ...COURSE, order: 4, h: 0.01, times: 148_307 }),
    'Between successive h: 3.50, 3.20, 3.10, decreasing; at h = 0.01 the error is 1.48×10⁵ times the leading term of order 4: not yet in the asymptotic range.',
  ],
  [
    said('unstable', { sizes: [0.06], limit: 2, decay: 50, growth: 2, h: 0.06 }),
    'h = 0.06 exceeds the stability limit 2/50 = 0.04.',
  ],
  [
    said('unstable', { sizes: [0.06, 0.05, 0.045], limit: 2, decay: 50, growth: null, h: 0.045 }),
    'h = 0.06, 0.05 and 0.045 exceed the stability limit 2/50 = 0.04.',
  ],
  [
    said('unstable', { sizes: [0.001], limit: 0, decay: 2, growth: 1.000_020_3, h: 0.001 }),
    'The method is unstable for every h on a decay, here of rate 2: at h = 0.001 an error in this mode is multiplied by 1.00002 per step.',
  ],
  [
    said('unstable', { sizes: [0.06], limit: 0, decay: 50, growth: 1.0345, h: 0.06 }),
    'The method is unstable for every h on a decay, here of rate 50: at h = 0.06 an error in this mode is multiplied by 1.03 per step.',
  ],
  [
    said('large', { sizes: [1, 0.5], error: 77.2, swing: 1.99999 }),
    'At h = 1 and 0.5 the error is larger than the solution: up to 77.2, and the solution reaches 2.',
  ],
  [
    said('coarse', { of: [{ titles: [], sizes: [1] }] }),
    'Outside the asymptotic range and excluded from the fit: h = 1.',
  ],
  [
    said('coarse', {
      of: [
        { titles: ['Euler'], sizes: [2, 1] },
        { titles: ['Heun', 'RK4'], sizes: [2] },
      ],
    }),
    'Outside the asymptotic range and excluded from the fit: Euler at h = 2 and 1; Heun and RK4 at h = 2.',
  ],
  [
    said('same grid', { sizes: [0.31], h: 1 / 3 }),
    'h = 0.31 gives the same grid as h = 0.333333 and is excluded from the fit.',
  ],
  [
    said('typed derivative', {
      derivative: "level''",
      axis: { independent: 't', start: 0, end: 8 },
      t: 1.5,
      typed: 0.2,
      made: 0.06125,
    }),
    "level'' as typed is 0.2 at t = 1.5, but the derivative computed from the right-hand side is 0.06125 there.",
  ],
  [
    said('last step', { remark: 'h = 0.3 does not divide the interval.', more: 0 }),
    'h = 0.3 does not divide the interval.',
  ],
  [
    said('last step', { remark: 'h = 0.3 does not', more: 2 }),
    'h = 0.3 does not; 2 more do not divide it either.',
  ],
  [
    said('time', { sizes: [0.3], remark: 't = 1 is not a grid point' }),
    'At h = 0.3: t = 1 is not a grid point.',
  ],
  [
    said('sign', { between: [0.25, 0.125] }),
    'The error changes sign between h = 0.25 and 0.125; it passes through zero there.',
  ],
  [
    said('near zero', { axis: { independent: 't', start: 0, end: 8 }, t: Math.PI, value: 1.2246e-16 }),
    'The exact value at t = 3.142 is 1.22×10⁻¹⁶, close to zero, where the relative error means little.',
  ],
  [
    said('floor', {
      steps: 4096,
      rounding: 2e-16,
      error: 5e-16,
      roundings: 12,
      least: { error: 3e-18, steps: 8192 },
    }),
    'From N = 4,096 on, rounding error shows: about 2.00×10⁻¹⁶, compared with an error of 5.00×10⁻¹⁶; the smallest error is 3.00×10⁻¹⁸ at N = 8,192.',
  ],
  [
    said('floor', {
      steps: 64,
      rounding: 1.49e-4,
      error: 2e-4,
      roundings: 1.34e12,
      least: { error: 1e-6, steps: 64 },
    }),
    'From N = 64 on, rounding error dominates: about 1.49×10⁻⁴, amplified 1.34×10¹² times, compared with an error of 2.00×10⁻⁴; the smallest error is 1.00×10⁻⁶ at N = 64.',
  ],
  [
    said('rounding part', { steps: 1024, rounding: 3.1e-15, error: 4e-15, digits: 34 }),
    'At N = 1,024 the rounding error is 3.10×10⁻¹⁵, compared with an error of 4.00×10⁻¹⁵; it is the difference from the same run with 34 digits.',
  ],
  [
    said('rounding part', { steps: 12, rounding: 0.01, error: 0.02, digits: null }),
    'At N = 12 the rounding error is 0.0100, compared with an error of 0.0200; it is the difference from the same run in double precision.',
  ],
  [
    said('reference', {
      kind: 'whole',
      by: 'decimals',
      error: 5.2e-43,
      broken: false,
      someInDecimals: false,
      axis: { independent: 't', start: 0, end: 2 },
      ended: null,
    }),
    'No exact solution is given; errors are relative to a reference solution (Taylor series with as many digits as the runs; relative accuracy about 5.20×10⁻⁴³).',
  ],
  [
    said('reference', {
      kind: 'whole',
      by: 'taylor',
      error: 2e-16,
      broken: false,
      someInDecimals: true,
      axis: { independent: 't', start: 0, end: 2 },
      ended: null,
    }),
    'No exact solution is given; errors are relative to a reference solution (Taylor series of order 24; relative accuracy about 2.00×10⁻¹⁶); those of runs with decimal digits to a Taylor series with as many digits.',
  ],
  [
    said('reference', { kind: 'reached', steps: 256, error: 3e-12 }),
    'From N = 256 on, the error of the reference dominates; it is accurate to 3.00×10⁻¹².',
  ],
  [
    said('reference', { kind: 'none', axis: { independent: 'x', start: 0, end: 1 } }),
    'No exact solution is given, and no reference can be computed: the right-hand side has no Taylor series at x = 0; see the columns that need no exact solution.',
  ],
  [
    said('reference', {
      kind: 'whole',
      by: 'taylor',
      error: 2e-16,
      broken: true,
      someInDecimals: false,
      axis: { independent: 't', start: 0, end: 8 },
      ended: { t: 0.999, why: 'leaves' },
    }),
    'No exact solution is given; errors are relative to a reference solution (Taylor series of order 24, restarted at every kink or jump of the right-hand side; relative accuracy about 2.00×10⁻¹⁶); the reference ends at t = 0.999: the solution overflows.',
  ],
  [
    said('reference', {
      kind: 'whole',
      by: 'fine steps',
      error: 1e-9,
      broken: false,
      someInDecimals: false,
      axis: { independent: 't', start: 0, end: 8 },
      ended: null,
    }),
    'No exact solution is given; errors are relative to a reference solution (RK4 with small steps; relative accuracy about 1.00×10⁻⁹).',
  ],
  [said('rounding only', {}), 'At every h the error is of the size of rounding error.'],
  [said('struck', { of: [{ titles: [], sizes: [0.5] }] }), 'Excluded manually: h = 0.5.'],
  [
    said('comparison', {
      wished: 0.001,
      needs: [
        { title: 'RK4', evaluations: 32, atMost: true, isCoarsest: true },
        { title: 'Heun', evaluations: 1200, atMost: false, isCoarsest: false },
      ],
      short: ['Euler'],
    }),
    'For an error of 0.001, RK4 needs at most 32 evaluations (already reached at the largest h), Heun about 1,200; Euler does not reach it.',
  ],
  [
    said('formula', { diverges: true, by: 'trial', root: null }),
    'Errors grow as h decreases, also on a test system: the method as typed is unstable; check for a missing h, a wrong index or a wrong weight.',
  ],
  [
    said('formula', { diverges: true, by: 'proof', root: 1 }),
    'The method as typed is not zero-stable (proved from its text): a double root lies on the unit circle, and errors grow as h decreases; check for a missing h, a wrong index or a wrong weight.',
  ],
  [
    said('formula', { diverges: false, by: 'proof', root: null }),
    'The method as typed has order 0 (proved from its text): check for a missing h, a wrong index or a wrong weight.',
  ],
  [
    said('no relative error', { axis: { independent: 'x', start: 0, end: 8 }, t: 0 }),
    'The solution is 0 at x = 0: the relative error is undefined there, and so are its maximum and mean.',
  ],
  [
    said('better than promised', {
      ...RANGE,
      promised: 2,
      by: 'proof',
      local: false,
      cause: { kind: 'zero', order: 2 },
    }),
    'Order 3.02 (2.95 to 3.09), where 2 is expected; the leading term of order 2 is zero where the error is taken.',
  ],
])('%s', (sentence, expected) => {
  expect(sentence).toBe(expected);
});

test('quantities, times and step sizes as a reader wants them', () => {
  expect([number(0.0557), number(2.36e-14), number(-1e-20), number(0)]).toEqual([
    '0.0557',
    '2.36×10⁻¹⁴',
    '-1.00×10⁻²⁰',
    '0',
  ]);
  expect([time(1 / 3), time(2), time(1e-5)]).toEqual(['0.333', '2', '0.00001']);
  expect([steps([]), steps([0.5]), steps([0.5, 0.25, 0.125, 0.0625])]).toEqual([
    'h = ',
    'h = 0.5',
    'h = 0.5, 0.25 and 2 more',
  ]);
});
