import {
  converted,
  either,
  Faults,
  type Form,
  hasField,
  list,
  named,
  number,
  object,
  type Of,
} from '../../text/form.ts';
import { attempt } from '../../text/refusal.ts';
import { pow } from '../../elementary/power.ts';
import { evaluate } from '../../formula/evaluate.ts';
import { CONSTANTS } from '../../formula/functions.ts';
import { Parser } from '../../formula/parse.ts';
import { PlaceError } from '../../text/place.ts';
import { type Report, tokenize } from '../../text/token.ts';
import { type Grid, type LastStep, layGrid, type Wish } from '../../run/grid.ts';

/** Most rungs of a ladder. */
export const MOST_RUNGS = 40;
/** Longest expression for a step size. */
const LONGEST_AMOUNT = 200;

const POSITIVE = number((x) => x > 0, 'a positive number or an expression such as "pi/8"', {
  type: 'number',
  exclusiveMinimum: 0,
});

const WRITTEN: Form<string> = {
  read: (value, place, faults) => {
    if (typeof value !== 'string' || value.length > LONGEST_AMOUNT)
      return faults.note(place, 'must be a positive number or an expression such as "pi/8"');
    const h = attempt(() => amountValue(value));
    if (!h.ok) return faults.note(place, h.refusal.message);
    if (h.value > 0 && Number.isFinite(h.value)) return value;
    return faults.note(place, `"${value}" must be a positive number, and it is ${h.value}`);
  },
  schema: () => ({ type: 'string', minLength: 1, maxLength: LONGEST_AMOUNT }),
};

/** A number, or an expression such as "pi/8". */
const AMOUNT = named(
  'amount',
  either<number | string>((value) => (typeof value === 'string' ? WRITTEN : POSITIVE), POSITIVE, WRITTEN),
);
/** A step size as a file has it: a number, or an expression such as "pi/8". */
export type Amount = Of<typeof AMOUNT>;

const SIZES = list(AMOUNT, MOST_RUNGS);
const COUNTS = list(
  number((x) => Number.isSafeInteger(x) && x >= 1, 'a whole number from 1 on', {
    type: 'integer',
    minimum: 1,
  }),
  MOST_RUNGS,
);
/** By step sizes. */
const BY_SIZES = object({ sizes: SIZES });
/** By numbers of steps. */
const BY_COUNTS = object({ counts: COUNTS });
/** The same as older files have them, where step sizes were called steps. */
const BY_STEPS = converted(object({ steps: SIZES }), ({ steps }) => ({ sizes: steps }));
const BY_INTERVALS = converted(object({ intervals: COUNTS }), ({ intervals }) => ({ counts: intervals }));
/** By the largest step size, divided again and again by a factor. */
const BY_FACTOR = object({
  first: AMOUNT,
  factor: number((x) => x > 1, 'a number above 1', { type: 'number', exclusiveMinimum: 1 }),
  rungs: number(
    (x) => Number.isSafeInteger(x) && x >= 1 && x <= MOST_RUNGS,
    `a whole number from 1 to ${MOST_RUNGS}`,
    { type: 'integer', minimum: 1, maximum: MOST_RUNGS },
  ),
});

/** The step sizes of a study, as its file holds them. */
export type Ladder = Of<typeof BY_SIZES> | Of<typeof BY_COUNTS> | Of<typeof BY_FACTOR>;

const FORMS: readonly (readonly [string, Form<Ladder>])[] = [
  ['sizes', BY_SIZES],
  ['counts', BY_COUNTS],
  ['steps', BY_STEPS],
  ['intervals', BY_INTERVALS],
];

/** A ladder as a file has it, also by its older names. */
export const LADDER: Form<Ladder> = named(
  'ladder',
  either<Ladder>(
    (value) => FORMS.find(([field]) => hasField(value, field))?.[1] ?? BY_FACTOR,
    ...FORMS.map(([, form]) => form),
    BY_FACTOR,
  ),
);

/** A ladder by its present names: one that was stored long ago may have the older ones. */
export function presentLadder(ladder: Ladder): Ladder {
  return LADDER.read(ladder, 'ladder', new Faults()) ?? ladder;
}

/** A rung that can be run, or why it cannot. */
export type Rung =
  | { readonly ok: true; readonly grid: Grid; readonly written: string }
  | { readonly ok: false; readonly message: string; readonly written: string };

/**
 * The value of an amount; an expression may hold numbers, constants and functions.
 *
 * @throws Refusal with what is wrong, where it has no value
 */
export function amountValue(amount: Amount): number {
  if (typeof amount === 'number') return amount;
  const report: Report = (at, message) => {
    throw new PlaceError(at, message);
  };
  const tokens = tokenize(amount, 0, amount.length, report);
  const end = { from: amount.length, to: amount.length + 1 };
  const parser = new Parser(tokens, end, {
    calls: () => false,
    multiplies: () => false,
    refuseCall: () => null,
    report,
  });
  return evaluate(parser.whole(), (leaf) => {
    const value = leaf.kind === 'name' && leaf.primes === 0 ? CONSTANTS.get(leaf.name) : undefined;
    if (value === undefined) throw new PlaceError(leaf.at, 'only numbers, pi and e can stand in a step size');
    return value;
  });
}

function wishes(ladder: Ladder): readonly { readonly wish: () => Wish; readonly written: string }[] {
  if ('counts' in ladder)
    return ladder.counts.map((steps) => ({ wish: () => ({ steps }), written: `N = ${steps}` }));
  if ('sizes' in ladder)
    return ladder.sizes.map((amount) => ({
      wish: () => ({ h: amountValue(amount) }),
      written: `h = ${amount}`,
    }));
  const { first, factor, rungs } = ladder;
  return Array.from({ length: rungs }, (_, i) => ({
    wish: () => ({ h: amountValue(first) / pow(factor, i) }),
    written: i === 0 ? `h = ${first}` : `h = ${first}/${factor}^${i}`,
  }));
}

/** Lays the grids of a ladder over an interval, one a rung. */
export function layLadder(ladder: Ladder, start: number, end: number, lastStep: LastStep): readonly Rung[] {
  return wishes(ladder).map(({ wish, written }): Rung => {
    const laid = attempt(() => layGrid(start, end, wish(), lastStep));
    return laid.ok
      ? { ok: true, grid: laid.value, written }
      : { ok: false, message: laid.refusal.message, written };
  });
}

/** Steps of all rungs together. */
export function stepsOf(rungs: readonly Rung[]): number {
  return rungs.reduce((sum, rung) => sum + (rung.ok ? rung.grid.steps : 0), 0);
}
