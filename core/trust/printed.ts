import { within } from './printed-number.ts';
import type { TimeAxis } from '../src/problem/time-text.ts';
import type { Finding, FindingKind } from '../src/study/findings/facts.ts';
import type { Cause, ExpectedOrder, Figures, OrderTrend, Ranged } from '../src/study/findings/figures.ts';

/** What a part of a sentence must say. */
type Expected =
  /** A number, rounded to the digits that are printed. */
  | number
  /** A text as it is. */
  | string
  | { readonly atMost: number }
  | { readonly atLeast: number }
  /** A part as a percentage, rounded up. */
  | { readonly percentOf: number }
  /** A time: at most a thousandth of the interval off, and inside of it. */
  | { readonly t: number; readonly axis: TimeAxis }
  /** Several numbers, of which the first ones may be listed and the others counted. */
  | { readonly list: readonly number[] };

/** Parts of a sentence in the order of its groups. */
interface Parts {
  readonly pattern: RegExp;
  readonly expected: readonly Expected[];
}

const NUMBER = '(-?[\\d,]+(?:\\.\\d+)?(?:e[+-]?\\d+)?(?:×10[⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+)?)';
const PLAIN = '-?\\d+(?:\\.\\d+)?(?:e[+-]?\\d+)?';
const TIME = `[^ ]+ = (${PLAIN})`;
const SIZES = '(?:the \\d+ step sizes from )?h = (.+?)';
const LIST = '(-?\\d+\\.\\d\\d(?:, -?\\d+\\.\\d\\d)*)';

function pattern(text: string): RegExp {
  return new RegExp(`^${text}\\.?$`, 'u');
}

const GOES = { rising: ', increasing', falling: ', decreasing', steady: '', 'up and down': ', up and down' };

function trend({ orders, goes }: OrderTrend): Parts {
  return {
    pattern: new RegExp(
      `(?:Between|between) successive h: ${LIST}(, increasing|, decreasing|, up and down|)`,
    ),
    expected: [{ list: orders }, GOES[goes]],
  };
}

function range({ value, low, high, local }: Ranged & ExpectedOrder): Parts {
  return {
    pattern: new RegExp(`Order ${local ? 'of the local error ' : ''}${NUMBER} \\(${NUMBER} to ${NUMBER}\\)`),
    expected: [value, { atMost: low }, { atLeast: high }],
  };
}

/** Parts one behind the other. */
function joined(...parts: readonly (Parts | string)[]): Parts {
  const sources = parts.map((part) => (typeof part === 'string' ? part : part.pattern.source));
  return {
    pattern: pattern(sources.join('')),
    expected: parts.flatMap((part) => (typeof part === 'string' ? [] : part.expected)),
  };
}

function cause(of: Cause): Parts {
  switch (of.kind) {
    case 'zero':
      return {
        pattern: new RegExp(`; the leading term of order ${NUMBER} is zero where the error is taken`),
        expected: [of.order],
      };
    case 'kinks': {
      const one = `; the right-hand side has a kink or jump at ${TIME}`;
      const some = `; the right-hand side has kinks or jumps at ${TIME}, (${PLAIN})(?: and (\\d+) more)?`;
      const [first = NaN, second] = of.kinks;
      return second === undefined || second - first <= 1e-6 * (of.axis.end - of.axis.start)
        ? { pattern: new RegExp(one), expected: [{ t: first, axis: of.axis }] }
        : {
            pattern: new RegExp(some),
            expected: [
              { t: first, axis: of.axis },
              { t: second, axis: of.axis },
              of.kinks.length > 2 ? of.kinks.length - 2 : '',
            ],
          };
    }
    case 'starter':
      return {
        pattern: new RegExp(`; the starting method (.+) has a local error of order ${NUMBER}`),
        expected: [of.name, of.order + 1],
      };
    case 'typed':
      return {
        pattern: /; (\S+) as typed is not the derivative of the right-hand side/,
        expected: [of.derivative],
      };
    case 'decay':
      return {
        pattern: new RegExp(
          `; the smallest h is still ${NUMBER} times the fastest time constant 1/${NUMBER}`,
        ),
        expected: [of.times, of.rate],
      };
    case 'unknown':
      return { pattern: /(?:)/, expected: [] };
  }
}

