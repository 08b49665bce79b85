import { exactCheckSentence } from '../../problem/check-exact.ts';
import { typedCheckSentence } from '../../reference/check-typed.ts';
import { count, fixed, raised, rangeText, rounded, stepSizeText } from '../../text/number-text.ts';
import type { FactOf, FindingKind } from './facts.ts';
import type { Course, Figures, Promise, Ranged, ReferenceFigures } from './figures.ts';
import { large, number, steps, time } from './finding-words.ts';

const SLIP = 'look for a forgotten h, a wrong index or a wrong weight';

/** Kinks of the rate along the solution, as the end of a sentence; '' where there are none. */
function kinksText(kinks: readonly number[], independent: string): string {
  const [first, second, ...more] = [...new Set(kinks.map(time))];
  if (first === undefined) return '';
  if (second === undefined) return `; the rate has a kink or a jump at ${independent} = ${first}`;
  const rest = more.length > 0 ? ` and ${more.length} more` : '';
  return `; the rate has kinks or jumps at ${independent} = ${first}, ${second}${rest}`;
}

/** A pair of complex eigenvalues. */
function eigenvalueText(re: number, im: number): string {
  const size = `${time(Math.abs(im))}i`;
  return Math.abs(re) < 1e-6 * Math.abs(im) ? `±${size}` : `${time(re)} ± ${size}`;
}

/** A part as a percentage, rounded up to one that holds. */
function percent(part: number): string {
  const whole = 100 * part;
  return whole < 0.1
    ? '0.1 %'
    : whole < 1
      ? `${fixed(Math.ceil(10 * whole) / 10, 1)} %`
      : `${Math.ceil(whole)} %`;
}

/** A time that is known to about three digits. */
function significantTime(t: number): string {
  return time(rounded(t, 3));
}

/** A slope with its standard error, to the digits that this allows: 2.00 ± 0.01. */
function slopeText(slope: number, standardError: number): string {
  const digits = standardError < 0.005 ? 3 : standardError < 0.3 ? 2 : 1;
  const unit = Number(`1e-${digits}`);
  const error = Math.max(1, Math.ceil(standardError / unit - 1e-9)) * unit;
  return `${fixed(slope, digits)} ± ${fixed(error, digits)}`;
}

const GOES = {
  rising: ', rising',
  falling: ', falling',
  steady: '',
  'up and down': ', up and down',
} as const;

/** The orders from rung to rung and where they go. */
function courseText({ orders, goes }: Course): string {
  return `from rung to rung ${orders.map((order) => fixed(order, 2)).join(', ')}${GOES[goes]}`;
}

/** That an order agrees with what it is held against. */
function agreesText({ value, promised, by }: Promise & Ranged): string {
  const which = Math.abs(value - promised) > 0.05 ? ` for small h: ${promised}` : '';
  switch (by) {
    case 'theory here':
      return `as theory says on this problem${which}`;
    case 'proof':
      return `as the formula promises${which}`;
    case 'trial':
      return `as trial runs of the formula show${which}`;
  }
}

/** What an order is held against, as the end of "where". */
function promiseText({ promised, by }: Promise): string {
  switch (by) {
    case 'theory here':
      return `theory says ${promised} on this problem`;
    case 'proof':
      return `the formula promises ${promised}`;
    case 'trial':
      return `trial runs of the formula show ${promised}`;
  }
}

function lostText(figures: Figures['order lost']): string {
  const { cause } = figures;
  const lost = `order ${rangeText(figures)}, where ${promiseText(figures)}`;
  switch (cause.kind) {
    case 'kinks':
      return `${lost}${kinksText(cause.kinks, cause.independent)}`;
    case 'starter':
      return `${lost}; it is started with ${cause.name}, whose local error is of order ${cause.order + 1}`;
    case 'decay':
      return `${lost}; the finest h is still ${number(cause.times)} times 1/${time(cause.rate)}, the time of the fastest decay`;
    case 'unknown':
      return lost;
  }
}

