import type { FactOf, FindingKind } from './facts.ts';
import type { Figures } from './figures.ts';
import { number, steps, time } from './finding-words.ts';
import { RULES } from './rules/rules.ts';
import { sentenceOf } from './sentences.ts';

function said<K extends FindingKind>(kind: K, figures: Figures[K]): string {
  const fact: FactOf<K> = { kind, rungs: [], tone: 'plain', figures };
  return sentenceOf(fact);
}

const SLOPE = { order: 3.02, standardError: 0.011, promised: 4 };

test('every kind of finding has a rule', () => {
  for (const rule of Object.values(RULES)) expect(rule.ofMethod ?? rule.ofStudy).toBeDefined();
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
    said('as promised', { ...SLOPE, order: 3.99, count: 5, here: false, agrees: true }),
    'order 3.99 ± 0.02 over 5 rungs, as the formula promises',
  ],
  [
    said('as promised', { ...SLOPE, count: 5, here: false, agrees: false }),
    'order 3.02 ± 0.02 over 5 rungs, near the 4 that the formula promises for small h',
  ],
  [said('two rungs', { order: 1.987 }), 'slope 1.99 between two rungs; a third is needed to trust it'],
  [
    said('scattered', { ...SLOPE, standardError: 0.4, kinks: [1 / 3], independent: 't' }),
    'the errors scatter too far about their line, slope 3.0 ± 0.4, for an order; the rate has a kink at t = 0.333',
  ],
  [
    said('scattered', { ...SLOPE, standardError: 0.4, kinks: [], independent: 't' }),
    'the errors scatter too far about their line, slope 3.0 ± 0.4, for an order',
  ],
  [
    said('order lost', { ...SLOPE, cause: { kind: 'kinks', kinks: [1, 2, 3, 4], independent: 't' } }),
    'order lost: 3.02 ± 0.02, where the formula promises 4; the rate has kinks at t = 1, 2 and 2 more',
  ],
  [
    said('order lost', { ...SLOPE, cause: { kind: 'starter', name: 'Euler', order: 1 } }),
    'order 3.02 ± 0.02 instead of 4: started with Euler, whose local error of order 2 shows',
  ],
  [
    said('order lost', { ...SLOPE, cause: { kind: 'decay', times: 2.5, rate: 50 } }),
    'order 3.02 ± 0.02, where the formula promises 4; the finest h is still 2.50 times 1/50, the time of the fastest decay',
  ],
  [
    said('order lost', { ...SLOPE, cause: { kind: 'unknown' } }),
    'order 3.02 ± 0.02, where the formula promises 4',
  ],
  [
    said('not yet', { ...SLOPE, finest: 3.7 }),
    'order 3.02 ± 0.02 so far, 3.70 at the finest rungs, on the way to the 4 that the formula promises: take smaller h',
  ],
  [
    said('unstable', { sizes: [0.06], limit: 2, decay: 50 }),
    'h = 0.06 is beyond the stability limit 2/50 = 0.04',
  ],
  [
    said('unstable', { sizes: [0.06, 0.05, 0.045], limit: 2, decay: 50 }),
    'h = 0.06, 0.05 and one more are beyond the stability limit 2/50 = 0.04',
  ],
  [said('coarse', { sizes: [1] }), 'h = 1 lies off the line of the finer rungs and is left out of the order'],
  [
    said('coarse', { sizes: [1, 0.5] }),
    'h = 1 and 0.5 lie off the line of the finer rungs and are left out of the order',
  ],
  [
    said('typed derivative', { derivative: "level''", independent: 't', t: 1.5, typed: 0.2, made: 0.06125 }),
    "level'' as typed is 0.2 at t = 1.5, but the derivative made from the rate is 0.06125 there",
  ],
  [
    said('last step', { remark: 'h = 0.3 does not divide the interval', more: 0 }),
    'h = 0.3 does not divide the interval',
  ],
  [said('last step', { remark: 'h = 0.3 does not', more: 2 }), 'h = 0.3 does not; so it is with 2 more'],
  [said('time', { sizes: [0.3], remark: 't = 1 is no grid point' }), 'at h = 0.3: t = 1 is no grid point'],
  [
    said('sign', { between: [0.25, 0.125] }),
    'the error changes its sign between h = 0.25 and 0.125, so that it is small there by chance',
  ],
  [
    said('near zero', { independent: 't', t: Math.PI, value: 1.2246e-16 }),
    'the exact value at t = 3.14 is 1.22×10⁻¹⁶, next to zero: relative errors there say little',
  ],
  [said('floor', { steps: 4096, best: null }), 'the floor of rounding is reached at N = 4,096'],
  [
    said('floor', {
      steps: 512,
      best: { own: { error: 2e-14, h: 0.01 }, other: { error: 1e-6, h: 0.1 }, otherPrecision: 'single' },
    }),
    'the floor of rounding is reached at N = 512; the least error, by C h^p + R/h^q, is 2.00×10⁻¹⁴ at h = 0.0100; in single precision 1.00×10⁻⁶ at h = 0.100',
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
      ended: { t: 0.999, stuck: false },
    }),
    'no exact solution is given; errors are against a reference by Taylor series of order 24, broken at every kink of the rate, exact to about 2.00×10⁻¹⁶ of its size; it ends at t = 0.999, where the solution leaves the numbers',
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
        { title: 'RK4', evaluations: 32 },
        { title: 'Heun', evaluations: 1200 },
      ],
      short: ['Euler'],
    }),
    'for an error of 0.001, RK4 needs 32 evaluations, Heun 1,200; Euler do not come so far',
  ],
  [
    said('formula', { diverges: true }),
    'the errors of the formula as typed grow as h falls, on a test system too: it is not stable; look for a forgotten h, a wrong index or a wrong weight',
  ],
  [
    said('better than promised', { ...SLOPE, order: 5.01 }),
    'order 5.01 ± 0.02 here, better than the 4 that the formula has on problems in general',
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