function expectedOrder({ promised, by, local }: ExpectedOrder): Parts {
  const how = local
    ? 'is expected of the local error'
    : {
        'theory here': 'is predicted for this problem',
        proof: 'is expected',
        trial: 'is observed on test problems',
      }[by];
  return { pattern: new RegExp(`${NUMBER} ${how}`), expected: [promised] };
}

function another(figures: Figures['order lost']): Parts {
  return joined(range(figures), ', where ', expectedOrder(figures), cause(figures.cause));
}

/** Names of methods: three in full, else two and how many more. */
function listOf(titles: readonly string[]): string {
  const [head, last] = [titles.slice(0, -1), titles.at(-1) ?? ''];
  if (head.length === 0) return last;
  return titles.length <= 3
    ? `${head.join(', ')} and ${last}`
    : `${titles.slice(0, 2).join(', ')} and ${titles.length - 2} more methods`;
}

/** Excluded step sizes, by methods where they are not those of all. */
function excluded(begins: string, of: Figures['coarse']['of']): Parts {
  const groups = of.map(({ titles }) => (titles.length === 0 ? SIZES : `(.+?) at ${SIZES}`));
  return {
    pattern: pattern(`${begins}: ${groups.join('; ')}`),
    expected: of.flatMap(({ titles, sizes }): readonly Expected[] =>
      titles.length === 0 ? [{ list: sizes }] : [listOf(titles), { list: sizes }],
    ),
  };
}