function formulaText({ diverges, by, root }: Figures['formula']): string {
  if (by === 'trial')
    return diverges
      ? `the errors of the formula as typed grow as h falls, on a test system too: it is not stable; ${SLIP}`
      : `the formula as typed does not converge, on a test system either: ${SLIP}`;
  if (!diverges) return `the formula as typed is of order 0, as is proved from its text: ${SLIP}`;
  const why =
    root !== null && root > 1.000_01
      ? `it has a root of size ${number(root)} outside of the unit circle`
      : 'it has a double root on the unit circle';
  return `the formula as typed is not stable for any h, as is proved from its text: ${why}, so that its errors grow as h falls; ${SLIP}`;
}

const ENDINGS = {
  leaves: 'the solution leaves the numbers',
  singular: 'the rates have no series',
  stuck: 'it takes too many steps',
} as const;

function referenceText(figures: ReferenceFigures): string {
  switch (figures.kind) {
    case 'none':
      return `no exact solution is given, and no reference can be made: the rates have no series at ${figures.independent} = ${time(figures.start)}; see the columns that need none`;
    case 'reached':
      return `from N = ${count(figures.steps)} on errors are those of the reference, which is exact to ${number(figures.error)} only`;
    case 'whole': {
      const { by, error, broken, independent, ended } = figures;
      const how = by === 'taylor' ? 'Taylor series of order 24' : 'RK4 in many small steps';
      const kinks = broken ? ', broken at every kink or jump of the rate' : '';
      const until =
        ended === null ? '' : `; it ends at ${independent} = ${time(ended.t)}, where ${ENDINGS[ended.why]}`;
      return `no exact solution is given; errors are against a reference by ${how}${kinks}, exact to about ${number(error)} of its size${until}`;
    }
  }
}

/** Beyond that many times the root of the number of steps, roundings have been amplified. */
const AMPLIFIED = 1000;

function floorText({ steps: n, rounding, error, roundings, least }: Figures['floor']): string {
  const amplified =
    roundings > AMPLIFIED * Math.sqrt(n)
      ? `, which is ${large(roundings)} times one rounding of the solution`
      : '';
  return `from N = ${count(n)} on a good part of the error is rounding: about ${number(rounding)}${amplified}, beside an error of ${number(error)} there; the least error of the table is ${number(least.error)}, at N = ${count(least.steps)}`;
}

function leftText({ sizes, step, t, stage, why, independent }: Figures['left the numbers']): string {
  return step === 0
    ? `cannot be run at ${steps(sizes)}: ${why}`
    : `leaves the numbers at ${steps(sizes)}: in step ${count(step)} from ${independent} = ${time(t)}, ${stage}: ${why}`;
}

function comparisonText({ wished, needs, short }: Figures['comparison']): string {
  const list = needs.map(({ title, evaluations, atMost }, i) => {
    const least = atMost ? 'at most' : 'about';
    const why = atMost ? ' (its coarsest rung is as good already)' : '';
    return `${title} ${i === 0 ? 'needs ' : ''}${least} ${count(evaluations)}${i === 0 ? ' evaluations' : ''}${why}`;
  });
  const verb = short.length === 1 ? 'does' : 'do';
  const missing = short.length === 0 ? '' : `; ${short.join(', ')} ${verb} not come so far`;
  return `for an error of ${time(wished)}, ${list.join(', ')}${missing}`;
}

