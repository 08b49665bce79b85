import { exactCheckSentence } from '../../problem/check-exact.ts';
import { atTime, type TimeAxis, timeTexts } from '../../problem/time-text.ts';
import { typedCheckSentence } from '../../reference/check-typed.ts';
import { count, counted, fixed, raised, rangeText, stepSizeText } from '../../text/number-text.ts';
import type { FactOf, FindingKind } from './facts.ts';
import type { Cause, OrderTrend, Figures, ExpectedOrder, Ranged, ReferenceFigures } from './figures.ts';
import { allSteps, factor, large, number, steps, time, titleList } from './finding-words.ts';

const SLIP = 'check for a missing h, a wrong index or a wrong weight';

/** Kinks of the right-hand side along the solution, as the end of a sentence; '' where there are none. */
function kinksText(kinks: readonly number[], axis: TimeAxis): string {
  const { independent } = axis;
  const [first, second, ...more] = timeTexts(kinks, axis);
  if (first === undefined) return '';
  if (second === undefined) return `; the right-hand side has a kink or jump at ${independent} = ${first}`;
  const rest = more.length > 0 ? ` and ${more.length} more` : '';
  return `; the right-hand side has kinks or jumps at ${independent} = ${first}, ${second}${rest}`;
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

const GOES = {
  rising: ', increasing',
  falling: ', decreasing',
  steady: '',
  'up and down': ', up and down',
} as const;

/** The orders from one step size to the next and where they go. */
function orderTrendText({ orders, goes }: OrderTrend): string {
  return `between successive h: ${orders.map((order) => fixed(order, 2)).join(', ')}${GOES[goes]}`;
}

/** That an order agrees with what it is held against. */
function agreesText({ value, promised, by }: ExpectedOrder & Ranged): string {
  const which = Math.abs(value - promised) > 0.05 ? ` for small h: ${promised}` : '';
  switch (by) {
    case 'theory here':
      return `as predicted for this problem${which}`;
    case 'proof':
      return `as expected${which}`;
    case 'trial':
      return `as observed on test problems${which}`;
  }
}

/** What an order is held against, as the end of "where". */
function expectedOrderText({ promised, by, local }: ExpectedOrder): string {
  if (local) return `${promised} is expected of the local error`;
  switch (by) {
    case 'theory here':
      return `${promised} is predicted for this problem`;
    case 'proof':
      return `${promised} is expected`;
    case 'trial':
      return `${promised} is observed on test problems`;
  }
}

/** Why an order is another than expected, as the end of a sentence; '' where that is not known. */
function causeText(cause: Cause): string {
  switch (cause.kind) {
    case 'zero':
      return `; the leading term of order ${cause.order} is zero where the error is taken`;
    case 'kinks':
      return kinksText(cause.kinks, cause.axis);
    case 'starter':
      return `; the starting method ${cause.name} has a local error of order ${cause.order + 1}`;
    case 'typed':
      return `; ${cause.derivative} as typed is not the derivative of the right-hand side`;
    case 'decay':
      return `; the smallest h is still ${number(cause.times)} times the fastest time constant 1/${time(cause.rate)}`;
    case 'unknown':
      return '';
  }
}

/** An observed order, and of what it is. */
function orderText(figures: Ranged & ExpectedOrder): string {
  return `${figures.local ? 'order of the local error' : 'order'} ${rangeText(figures)}`;
}

/** An order that is another than expected, for a reason. */
function anotherText(figures: Figures['order lost']): string {
  return `${orderText(figures)}, where ${expectedOrderText(figures)}${causeText(figures.cause)}`;
}

const NO_ORDER = {
  orders: '',
  'not yet': 'not yet in the asymptotic range: ',
  unknown: 'the order cannot be estimated: ',
} as const;

function formulaText({ diverges, by, root }: Figures['formula']): string {
  if (by === 'trial')
    return diverges
      ? `errors grow as h decreases, also on a test system: the method as typed is unstable; ${SLIP}`
      : `the method as typed does not converge, not even on a test system: ${SLIP}`;
  if (!diverges) return `the method as typed has order 0 (proved from its text): ${SLIP}`;
  const why =
    root !== null && root > 1.000_01
      ? `a root of modulus ${number(root)} lies outside the unit circle`
      : 'a double root lies on the unit circle';
  return `the method as typed is not zero-stable (proved from its text): ${why}, and errors grow as h decreases; ${SLIP}`;
}

const ENDINGS = {
  leaves: 'the solution overflows',
  singular: 'the right-hand side has no Taylor series',
  stuck: 'too many steps are needed',
} as const;

const REFERENCES = {
  taylor: 'Taylor series of order 24',
  'fine steps': 'RK4 with small steps',
  decimals: 'Taylor series with as many digits as the runs',
} as const;

function referenceText(figures: ReferenceFigures): string {
  switch (figures.kind) {
    case 'none':
      return `no exact solution is given, and no reference can be computed: the right-hand side has no Taylor series at ${atTime(figures.axis.start, figures.axis)}; see the columns that need no exact solution`;
    case 'reached':
      return `from N = ${count(figures.steps)} on, the error of the reference dominates; it is accurate to ${number(figures.error)}`;
    case 'whole': {
      const { by, error, broken, axis, ended, someInDecimals } = figures;
      const how = REFERENCES[by];
      const digits = someInDecimals
        ? '; those of runs with decimal digits to a Taylor series with as many digits'
        : '';
      const kinks = broken ? ', restarted at every kink or jump of the right-hand side' : '';
      const until =
        ended === null ? '' : `; the reference ends at ${atTime(ended.t, axis)}: ${ENDINGS[ended.why]}`;
      return `no exact solution is given; errors are relative to a reference solution (${how}${kinks}; relative accuracy about ${number(error)})${digits}${until}`;
    }
  }
}

/** Beyond that many times the root of the number of steps, roundings have been amplified. */
const AMPLIFIED = 1000;

/** Part of an error from which on rounding dominates it, and does not only show in it. */
const DOMINATES = 0.5;

function floorText({ steps: n, rounding, error, roundings, least }: Figures['floor']): string {
  const amplified = roundings > AMPLIFIED * Math.sqrt(n) ? `, amplified ${large(roundings)} times` : '';
  return `from N = ${count(n)} on, rounding error ${rounding < DOMINATES * error ? 'shows' : 'dominates'}: about ${number(rounding)}${amplified}, compared with an error of ${number(error)}; the smallest error is ${number(least.error)} at N = ${count(least.steps)}`;
}

function leftText({ sizes, step, t, stage, why, axis }: Figures['left the numbers']): string {
  return step === 0
    ? `cannot be run at ${steps(sizes)}: ${why}`
    : `stops at ${steps(sizes)}: step ${count(step)} from ${atTime(t, axis)}, ${stage}: ${why}`;
}

/** Excluded step sizes, with the methods of which they are where they are not of all: `Euler and Heun at h = 2`. */
function excludedText(of: Figures['coarse']['of']): string {
  return of
    .map(({ titles, sizes }) =>
      titles.length === 0 ? steps(sizes) : `${titleList(titles)} at ${steps(sizes)}`,
    )
    .join('; ');
}

function comparisonText({ wished, needs, short }: Figures['comparison']): string {
  const list = needs.map(({ title, evaluations, atMost, isCoarsest }, i) => {
    const least = atMost ? 'at most' : 'about';
    const why = atMost && isCoarsest ? ' (already reached at the largest h)' : '';
    return `${title} ${i === 0 ? 'needs ' : ''}${least} ${count(evaluations)}${i === 0 ? ' evaluations' : ''}${why}`;
  });
  const verb = short.length === 1 ? 'does' : 'do';
  const missing = short.length === 0 ? '' : `; ${short.join(', ')} ${verb} not reach it`;
  return `for an error of ${time(wished)}, ${list.join(', ')}${missing}`;
}

/** The sentence of each kind of finding, from its figures alone. */
const SENTENCES: { readonly [K in FindingKind]: (figures: Figures[K]) => string } = {
  'wrong exact': (figures) =>
    `${exactCheckSentence({ ...figures.axis, equations: figures.equations }, figures.check)}; errors are not assessed against it`,
  refused: ({ why }) => `cannot be run on this problem: ${why}`,
  'left the numbers': leftText,
  formula: formulaText,
  'as promised': (figures) =>
    `${orderText(figures)}, ${agreesText(figures)}${figures.goes === 'steady' ? '' : `; ${orderTrendText(figures)}`}`,
  'no order': (figures) =>
    `${NO_ORDER[figures.says]}${orderTrendText(figures)}; ${expectedOrderText(figures)}${causeText(figures.cause)}`,
  'two rungs': ({ order }) =>
    `slope ${fixed(order, 2)} from two step sizes only; an order estimate needs three`,
  'better than promised': anotherText,
  predicted: ({ h, off, order, constant }) =>
    `at h = ${stepSizeText(h)} the error is within ${percent(off)} of the predicted leading term ${number(constant)} h${order === 1 ? '' : raised(order)}`,
  'leading sign': ({ axis, t }) =>
    `the leading term of the error changes sign near ${atTime(t, axis)}; for small h the error passes through zero there`,
  'leading zero': ({ order, general }) =>
    `the leading term vanishes on this problem: order ${order} is predicted here, ${general} in general`,
  'order lost': anotherText,
  'not yet': (figures) =>
    `${orderTrendText(figures)}; at h = ${stepSizeText(figures.h)} the error is ${large(figures.times)} times the leading term of order ${figures.order}: not yet in the asymptotic range`,
  unstable: ({ sizes, limit, decay, growth, h }) => {
    const grows =
      growth === null
        ? ''
        : `: at h = ${stepSizeText(h)} an error in this mode is multiplied by ${factor(growth)} per step`;
    return limit === 0
      ? `the method is unstable for every h on a decay, here of rate ${time(decay)}${grows}`
      : `${allSteps(sizes)} ${sizes.length === 1 ? 'exceeds' : 'exceed'} the stability limit ${time(limit)}/${time(decay)} = ${time(limit / decay)}`;
  },
  oscillation: ({ sizes, re, im, growth, h }) =>
    `at ${steps(sizes)}, h times the eigenvalue ${eigenvalueText(re, im)} lies outside the stability region: at h = ${stepSizeText(h)} an error in this mode is multiplied by ${factor(growth)} per step, although the mode itself does not grow`,
  large: ({ sizes, error, swing }) =>
    `at ${steps(sizes)} the error is larger than the solution: up to ${number(error)}, and the solution reaches ${time(swing)}`,
  damped: ({ sizes, times, steps: all }) =>
    `at ${steps(sizes)} Newton's method converges only with damping: ${times === 1 ? 'once' : `${count(times)} times`} in ${count(all)} ${all === 1 ? 'step' : 'steps'}`,
  leap: ({ sizes, leap: { step, t, h, component, from, to }, axis }) =>
    `at ${steps(sizes)} Newton's method converges to another solution branch: in step ${count(step)}${sizes.length > 1 ? ` at h = ${stepSizeText(sizes[0] ?? NaN)}` : ''}, from ${atTime(t, axis)}, ${component} jumps from ${number(from)} to ${number(to)} where the step size passes ${number(h)}`,
  coarse: ({ of }) => `outside the asymptotic range and excluded from the fit: ${excludedText(of)}`,
  'same grid': ({ sizes, h }) =>
    `${steps(sizes)} ${sizes.length === 1 ? 'gives' : 'give'} the same grid as h = ${stepSizeText(h)} and ${sizes.length === 1 ? 'is' : 'are'} excluded from the fit`,
  'typed derivative': (figures) => typedCheckSentence(figures.axis, { ...figures, agrees: false }),
  'last step': ({ remark, more }) =>
    more === 0
      ? remark
      : `${remark}; ${more === 1 ? 'one more does' : `${more} more do`} not divide it either`,
  time: ({ sizes, remark }) => `at ${steps(sizes)}: ${remark}`,
  sign: ({ between: [one, other] }) =>
    `the error changes sign between h = ${stepSizeText(one)} and ${stepSizeText(other)}; it passes through zero there`,
  digits: ({ digits, defect, order, exact, h }) =>
    `from h = ${stepSizeText(h)} on, the rounding of the coefficients shows in the error: they have ${counted(digits, 'digit')} (defect ${number(defect)}); the order is ${order} within these digits, and taken exactly ${exact < 1 ? 'the method does not converge' : `it is ${exact}`}`,
  'near zero': ({ axis, t, value }) =>
    `the exact value at ${atTime(t, axis)} is ${number(value)}, close to zero, where the relative error means little`,
  floor: floorText,
  'rounding part': ({ steps: n, rounding, error, digits }) =>
    `at N = ${count(n)} the rounding error is ${number(rounding)}, compared with an error of ${number(error)}; it is the difference from the same run ${digits === null ? 'in double precision' : `with ${count(digits)} digits`}`,
  reference: referenceText,
  'rounding only': () => 'at every h the error is of the size of rounding error',
  'no relative error': ({ axis, t }) =>
    `the solution is 0 at ${atTime(t, axis)}: the relative error is undefined there, and so are its maximum and mean`,
  struck: ({ of }) => `excluded manually: ${excludedText(of)}`,
  comparison: comparisonText,
};

/** A text as a sentence: with a capital, unless it begins with a symbol such as `h = 0.5` or `y''`, and a full stop. */
function asSentence(text: string): string {
  const begun = /^\w+(?: =|')/.test(text) ? text : text.charAt(0).toUpperCase() + text.slice(1);
  return begun.endsWith('.') ? begun : `${begun}.`;
}

/** A fact as a sentence: the one place where findings become sentences. */
export function sentenceOf<K extends FindingKind>({ kind, figures }: FactOf<K>): string {
  return asSentence(SENTENCES[kind](figures));
}