/** A text at the beginning of a sentence, which has a capital unless it is a symbol. */
function asPrinted(text: string): string {
  return /^\w+(?: =|')/.test(text) ? text : text.charAt(0).toUpperCase() + text.slice(1);
}

/** What does not agree: the equation with the largest residual, or the first of the values at the start. */
function wrongExact({ check, axis }: Figures['wrong exact']): Parts {
  const { residual, worst, initial, unchecked } = check;
  const [first] = initial;
  const parts: Parts[] = [];
  if (residual !== null)
    parts.push({
      pattern: new RegExp(
        `(?:satisfies the equations? \\(largest residual ${NUMBER}\\)|does not satisfy the equation for (.+?): residual ${NUMBER} relative to its terms at ${TIME})`,
      ),
      expected:
        worst === null || residual <= 1e-10
          ? [residual, '', '', '']
          : ['', worst.equation, residual, { t: worst.t, axis }],
    });
  if (first !== undefined)
    parts.push({
      pattern: new RegExp(
        `;? ?does not match the initial values: (.+?) is ${NUMBER} at the start, not ${NUMBER}`,
      ),
      expected: [first.component, first.exact, first.given],
    });
  else parts.push({ pattern: /;? ?(?:and the|matches the) initial values/, expected: [] });
  parts.push({
    pattern: /(?:; not checked for (.+?), where a component has no exact solution)?/,
    expected: [unchecked.join(', ')],
  });
  return joined('Exact solution ', ...parts, '; errors are not assessed against it');
}

/** What the sentence of each kind must say, from its figures. */
const PRINTED: { readonly [K in FindingKind]: (figures: Figures[K]) => Parts } = {
  'wrong exact': wrongExact,
  refused: ({ why }) => ({ pattern: pattern('Cannot be run on this problem: (.+?)'), expected: [why] }),
  'left the numbers': ({ sizes, step, t, axis, stage, why }) =>
    step === 0
      ? { pattern: pattern(`Cannot be run at ${SIZES}: (.+?)`), expected: [{ list: sizes }, why] }
      : {
          pattern: pattern(`Stops at ${SIZES}: step ${NUMBER} from ${TIME}, ([^:]+): (.+?)`),
          expected: [{ list: sizes }, step, { t, axis }, stage, why],
        },
  formula: ({ root, diverges, by }) => {
    if (by === 'trial')
      return diverges
        ? joined('Errors grow as h decreases, also on a test system: the method as typed is unstable; .+')
        : joined('The method as typed does not converge, not even on a test system: .+');
    if (!diverges) return joined('The method as typed has order 0 \\(proved from its text\\): .+');
    const begins = 'The method as typed is not zero-stable \\(proved from its text\\): ';
    return root !== null && root > 1.000_01
      ? {
          pattern: pattern(`${begins}a root of modulus ${NUMBER} lies outside the unit circle, .+`),
          expected: [root],
        }
      : joined(`${begins}a double root lies on the unit circle, .+`);
  },
  'as promised': (figures) => {
    const { promised, value, goes } = figures;
    const exact = Math.abs(value - promised) > 0.05 ? ` for small h: ${promised}` : '';
    const agrees = `, as (?:predicted for this problem|expected|observed on test problems)${exact}`;
    return goes === 'steady'
      ? joined(range(figures), agrees)
      : joined(range(figures), agrees, '; ', trend(figures));
  },
  'no order': (figures) => {
    const lead = {
      orders: '',
      'not yet': 'Not yet in the asymptotic range: ',
      unknown: 'The order cannot be estimated: ',
    }[figures.says];
    return joined(lead, trend(figures), '; ', expectedOrder(figures), cause(figures.cause));
  },
  'two rungs': ({ order }) => ({
    pattern: pattern(`Slope ${NUMBER} from two step sizes only; an order estimate needs three`),
    expected: [order],
  }),
  'better than promised': another,
  'order lost': another,
  'not yet': (figures) =>
    joined(trend(figures), {
      pattern: new RegExp(
        `; at h = ${NUMBER} the error is ${NUMBER} times the leading term of order ${NUMBER}: not yet in the asymptotic range`,
      ),
      expected: [figures.h, figures.times, figures.order],
    }),
  oscillation: ({ sizes, growth, h }) => ({
    pattern: pattern(
      `At ${SIZES}, h times the eigenvalue .+ lies outside the stability region: at h = ${NUMBER} an error in this mode is multiplied by ${NUMBER} per step, although the mode itself does not grow`,
    ),
    expected: [{ list: sizes }, h, growth],
  }),
  predicted: ({ h, off, order, constant }) => ({
    pattern: pattern(
      `At h = ${NUMBER} the error is within ([\\d.]+) % of the predicted leading term ${NUMBER} h([⁰¹²³⁴⁵⁶⁷⁸⁹]*)`,
    ),
    expected: [
      h,
      { percentOf: off },
      constant,
      order === 1 ? '' : Array.from(String(order), (d) => '⁰¹²³⁴⁵⁶⁷⁸⁹'[Number(d)]).join(''),
    ],
  }),
  'leading sign': ({ t, axis }) => ({
    pattern: pattern(
      `The leading term of the error changes sign near ${TIME}; for small h the error passes through zero there`,
    ),
    expected: [{ t, axis }],
  }),
  'leading zero': ({ order, general }) => ({
    pattern: pattern(
      `The leading term vanishes on this problem: order ${NUMBER} is predicted here, ${NUMBER} in general`,
    ),
    expected: [order, general],
  }),
  unstable: ({ sizes, limit, decay, growth, h }) =>
    limit === 0
      ? {
          pattern: pattern(
            `The method is unstable for every h on a decay, here of rate ${NUMBER}(?:: at h = ${NUMBER} an error in this mode is multiplied by ${NUMBER} per step)?`,
          ),
          expected: growth === null ? [decay, '', ''] : [decay, h, growth],
        }
      : {
          pattern: pattern(
            `(?:The \\d+ step sizes from )?h = (.+?) exceeds? the stability limit ${NUMBER}/${NUMBER} = ${NUMBER}`,
          ),
          expected: [{ list: [...sizes].sort((a, b) => b - a) }, limit, decay, limit / decay],
        },
  large: ({ sizes, error, swing }) => ({
    pattern: pattern(
      `At ${SIZES} the error is larger than the solution: up to ${NUMBER}, and the solution reaches ${NUMBER}`,
    ),
    expected: [{ list: sizes }, error, swing],
  }),
  damped: ({ sizes, times, steps }) => ({
    pattern: pattern(
      `At ${SIZES} Newton's method converges only with damping: (?:once|${NUMBER} times) in ${NUMBER} steps?`,
    ),
    expected: [{ list: sizes }, times === 1 ? '' : times, steps],
  }),
  leap: ({ sizes, leap, axis }) => ({
    pattern: pattern(
      `At ${SIZES} Newton's method converges to another solution branch: in step ${NUMBER}(?: at h = ${NUMBER})?, from ${TIME}, (.+) jumps from ${NUMBER} to ${NUMBER} where the step size passes ${NUMBER}`,
    ),
    expected: [
      { list: sizes },
      leap.step,
      sizes.length > 1 ? (sizes[0] ?? NaN) : '',
      { t: leap.t, axis },
      leap.component,
      leap.from,
      leap.to,
      leap.h,
    ],
  }),
  coarse: ({ of }) => excluded('Outside the asymptotic range and excluded from the fit', of),
  'same grid': ({ sizes, h }) => ({
    pattern: pattern(`${SIZES} gives? the same grid as h = ${NUMBER} and (?:is|are) excluded from the fit`),
    expected: [{ list: sizes }, h],
  }),
  'typed derivative': ({ t, axis, typed, made }) => ({
    pattern: pattern(
      `.+ as typed is ${NUMBER} at ${TIME}, but the derivative computed from the right-hand side is ${NUMBER} there`,
    ),
    expected: [typed, { t, axis }, made],
  }),
  'last step': ({ remark, more }) => ({
    pattern: pattern('(.+?)(?:; (one|\\d+) more (?:does|do) not divide it either)?'),
    expected: [asPrinted(remark), more === 0 ? '' : more === 1 ? 'one' : more],
  }),
  time: ({ sizes, remark }) => ({
    pattern: pattern(`At ${SIZES}: (.+?)`),
    expected: [{ list: sizes }, remark],
  }),
  sign: ({ between: [one, other] }) => ({
    pattern: pattern(
      `The error changes sign between h = ${NUMBER} and ${NUMBER}; it passes through zero there`,
    ),
    expected: [one, other],
  }),
  digits: ({ digits, defect, order, exact, h }) => ({
    pattern: pattern(
      `From h = ${NUMBER} on, the rounding of the coefficients shows in the error: they have ${NUMBER} digits? \\(defect ${NUMBER}\\); the order is ${NUMBER} within these digits, and taken exactly (?:the method does not converge|it is ${NUMBER})`,
    ),
    expected: [h, digits, defect, order, exact < 1 ? '' : exact],
  }),
  'near zero': ({ t, axis, value }) => ({
    pattern: pattern(
      `The exact value at ${TIME} is ${NUMBER}, close to zero, where the relative error means little`,
    ),
    expected: [{ t, axis }, value],
  }),
  'rounding part': ({ steps, rounding, error, digits }) => ({
    pattern: pattern(
      `At N = ${NUMBER} the rounding error is ${NUMBER}, compared with an error of ${NUMBER}; it is the difference from the same run (?:in double precision|with ${NUMBER} digits)`,
    ),
    expected: [steps, rounding, error, digits ?? ''],
  }),
  floor: ({ steps, rounding, error, least }) => ({
    pattern: pattern(
      `From N = ${NUMBER} on, rounding error (dominates|shows): about ${NUMBER}(?:, amplified .+ times)?, compared with an error of ${NUMBER}; the smallest error is ${NUMBER} at N = ${NUMBER}`,
    ),
    expected: [
      steps,
      rounding < error / 2 ? 'shows' : 'dominates',
      rounding,
      error,
      least.error,
      least.steps,
    ],
  }),
  reference: (figures) => {
    switch (figures.kind) {
      case 'none':
        return {
          pattern: pattern(`No exact solution is given, .+ no Taylor series at ${TIME}; .+`),
          expected: [{ t: figures.axis.start, axis: figures.axis }],
        };
      case 'reached':
        return {
          pattern: pattern(
            `From N = ${NUMBER} on, the error of the reference dominates; it is accurate to ${NUMBER}`,
          ),
          expected: [figures.steps, figures.error],
        };
      case 'whole':
        return {
          pattern: pattern(
            `No exact solution is given; .+; relative accuracy about ${NUMBER}\\)(?:; those of runs with decimal digits .+)?(?:; the reference ends at ${TIME}: .+)?`,
          ),
          expected: [figures.error, figures.ended === null ? '' : { t: figures.ended.t, axis: figures.axis }],
        };
    }
  },
  'rounding only': () => ({
    pattern: pattern('At every h the error is of the size of rounding error'),
    expected: [],
  }),
  'no relative error': ({ t, axis }) => ({
    pattern: pattern(
      `The solution is 0 at ${TIME}: the relative error is undefined there, and so are its maximum and mean`,
    ),
    expected: [{ t, axis }],
  }),
  struck: ({ of }) => excluded('Excluded manually', of),
  comparison: ({ wished, needs }) => ({
    pattern: pattern(
      `For an error of ${NUMBER}, ${needs
        .map(
          (_, i) =>
            `.+? ${i === 0 ? 'needs ' : ''}(about|at most) ${NUMBER}${i === 0 ? ' evaluations' : ''}( \\(already reached at the largest h\\)|)`,
        )
        .join(', ')}(?:; .+)?`,
    ),
    expected: [
      wished,
      ...needs.flatMap(({ evaluations, atMost, isCoarsest }): readonly Expected[] => [
        atMost ? 'at most' : 'about',
        evaluations,
        atMost && isCoarsest ? ' (already reached at the largest h)' : '',
      ]),
    ],
  }),
};

/** Numbers of a list such as `0.5, 0.25 and 2 more`, and how many it speaks of. */
function listed(text: string): { readonly numbers: readonly string[]; readonly count: number } {
  const [, head = text, more] = /^(.*?)(?: and (one|\d+) more)?$/.exec(text) ?? [];
  const numbers = head.split(/, | and | to h = | to /);
  const rest = more === undefined ? 0 : more === 'one' ? 1 : Number(more);
  return { numbers, count: numbers.length + rest };
}

function says(printed: string, expected: Expected): boolean {
  if (typeof expected === 'string') return printed === expected;
  if (typeof expected === 'number') return within(printed, expected);
  if ('atMost' in expected) return Number(printed) <= expected.atMost && within(printed, expected.atMost, 1);
  if ('atLeast' in expected)
    return Number(printed) >= expected.atLeast && within(printed, expected.atLeast, 1);
  if ('percentOf' in expected) {
    const part = Number(printed) / 100;
    return part >= expected.percentOf && part <= Math.max(0.001, 1.2 * expected.percentOf + 0.01);
  }
  if ('t' in expected) {
    const { t, axis } = expected;
    const [at, unit] = [Number(printed), (axis.end - axis.start) / 1000];
    return Math.abs(at - t) <= unit && at >= axis.start && at <= axis.end;
  }
  const { numbers, count } = listed(printed);
  const isRange = expected.list.length > 8 && numbers.length === 2;
  return isRange
    ? within(numbers[0] ?? '', expected.list[0]!) && within(numbers[1] ?? '', expected.list.at(-1)!)
    : count === expected.list.length && numbers.every((text, i) => within(text, expected.list[i]!));
}

/** What a sentence says otherwise than its figures; null where every figure of it is right. */
export function misprint(finding: Finding): string | null {
  const parts = partsOf(finding);
  const found = parts.pattern.exec(finding.sentence);
  if (found === null) return `${finding.kind}: not read: ${finding.sentence}`;
  const wrong = parts.expected.findIndex((expected, i) => !says(found[i + 1] ?? '', expected));
  return wrong < 0
    ? null
    : `${finding.kind}: ${found[wrong + 1] ?? ''} instead of ${JSON.stringify(parts.expected[wrong])} in: ${finding.sentence}`;
}

/** The parts of a finding; its kind and its figures belong together. */
function partsOf<K extends FindingKind>({
  kind,
  figures,
}: {
  readonly kind: K;
  readonly figures: Figures[K];
}): Parts {
  return PRINTED[kind](figures);
}
