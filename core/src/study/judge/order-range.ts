import { orderThrough, type Reading, type UncertainError } from '../runs/expansion.ts';

/** The order that errors show, as a range in which the true one lies. */
export interface OrderRange {
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** The rungs that it comes from. */
  readonly rungs: readonly number[];
}

/** Terms of ln e = ln C + p ln h + a h + b h^2 + ...: how many of them are looked at. */
const MAX_TERMS = 5;
/** A range is so many times as wide as the estimates about it are apart, to each side. */
const WIDER = 3;
/** Part of the last change of the order from one step size to the next that is taken for what is still to come, at least. */
const STILL = 0.7;
/**
 * Changes that are not at least so much smaller from one step size to the next do not tend to anything yet; then the last counts so
 * often.
 */
const SHRINKS = 0.8;
const FAR = 2.5;
/** Rounding is a standard deviation: so many of them are allowed for. */
const DEVIATIONS = 3;
/** A finest error with more than such a part of rounding is passed over, where so many others are left. */
const NOISY = [
  { part: 1 / 500, left: 4 },
  { part: 1 / 20, left: 3 },
] as const;
/** Half of the narrowest range. */
const MIN = 0.01;
/** Half of the widest range that is reported. */
const WIDEST = 0.5;

/** From the finest on that is clear of rounding, as long as enough are left. */
function fromClear(points: readonly UncertainError[]): readonly UncertainError[] {
  const dropped = NOISY.map(({ part, left }) => {
    const clear = points.findIndex(({ error, uncertainty }) => uncertainty <= part * error);
    return Math.min(clear < 0 ? points.length : clear, points.length - left);
  });
  return points.slice(Math.max(0, ...dropped));
}

/**
 * How far the order between neighbours may still go: of its last change a part, or more where changes do not become
 * smaller.
 */
function stillToCome(points: readonly UncertainError[]): number {
  const between = (i: number): Reading | null => orderThrough(points.slice(i, i + 2));
  const [first, second, third] = [between(0), between(1), points.length > 3 ? between(2) : null];
  if (first === null || second === null) return 0;
  const last = Math.abs(first.value - second.value);
  const before = third === null ? Infinity : Math.abs(second.value - third.value);
  const shrinks = last < SHRINKS * before || last < DEVIATIONS * (first.noise + second.noise);
  return (shrinks ? STILL : FAR) * last;
}

/**
 * The order as a range that holds: of estimates with two, three, ... terms of the error's expansion, over the finest
 * errors and over those one rung coarser, the one whose neighbours are nearest to it. The width comes from how far they
 * are apart and from rounding, not from scatter about a line.
 *
 * Source of the idea: L. F. Richardson, J. A. Gaunt, The deferred approach to the limit, Phil. Trans. R. Soc. A 226
 * (1927) 299-361.
 *
 * @param errors clear of rounding, in any order of h
 * @returns null for fewer than three, or where no range narrower than one is found
 */
export function orderRange(errors: readonly UncertainError[]): OrderRange | null {
  const points = fromClear([...errors].sort((a, b) => a.h - b.h));
  if (points.length < 3) return null;
  let best: { readonly order: number; readonly half: number; readonly count: number } | null = null;
  const most = Math.min(MAX_TERMS, points.length);
  const fine = Array.from({ length: most + 1 }, (_, m) => (m < 2 ? null : orderThrough(points.slice(0, m))));
  const coarser = Array.from({ length: most + 1 }, (_, m) =>
    m < 2 || m + 1 > points.length ? null : orderThrough(points.slice(1, m + 1)),
  );
  const still = stillToCome(points);
  for (let m = 2; m <= most; m += 1) {
    const [own, next, moved] = [fine[m] ?? null, fine[m + 1] ?? null, coarser[m] ?? null];
    if (own === null) continue;
    const distances = [next, moved, m > 2 ? fine[m - 1]! : null].flatMap((other, k) =>
      other === null ? [] : [Math.abs(other.value - own.value) * (k === 2 ? 0.3 : 1)],
    );
    if (distances.length === 0) continue;
    const half = Math.max(WIDER * Math.max(...distances), still) + DEVIATIONS * own.noise + MIN;
    if (best === null || half < best.half) best = { order: own.value, half, count: m + 1 };
  }
  if (best === null || best.half > WIDEST) return null;
  const { order, half, count } = best;
  return {
    value: order,
    low: order - half,
    high: order + half,
    rungs: points
      .slice(0, Math.min(count, points.length))
      .map(({ rung }) => rung)
      .sort((a, b) => a - b),
  };
}
