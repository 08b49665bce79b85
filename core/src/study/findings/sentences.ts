import { exactCheckSentence } from '../../problem/check-exact.ts';
import { typedCheckSentence } from '../../reference/check-typed.ts';
import { count, fixed, orderText, raised, rounded, stepSizeText } from '../../text/number-text.ts';
import type { FactOf, FindingKind } from './facts.ts';
import type { Figures, ReferenceFigures } from './figures.ts';
import { number, steps, time } from './finding-words.ts';

const SLIP = 'look for a forgotten h, a wrong index or a wrong weight';

/** Kinks of the rate along the solution, as the end of a sentence; '' where there are none. */
function kinksText(kinks: readonly number[], independent: string): string {
  const [first, second, ...more] = kinks.map(time);
  if (first === undefined) return '';
  if (second === undefined) return `; the rate has a kink at ${independent} = ${first}`;
  const rest = more.length > 0 ? ` and ${more.length} more` : '';
  return `; the rate has kinks at ${independent} = ${first}, ${second}${rest}`;
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

function slopeText({
  order,
  standardError,
}: {
  readonly order: number;
  readonly standardError: number | null;
}): string {
  return orderText(order, standardError);
}

function lostText(figures: Figures['order lost']): string {
  const { promised, cause } = figures;
  const shown = slopeText(figures);
  switch (cause.kind) {
    case 'kinks':
      return `order lost: ${shown}, where the formula promises ${promised}${kinksText(cause.kinks, cause.independent)}`;
    case 'starter':
      return `order ${shown} instead of ${promised}: started with ${cause.name}, whose local error of order ${cause.order + 1} shows`;
    case 'decay':
      return `order ${shown}, where the formula promises ${promised}; the finest h is still ${number(cause.times)} times 1/${time(cause.rate)}, the time of the fastest decay`;
    case 'unknown':
      return `order ${shown}, where the formula promises ${promised}`;
  }
}

function referenceText(figures: ReferenceFigures): string {
  switch (figures.kind) {
    case 'none':
      return `no exact solution is given, and no reference can be made: the rates have no series at ${figures.independent} = ${time(figures.start)}; see the columns that need none`;
    case 'reached':
      return `from N = ${count(figures.steps)} on errors are those of the reference, which is exact to ${number(figures.error)} only`;
    case 'whole': {
      const { by, error, broken, independent, ended } = figures;
      const how = by === 'taylor' ? 'Taylor series of order 24' : 'RK4 in many small steps';
      const kinks = broken ? ', broken at every kink of the rate' : '';
      const until =
        ended === null
          ? ''
          : `; it ends at ${independent} = ${time(ended.t)}, where ${ended.stuck ? 'it needs too many steps' : 'the solution leaves the numbers'}`;
      return `no exact solution is given; errors are against a reference by ${how}${kinks}, exact to about ${number(error)} of its size${until}`;
    }
  }
}

function floorText({ steps: n, best }: Figures['floor']): string {
  const at = `the floor of rounding is reached at N = ${count(n)}`;
  if (best === null) return at;
  const least = ({ error, h }: typeof best.own): string => `${number(error)} at h = ${number(h)}`;
  return `${at}; the least error, by C h^p + R/h^q, is ${least(best.own)}; in ${best.otherPrecision} precision ${least(best.other)}`;
}

function leftText({ sizes, step, t, stage, why, independent }: Figures['left the numbers']): string {
  return step === 0
    ? `cannot be run at ${steps(sizes)}: ${why}`
    : `leaves the numbers at ${steps(sizes)}: in step ${count(step)} from ${independent} = ${time(t)}, ${stage}: ${why}`;
}

function comparisonText({ wished, needs, short }: Figures['comparison']): string {
  const [best, ...others] = needs;
  const rest = others.map(({ title, evaluations }) => `, ${title} ${count(evaluations)}`).join('');
  const missing = short.length === 0 ? '' : `; ${short.join(', ')} do not come so far`;
  return `for an error of ${time(wished)}, ${best?.title ?? ''} needs ${count(best?.evaluations ?? 0)} evaluations${rest}${missing}`;
}

/** The sentence of each kind of finding, from its figures alone. */
const SENTENCES: { readonly [K in FindingKind]: (figures: Figures[K]) => string } = {
  'wrong exact': (figures) => `${exactCheckSentence(figures, figures.check)}; no method is judged by it`,
  refused: ({ why }) => `cannot be run on this problem: ${why}`,
  'left the numbers': leftText,
  formula: ({ diverges }) =>
    diverges
      ? `the errors of the formula as typed grow as h falls, on a test system too: it is not stable; ${SLIP}`
      : `the formula as typed does not converge, on a test system either: ${SLIP}`,
  'as promised': (figures) => {
    const shown = `order ${slopeText(figures)} over ${figures.count} rungs`;
    return figures.agrees
      ? `${shown}, as ${figures.here ? 'theory says on this problem' : 'the formula promises'}`
      : `${shown}, near the ${figures.promised} that ${figures.here ? 'theory says on this problem' : 'the formula promises'} for small h`;
  },
  scattered: (figures) =>
    `the errors scatter too far about their line, slope ${slopeText(figures)}, for an order${kinksText(figures.kinks, figures.independent)}`,
  'two rungs': ({ order }) => `slope ${fixed(order, 2)} between two rungs; a third is needed to trust it`,
  'better than promised': (figures) =>
    `order ${slopeText(figures)} here, better than the ${figures.promised} that the formula has on problems in general`,
  predicted: ({ h, off, order, constant }) =>
    `at h = ${stepSizeText(h)} the error is within ${percent(off)} of its leading term as theory says it, ${number(constant)} h${order === 1 ? '' : raised(order)}`,
  'leading sign': ({ independent, t }) =>
    `the leading term of the error changes its sign near ${independent} = ${significantTime(t)}: errors there are small by chance`,
  'leading zero': ({ order, general }) =>
    `the leading term is zero on this problem: order ${order} is what theory says here, and ${general} in general`,
  'order lost': lostText,
  'not yet': (figures) =>
    `order ${slopeText(figures)} so far, ${fixed(figures.finest, 2)} at the finest rungs, on the way to the ${figures.promised} that the formula promises: take smaller h`,
  unstable: ({ sizes, limit, decay }) =>
    `${steps(sizes)} ${sizes.length === 1 ? 'is' : 'are'} beyond the stability limit ${time(limit)}/${time(decay)} = ${time(limit / decay)}`,
  oscillation: ({ sizes, re, im, growth, h }) =>
    `at ${steps(sizes)} the motion of eigenvalue ${eigenvalueText(re, im)} is outside the stability region: at h = ${stepSizeText(h)} an error of it is multiplied by ${number(growth)} a step, though the motion itself does not grow`,
  coarse: ({ sizes }) =>
    sizes.length === 1
      ? `${steps(sizes)} lies off the line of the finer rungs and is left out of the order`
      : `${steps(sizes)} lie off the line of the finer rungs and are left out of the order`,
  'typed derivative': (figures) => typedCheckSentence(figures, { ...figures, agrees: false }),
  'last step': ({ remark, more }) =>
    more === 0 ? remark : `${remark}; so it is with ${more === 1 ? 'one' : more} more`,
  time: ({ sizes, remark }) => `at ${steps(sizes)}: ${remark}`,
  sign: ({ between: [one, other] }) =>
    `the error changes its sign between h = ${stepSizeText(one)} and ${stepSizeText(other)}, so that it is small there by chance`,
  'near zero': ({ independent, t, value }) =>
    `the exact value at ${independent} = ${time(t)} is ${number(value)}, next to zero: relative errors there say little`,
  floor: floorText,
  reference: referenceText,
  'rounding only': () => 'the errors are of the size of rounding at every h',
  struck: ({ sizes }) => `struck out by hand: ${steps(sizes)}`,
  comparison: comparisonText,
};

/** A fact in words: the one place where findings become sentences. */
export function sentenceOf<K extends FindingKind>({ kind, figures }: FactOf<K>): string {
  return SENTENCES[kind](figures);
}
