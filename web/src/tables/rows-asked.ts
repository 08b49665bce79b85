import { attempt, Refusal } from '@schritt/core/text';
import { amountValue, type Grid, timeAt } from '@schritt/core/study';

/** Rows of a list of times at most. */
const MAX_POINTS = 400;
/** How far a time may be from a grid point, as a part of h, and still be that point. */
const NEAR = 1e-6;

/** The grid point that was asked for: `12`, `n = 12`, or a time as `t = 0.5`; null for anything else. */
export function gridPointAt(
  text: string,
  independent: string,
  { start, h, steps }: Pick<Grid, 'start' | 'h' | 'steps'>,
): number | null {
  const [, name = 'n', digits = ''] = /^\s*(?:(\w+)\s*=)?\s*(-?[\d.]+(?:e[+-]?\d+)?)\s*$/i.exec(text) ?? [];
  const value = Number(digits);
  if (digits === '' || !Number.isFinite(value)) return null;
  const point = name === 'n' ? value : name === independent ? (value - start) / h : NaN;
  const near = Math.round(point);
  return Number.isFinite(near) && near >= 0 && near <= steps ? near : null;
}

/** Times as they were typed, `...` filled in. @throws Refusal in plain words */
function timesOf(text: string): readonly number[] {
  const parts = text
    .replaceAll('…', '...')
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '');
  const times: number[] = [];
  for (const [i, part] of parts.entries()) {
    if (part !== '...') {
      times.push(amountValue(part));
      continue;
    }
    const [before, last, next] = [times.at(-2), times.at(-1), parts[i + 1]];
    const step = before === undefined || last === undefined ? NaN : last - before;
    const end = next === undefined ? NaN : amountValue(next);
    if (last === undefined || !(step > 0) || !(end > last))
      throw new Refusal('grid', 'use ... between increasing times, such as 0.5, 1, ..., 8');
    for (let k = 1; last + k * step < end - 1e-9 * step; k += 1) {
      if (times.length >= MAX_POINTS) break;
      times.push(last + k * step);
    }
  }
  if (times.length === 0) throw new Refusal('grid', 'enter times, such as 0.5, 1, ..., 8');
  if (times.length > MAX_POINTS) throw new Refusal('grid', `at most ${MAX_POINTS} times are allowed`);
  return times;
}

/** Rows that a list of times asks for. */
export interface TimesToShow {
  readonly points: readonly number[];
  /** Times that are no grid points of this step size. */
  readonly between: readonly number[];
}

/**
 * The grid points of a list of times such as `0.5, 1, ..., 8`; times between the grid points are reported and not
 * rounded to others.
 */
export function timesToShow(text: string, grid: Grid): TimesToShow | { readonly why: string } {
  const reading = attempt(() => timesOf(text));
  if (!reading.ok) return { why: reading.refusal.message };
  const points = new Set<number>();
  const between: number[] = [];
  for (const t of reading.value) {
    const near = [Math.round((t - grid.start) / grid.h), grid.steps].find(
      (n) => n >= 0 && n <= grid.steps && Math.abs(timeAt(grid, n) - t) <= NEAR * grid.h,
    );
    if (near === undefined) between.push(t);
    else points.add(near);
  }
  return { points: [...points].sort((a, b) => a - b), between };
}
