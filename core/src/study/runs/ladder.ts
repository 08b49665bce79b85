import { attempt } from '../../text/refusal.ts';
import { pow } from '../../elementary/power.ts';
import { evaluate } from '../../formula/evaluate.ts';
import { CONSTANTS } from '../../formula/functions.ts';
import { Parser } from '../../formula/parse.ts';
import { PlaceError } from '../../text/place.ts';
import { type Report, tokenize } from '../../text/token.ts';
import { type Grid, type LastStep, layGrid, type GridRequest } from '../../run/grid.ts';

/** Most rungs of a ladder. */
export const MAX_RUNGS = 40;
/** Longest expression for a step size. */
export const LONGEST_AMOUNT = 200;

/** A step size as a file has it: a number, or an expression such as "pi/8". */
export type Amount = number | string;

/** What is wrong with a step size of a file; null where it is one. */
export function amountFault(value: unknown): string | null {
  const expected = 'must be a positive number or an expression such as "pi/8"';
  if (typeof value === 'number') return value > 0 && Number.isFinite(value) ? null : expected;
  if (typeof value !== 'string' || value.length > LONGEST_AMOUNT) return expected;
  const h = attempt(() => amountValue(value));
  if (!h.ok) return h.refusal.message;
  return h.value > 0 && Number.isFinite(h.value)
    ? null
    : `"${value}" must be a positive number, and it is ${h.value}`;
}

/** The step sizes of a study, as its file holds them: listed, as numbers of steps, or divided by a factor. */
export type Ladder =
  | { readonly sizes: readonly Amount[] }
  | { readonly counts: readonly number[] }
  | { readonly first: Amount; readonly factor: number; readonly rungs: number };

/** A ladder as older files have it, where step sizes were called steps, and steps intervals. */
type OldLadder = { readonly steps: readonly Amount[] } | { readonly intervals: readonly number[] };

/** A ladder by its present names. */
export function presentLadder(ladder: Ladder | OldLadder): Ladder {
  if ('steps' in ladder) return { sizes: ladder.steps };
  return 'intervals' in ladder ? { counts: ladder.intervals } : ladder;
}

/** A rung that can be run, or why it cannot. */
export type Rung =
  | { readonly ok: true; readonly grid: Grid; readonly written: string }
  | { readonly ok: false; readonly message: string; readonly written: string };

/**
 * The value of an amount; an expression may hold numbers, constants and functions.
 *
 * @throws Refusal with what is wrong, where it has no value
 * @example amountValue('2^-3') // 0.125
 */
export function amountValue(amount: Amount): number {
  if (typeof amount === 'number') return amount;
  const report: Report = (at, message) => {
    throw new PlaceError(at, message);
  };
  const tokens = tokenize(amount, { from: 0, to: amount.length }, report);
  const end = { from: amount.length, to: amount.length + 1 };
  const parser = new Parser(tokens, end, {
    calls: () => false,
    multiplies: () => false,
    refuseCall: () => null,
    report,
  });
  return evaluate(parser.whole(), (leaf) => {
    const value = leaf.kind === 'name' && leaf.primes === 0 ? CONSTANTS.get(leaf.name) : undefined;
    if (value === undefined) throw new PlaceError(leaf.at, 'a step size may contain only numbers, pi and e');
    return value;
  });
}

function gridRequests(
  ladder: Ladder,
): readonly { readonly gridRequest: () => GridRequest; readonly written: string }[] {
  if ('counts' in ladder)
    return ladder.counts.map((steps) => ({ gridRequest: () => ({ steps }), written: `N = ${steps}` }));
  if ('sizes' in ladder)
    return ladder.sizes.map((amount) => ({
      gridRequest: () => ({ h: amountValue(amount) }),
      written: `h = ${amount}`,
    }));
  const { first, factor, rungs } = ladder;
  return Array.from({ length: rungs }, (_, i) => ({
    gridRequest: () => ({ h: amountValue(first) / pow(factor, i) }),
    written: i === 0 ? `h = ${first}` : `h = ${first}/${factor}^${i}`,
  }));
}

/**
 * Lays the grids of a ladder over an interval, one per rung.
 *
 * @example layLadder({ counts: [4, 8] }, 0, 1, 'fit').length // 2
 */
export function layLadder(ladder: Ladder, start: number, end: number, lastStep: LastStep): readonly Rung[] {
  return gridRequests(ladder).map(({ gridRequest, written }): Rung => {
    const laid = attempt(() => layGrid(start, end, gridRequest(), lastStep));
    return laid.ok
      ? { ok: true, grid: laid.value, written }
      : { ok: false, message: laid.refusal.message, written };
  });
}

/** Steps of all rungs together. */
export function stepsOf(rungs: readonly Rung[]): number {
  return rungs.reduce((sum, rung) => sum + (rung.ok ? rung.grid.steps : 0), 0);
}
