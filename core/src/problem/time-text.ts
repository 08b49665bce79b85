import { fixed } from '../text/number-text.ts';
import type { Problem } from './problem.ts';

/** What times are called, and the interval that they lie in. */
export type TimeAxis = Pick<Problem, 'independent' | 'start' | 'end'>;

/** The axis of a problem alone. */
export function timeAxis({ independent, start, end }: Problem): TimeAxis {
  return { independent, start, end };
}

/** The unit of the last digit of a time is at most this part of the interval. */
const PARTS = 1000;
/** Decimals that a time may have. */
const MOST = 17;

/** A time with some decimals, not beyond the ends of the interval. */
function within(t: number, { start, end }: TimeAxis, decimals: number): string {
  const near = Number(fixed(t, decimals));
  const unit = 10 ** -decimals;
  const inside =
    near > end
      ? Number(fixed(near - unit, decimals))
      : near < start
        ? Number(fixed(near + unit, decimals))
        : near;
  return String(inside < start || inside > end ? t : inside);
}

function decimalsFor({ start, end }: TimeAxis): number {
  const needed = Math.ceil(Math.log10(PARTS / (end - start)));
  return Math.min(MOST, Math.max(0, needed));
}

/**
 * A time with as many digits as its interval needs: the unit of the last one is at most a thousandth of the length, and the
 * time stays within the ends.
 *
 * @example timeText(2024.5, { independent: 't', start: 2024, end: 2026 }) // '2024.5'
 */
export function timeText(t: number, axis: TimeAxis): string {
  return within(t, axis, decimalsFor(axis));
}

/** Times that are nearer than this part of the interval are one to a reader. */
const SAME = 1e-6;

/** Several times from the earliest on, with as many digits as tell them apart. */
export function timeTexts(times: readonly number[], axis: TimeAxis): readonly string[] {
  const apart = SAME * (axis.end - axis.start);
  const ordered = [...times].sort((a, b) => a - b);
  const distinct = ordered.filter((t, i) => i === 0 || t - ordered[i - 1]! > apart);
  for (let decimals = decimalsFor(axis); decimals < MOST; decimals += 1) {
    const texts = distinct.map((t) => within(t, axis, decimals));
    if (new Set(texts).size === texts.length) return texts;
  }
  return distinct.map(String);
}

/** `t = 2024.5` */
export function atTime(t: number, axis: TimeAxis): string {
  return `${axis.independent} = ${timeText(t, axis)}`;
}