/** The sentence of each kind of finding, from its figures alone. */
const SENTENCES: { readonly [K in FindingKind]: (figures: Figures[K]) => string } = {
  'wrong exact': (figures) => `${exactCheckSentence(figures, figures.check)}; no method is judged by it`,
  refused: ({ why }) => `cannot be run on this problem: ${why}`,
  'left the numbers': leftText,
  formula: formulaText,
  'as promised': (figures) =>
    `order ${rangeText(figures)}, ${agreesText(figures)}${figures.goes === 'steady' ? '' : `; ${courseText(figures)}`}`,
  'no order': (figures) => {
    const range =
      figures.range === null ? 'no order can be told' : `order ${rangeText(figures.range)} so far`;
    return `${range}: ${courseText(figures)}; ${promiseText(figures)}${kinksText(figures.kinks, figures.independent)}`;
  },
  slope: ({ order, standardError, count: rungs }) =>
    `slope by least squares ${slopeText(order, standardError)} over ${rungs} rungs`,
  'two rungs': ({ order }) =>
    `slope ${fixed(order, 2)} between the two rungs that count; an order takes a third`,
  'better than promised': (figures) => `order ${rangeText(figures)} here, where ${promiseText(figures)}`,
  predicted: ({ h, off, order, constant }) =>
    `at h = ${stepSizeText(h)} the error is within ${percent(off)} of its leading term as theory says it, ${number(constant)} h${order === 1 ? '' : raised(order)}`,
  'leading sign': ({ independent, t }) =>
    `the leading term of the error changes its sign near ${independent} = ${significantTime(t)}: errors there are small by chance`,
  'leading zero': ({ order, general }) =>
    `the leading term is zero on this problem: order ${order} is what theory says here, and ${general} in general`,
  'order lost': lostText,
  'not yet': (figures) =>
    `${courseText(figures)}; at h = ${stepSizeText(figures.h)} the error is ${large(figures.times)} times its leading term, which is of order ${figures.order}: other terms still rule it`,
  unstable: ({ sizes, limit, decay, growth, h }) => {
    const grows =
      growth === null
        ? ''
        : `: at h = ${stepSizeText(h)} an error of it is multiplied by ${number(growth)} a step`;
    return limit === 0
      ? `the formula is stable at no h for a decay, here of rate ${time(decay)}${grows}`
      : `${steps(sizes)} ${sizes.length === 1 ? 'is' : 'are'} beyond the stability limit ${time(limit)}/${time(decay)} = ${time(limit / decay)}`;
  },
  oscillation: ({ sizes, re, im, growth, h }) =>
    `at ${steps(sizes)} the motion of eigenvalue ${eigenvalueText(re, im)} is outside the stability region: at h = ${stepSizeText(h)} an error of it is multiplied by ${number(growth)} a step, though the motion itself does not grow`,
  large: ({ sizes, error, swing }) =>
    `at ${steps(sizes)} the error is larger than the solution itself: up to ${number(error)}, and the solution comes to ${time(swing)}`,
  damped: ({ sizes, times, steps: all }) =>
    `at ${steps(sizes)} Newton's method converges only where its corrections are halved: ${times === 1 ? 'once' : `${count(times)} times`} in ${count(all)} ${all === 1 ? 'step' : 'steps'}`,
  leap: ({ sizes, leap: { step, t, h, component, from, to }, independent }) =>
    `at ${steps(sizes)} Newton's method takes a solution that does not grow out of the values before: in step ${count(step)}${sizes.length > 1 ? ` at h = ${stepSizeText(sizes[0] ?? NaN)}` : ''}, from ${independent} = ${time(t)}, ${component} leaps from ${number(from)} to ${number(to)} as the size of that step passes ${number(h)}`,
  coarse: ({ sizes }) =>
    `${steps(sizes)} ${sizes.length === 1 ? 'is' : 'are'} not yet on the expansion of the error that the finer rungs show, and ${sizes.length === 1 ? 'does' : 'do'} not count for the slope`,
  'same grid': ({ sizes, h }) =>
    `${steps(sizes)} ${sizes.length === 1 ? 'comes' : 'come'} to the same grid as another rung, h = ${stepSizeText(h)}, which counts once`,
  'typed derivative': (figures) => typedCheckSentence(figures, { ...figures, agrees: false }),
  'last step': ({ remark, more }) =>
    more === 0
      ? remark
      : `${remark}; ${more === 1 ? 'one more does' : `${more} more do`} not divide it either`,
  time: ({ sizes, remark }) => `at ${steps(sizes)}: ${remark}`,
  sign: ({ between: [one, other] }) =>
    `the error changes its sign between h = ${stepSizeText(one)} and ${stepSizeText(other)}, so that it is small near there by chance`,
  'near zero': ({ independent, t, value }) =>
    `the exact value at ${independent} = ${time(t)} is ${number(value)}, next to zero: relative errors there say little`,
  floor: floorText,
  reference: referenceText,
  'rounding only': () => 'the errors are of the size of rounding at every h',
  'no relative error': ({ independent, t }) =>
    `the solution is 0 at ${independent} = ${time(t)}: a relative error has no value there, and so neither its maximum nor its mean has one`,
  struck: ({ sizes }) => `struck out by hand: ${steps(sizes)}`,
  comparison: comparisonText,
};

/** A fact in words: the one place where findings become sentences. */
export function sentenceOf<K extends FindingKind>({ kind, figures }: FactOf<K>): string {
  return SENTENCES[kind](figures);
}
