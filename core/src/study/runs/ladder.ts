import { pow } from '../../elementary/power.ts';
import { evaluate } from '../../formula/evaluate.ts';
import { CONSTANTS } from '../../formula/functions.ts';
import { Parser } from '../../formula/parse.ts';
import { PlaceError } from '../../text/place.ts';
import { type Report, tokenize } from '../../text/token.ts';
import { type Grid, type LastStep, layGrid, type Wish } from '../../run/grid.ts';

/** A number, or an expression such as "pi/8". */
export type Amount = number | string;

/** The step sizes of a study. */
export type Ladder =
  | { readonly steps: readonly Amount[] }
  | { readonly intervals: readonly number[] }
  | { readonly first: Amount; readonly factor: number; readonly rungs: number };

/** Most rungs of a ladder. */
export const MOST_RUNGS = 40;

/** A rung that can be run, or why it cannot. */
export type Rung =
  | { readonly ok: true; readonly grid: Grid; readonly written: string }
  | { readonly ok: false; readonly message: string; readonly written: string };

/**
 * The value of an amount; an expression may hold numbers, constants and functions.
 *
 * @throws RangeError with what is wrong, where it has no value
 */
export function amountValue(amount: Amount): number {
  if (typeof amount === 'number') return amount;
  try {
    const report: Report = (at, message) => {
      throw new PlaceError(at, message);
    };
    const tokens = tokenize(amount, 0, amount.length, report);
    const end = { from: amount.length, to: amount.length + 1 };
    const parser = new Parser(tokens, end, { calls: () => false, refuseCall: () => null, report });
    return evaluate(parser.whole(), (leaf) => {
      const value = leaf.kind === 'name' && leaf.primes === 0 ? CONSTANTS.get(leaf.name) : undefined;
      if (value === undefined)
        throw new PlaceError(leaf.at, 'only numbers, pi and e can stand in a step size');
      return value;
    });
  } catch (thrown) {
    if (thrown instanceof PlaceError) throw new RangeError(thrown.message, { cause: thrown });
    throw thrown;
  }
}

function wishes(ladder: Ladder): readonly { readonly wish: () => Wish; readonly written: string }[] {
  if ('intervals' in ladder)
    return ladder.intervals.map((steps) => ({ wish: () => ({ steps }), written: `N = ${steps}` }));
  if ('steps' in ladder)
    return ladder.steps.map((amount) => ({
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
    try {
      return { ok: true, grid: layGrid(start, end, wish(), lastStep), written };
    } catch (thrown) {
      if (thrown instanceof RangeError) return { ok: false, message: thrown.message, written };
      throw thrown;
    }
  });
}

/** Steps of all rungs together. */
export function stepsOf(rungs: readonly Rung[]): number {
  return rungs.reduce((sum, rung) => sum + (rung.ok ? rung.grid.steps : 0), 0);
}
