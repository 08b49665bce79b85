import type { Method } from '../../method/method.ts';
import type { Span } from '../../text/place.ts';

/** A number as a fraction in lowest terms, and how that is written. */
export interface ShortFraction {
  readonly text: string;
  readonly value: number;
}

function fractionText(top: number, below: number): ShortFraction {
  return { text: below === 1 ? String(top) : `${top}/${below}`, value: top / below };
}

/** The first convergents of the continued fraction of a number that are close enough; null where none is short. */
function convergent(
  x: number,
  isClose: (value: number) => boolean,
  maxDenominator: number,
): readonly [number, number] | null {
  let [top, topBefore, below, belowBefore] = [Math.floor(x), 1, 1, 0];
  let rest = x - top;
  while (!isClose(top / below)) {
    const inverse = 1 / rest;
    const whole = Math.floor(inverse);
    rest = inverse - whole;
    [top, topBefore] = [whole * top + topBefore, top];
    [below, belowBefore] = [whole * below + belowBefore, below];
    if (!(below <= maxDenominator)) return null;
  }
  return Number.isFinite(top) ? [top, below] : null;
}

/** Largest denominator of a number that is proposed for a coefficient. */
const MAX_DENOMINATOR = 1440;

/** A number as a short fraction, by its continued fraction; null where it is none. */
export function shortFraction(x: number): ShortFraction | null {
  const isClose = (value: number): boolean => Math.abs(value - x) <= 1e-9 * Math.max(1, Math.abs(x));
  const found = convergent(x, isClose, MAX_DENOMINATOR);
  return found && fractionText(...found);
}

/** Largest denominator of a fraction that a decimal may be the rounding of. */
const MAX_ROUNDED = 100_000;

/**
 * The fraction with the smallest denominator within a distance of a number, as long as that is small, and the first
 * convergent beyond; null where it is not short.
 */
export function simplestFraction(x: number, distance: number): ShortFraction | null {
  const isClose = (value: number): boolean => Math.abs(value - x) <= distance;
  const found = convergent(x, isClose, MAX_ROUNDED);
  if (found === null) return null;
  // a convergent is best for its denominator, and a smaller one between two of them may be close enough already
  for (let below = 1; below < Math.min(found[1], MAX_DENOMINATOR); below += 1) {
    const top = Math.round(x * below);
    if (isClose(top / below)) return fractionText(top, below);
  }
  return fractionText(...found);
}

/** A text in brackets where it needs them in the place of a number. */
export function bracketed(text: string, method: Method, { from, to }: Span): string {
  if (/^(\d+|\w+|\(.*\))$/.test(text)) return text;
  const before = method.text.slice(0, from).trimEnd().at(-1) ?? '';
  const after = method.text.slice(to).trimStart().at(0) ?? '';
  return '*/^-'.includes(before) || '^'.includes(after) ? `(${text})` : text;
}
