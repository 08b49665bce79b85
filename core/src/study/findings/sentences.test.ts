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
const PROOF = { promised: 4, by: 'proof' } as const;
const COURSE = { orders: [3.5, 3.2, 3.1], goes: 'falling' } as const;

test('every kind of finding has a rule', () => {
  for (const rule of Object.values(RULES))
    expect(rule.ofMethod ?? rule.eachOfMethod ?? rule.ofStudy).toBeDefined();
});

test.each<[string, string]>([
  [said('refused', { why: 'it is of another form' }), 'cannot be run on this problem: it is of another form'],
  [
    said('left the numbers', {
      sizes: [0.5, 0.25],
      step: 1200,
      t: 1.23456,
      stage: 'k2',
      why: 'sqrt(-1) is not a real number',
      independent: 'x',
    }),
    'leaves the numbers at h = 0.5 and 0.25: in step 1,200 from x = 1.23, k2: sqrt(-1) is not a real number',
  ],
  [
    said('left the numbers', {
      sizes: [0.5],
      step: 0,
      t: 0,
      stage: 'start',
      why: 'too few steps',
      independent: 't',
    }),
    'cannot be run at h = 0.5: too few steps',
  ],
  [
    said('as promised', { ...RANGE, promised: 3, by: 'proof', ...COURSE }),
    'order 3.02 (2.95 to 3.09), as the formula promises; from rung to rung 3.50, 3.20, 3.10, falling',
  ],
  [
    said('as promised', {
      value: 3.2,
      low: 2.7,
      high: 3.7,
      promised: 3,
      by: 'trial',
      orders: [3, 3],
      goes: 'steady',
    }),
    'order 3.2 (2.7 to 3.7), as trial runs of the formula show for small h: 3',
  ],
  [
    said('as promised', { ...RANGE, promised: 3, by: 'theory here', orders: [3, 3], goes: 'steady' }),
    'order 3.02 (2.95 to 3.09), as theory says on this problem',
  ],
  [
    said('slope', { order: 4.1666, standardError: 0.028, count: 5 }),
    'slope by least squares 4.17 ± 0.03 over 5 rungs',
  ],
  [
    said('two rungs', { order: 1.987 }),
    'slope 1.99 between the two rungs that count; an order takes a third',
  ],
  [
    said('damped', { sizes: [1, 0.5], times: 1, steps: 3 }),
    "at h = 1 and 0.5 Newton's method converges only where its corrections are halved: once in 3 steps",
  ],
  [
    said('leap', {
      sizes: [2, 1],
      leap: { step: 3, t: 4, h: 1.02041, component: 'y', from: 0.111111, to: -0.0898 },
      independent: 'x',
    }),
    "at h = 2 and 1 Newton's method takes a solution that does not grow out of the values before: in step 3 at h = 2, from x = 4, y leaps from 0.111 to -0.0898 as the size of that step passes 1.02",
  ],
  [
    said('no order', { ...COURSE, ...PROOF, range: null, kinks: [1 / 3, 1 / 3 + 1e-9], independent: 't' }),
    'no order can be told: from rung to rung 3.50, 3.20, 3.10, falling; the formula promises 4; the rate has a kink or a jump at t = 0.333',
  ],
  [
    said('no order', { ...COURSE, ...PROOF, range: RANGE, kinks: [], independent: 't' }),
    'order 3.02 (2.95 to 3.09) so far: from rung to rung 3.50, 3.20, 3.10, falling; the formula promises 4',
  ],
  [
    said('order lost', {
      ...RANGE,
      ...PROOF,
      cause: { kind: 'kinks', kinks: [1, 2, 3, 4], independent: 't' },
    }),
    'order 3.02 (2.95 to 3.09), where the formula promises 4; the rate has kinks or jumps at t = 1, 2 and 2 more',
  ],
  [
    said('order lost', { ...RANGE, ...PROOF, cause: { kind: 'starter', name: 'Euler', order: 1 } }),
    'order 3.02 (2.95 to 3.09), where the formula promises 4; it is started with Euler, whose local error is of order 2',
  ],
  [
    said('order lost', { ...RANGE, ...PROOF, cause: { kind: 'decay', times: 2.5, rate: 50 } }),
    'order 3.02 (2.95 to 3.09), where the formula promises 4; the finest h is still 2.50 times 1/50, the time of the fastest decay',
  ],
  [
    said('order lost', { ...RANGE, promised: 4, by: 'theory here', cause: { kind: 'unknown' } }),
    'order 3.02 (2.95 to 3.09), where theory says 4 on this problem',
  ],
  [
    said('not yet', { ...COURSE, order: 4, h: 0.01, times: 148_307 }),
    'from rung to rung 3.50, 3.20, 3.10, falling; at h = 0.01 the error is 1.48×10⁵ times its leading term, which is of order 4: other terms still rule it',
  ],
  [
    said('unstable', { sizes: [0.06], limit: 2, decay: 50, growth: 2, h: 0.06 }),
    'h = 0.06 is beyond the stability limit 2/50 = 0.04',
  ],
  [
    said('unstable', { sizes: [0.06, 0.05, 0.045], limit: 2, decay: 50, growth: null, h: 0.045 }),
    'h = 0.06, 0.05 and one more are beyond the stability limit 2/50 = 0.04',
  ],
  [
    said('unstable', { sizes: [0.06], limit: 0, decay: 50, growth: 1.0345, h: 0.06 }),
    'the formula is stable at no h for a decay, here of rate 50: at h = 0.06 an error of it is multiplied by 1.03 a step',
  ],
  [
    said('large', { sizes: [1, 0.5], error: 77.2, swing: 1.99999 }),
    'at h = 1 and 0.5 the error is larger than the solution itself: up to 77.2, and the solution comes to 2',
  ],
  [
    said('coarse', { sizes: [1] }),
    'h = 1 is not yet on the expansion of the error that the finer rungs show, and does not count for the slope',
  ],
  [
    said('same grid', { sizes: [0.31], h: 1 / 3 }),
    'h = 0.31 comes to the same grid as another rung, h = 0.333333, which counts once',
  ],
  [
    said('typed derivative', { derivative: "level''", independent: 't', t: 1.5, typed: 0.2, made: 0.06125 }),
    "level'' as typed is 0.2 at t = 1.5, but the derivative made from the rate is 0.06125 there",
  ],
  [
    said('last step', { remark: 'h = 0.3 does not divide the interval', more: 0 }),
    'h = 0.3 does not divide the interval',
  ],
  [
    said('last step', { remark: 'h = 0.3 does not', more: 2 }),
    'h = 0.3 does not; 2 more do not divide it either',
  ],
  [said('time', { sizes: [0.3], remark: 't = 1 is no grid point' }), 'at h = 0.3: t = 1 is no grid point'],
  [
    said('sign', { between: [0.25, 0.125] }),
    'the error changes its sign between h = 0.25 and 0.125, so that it is small near there by chance',
  ],
  [
    said('near zero', { independent: 't', t: Math.PI, value: 1.2246e-16 }),
    'the exact value at t = 3.14 is 1.22×10⁻¹⁶, next to zero: relative errors there say little',
  ],
  [
    said('floor', {
      steps: 4096,
      rounding: 2e-16,
      error: 5e-16,
      roundings: 12,
      least: { error: 3e-18, steps: 8192 },
    }),
    'from N = 4,096 on a good part of the error is rounding: about 2.00×10⁻¹⁶, beside an error of 5.00×10⁻¹⁶ there; the least error of the table is 3.00×10⁻¹⁸, at N = 8,192',
  ],
  [
    said('floor', {
      steps: 64,
      rounding: 1.49e-4,
      error: 2e-4,
      roundings: 1.34e12,
      least: { error: 1e-6, steps: 64 },
    }),
    'from N = 64 on a good part of the error is rounding: about 1.49×10⁻⁴, which is 1.34×10¹² times one rounding of the solution, beside an error of 2.00×10⁻⁴ there; the least error of the table is 1.00×10⁻⁶, at N = 64',
  ],
  [
    said('reference', { kind: 'reached', steps: 256, error: 3e-12 }),
    'from N = 256 on errors are those of the reference, which is exact to 3.00×10⁻¹² only',
  ],
  [
    said('reference', { kind: 'none', independent: 'x', start: 0 }),
    'no exact solution is given, and no reference can be made: the rates have no series at x = 0; see the columns that need none',
  ],
  [
    said('reference', {
      kind: 'whole',
      by: 'taylor',
      error: 2e-16,
      broken: true,
      independent: 't',
      ended: { t: 0.999, why: 'leaves' },
    }),
    'no exact solution is given; errors are against a reference by Taylor series of order 24, broken at every kink or jump of the rate, exact to about 2.00×10⁻¹⁶ of its size; it ends at t = 0.999, where the solution leaves the numbers',
  ],
  [
    said('reference', {
      kind: 'whole',
      by: 'fine steps',
      error: 1e-9,
      broken: false,
      independent: 't',
      ended: null,
    }),
    'no exact solution is given; errors are against a reference by RK4 in many small steps, exact to about 1.00×10⁻⁹ of its size',
  ],
  [said('rounding only', {}), 'the errors are of the size of rounding at every h'],
  [said('struck', { sizes: [0.5] }), 'struck out by hand: h = 0.5'],
  [
    said('comparison', {
      wished: 0.001,
      needs: [
        { title: 'RK4', evaluations: 32, atMost: true },
        { title: 'Heun', evaluations: 1200, atMost: false },
      ],
      short: ['Euler'],
    }),
    'for an error of 0.001, RK4 needs at most 32 evaluations (its coarsest rung is as good already), Heun about 1,200; Euler does not come so far',
  ],
  [
    said('formula', { diverges: true, by: 'trial', root: null }),
    'the errors of the formula as typed grow as h falls, on a test system too: it is not stable; look for a forgotten h, a wrong index or a wrong weight',
  ],
  [
    said('formula', { diverges: true, by: 'proof', root: 1 }),
    'the formula as typed is not stable for any h, as is proved from its text: it has a double root on the unit circle, so that its errors grow as h falls; look for a forgotten h, a wrong index or a wrong weight',
  ],
  [
    said('formula', { diverges: false, by: 'proof', root: null }),
    'the formula as typed is of order 0, as is proved from its text: look for a forgotten h, a wrong index or a wrong weight',
  ],
  [
    said('no relative error', { independent: 'x', t: 0 }),
    'the solution is 0 at x = 0: a relative error has no value there, and so neither its maximum nor its mean has one',
  ],
  [
    said('better than promised', { ...RANGE, promised: 2, by: 'proof' }),
    'order 3.02 (2.95 to 3.09) here, where the formula promises 2',
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
