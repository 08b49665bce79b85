import { norm } from '../../src/run/norm.ts';
import type { Figures } from '../../src/study/findings/figures.ts';
import { within } from '../printed-number.ts';
import { type Claimed, sizeAt, slopesAt, solutionAt, type Verdict } from './claimed.ts';

/** The derivative of the solution by differences is that of the equations, and its first values are those given. */
export function wrongExact({ check }: Figures['wrong exact'], of: Claimed): Verdict {
  const { problem } = of.study;
  for (const { exact, given } of check.initial)
    if (Math.abs(exact - given) < 1e-12 || !problem.initial.includes(given))
      return `${given} is no initial value`;
  if (check.worst === null || check.satisfied) return null;
  const { t } = check.worst;
  const d = 1e-5 * (problem.end - problem.start);
  const [before, after] = [solutionAt(of, t - d), solutionAt(of, t + d)];
  const slopes = slopesAt(of, t);
  const off = norm(Array.from(slopes, (rhs, j) => (after[j]! - before[j]!) / (2 * d) - rhs));
  return off > 1e-9 * norm(slopes) || check.initial.length > 0
    ? null
    : `the equations are off by ${off} only`;
}

export function nearZero({ t, value }: Figures['near zero'], of: Claimed): Verdict {
  const { start, end } = of.study.problem;
  const size = sizeAt(of, t);
  const most = Math.max(
    ...Array.from({ length: 101 }, (_, i) => sizeAt(of, start + ((end - start) * i) / 100)),
  );
  if (Math.abs(Math.abs(value) - size) > 1e-9 * most) return `it is ${size}`;
  return size < 1e-5 * most ? null : `the solution reaches ${most} only`;
}

export function noRelativeError({ t }: Figures['no relative error'], of: Claimed): Verdict {
  return sizeAt(of, t) === 0 ? null : `the solution is ${sizeAt(of, t)} there`;
}

/** A typed derivative f' of one equation, against differences along the solution. */
export function typedDerivative(
  { derivative, t, made, typed }: Figures['typed derivative'],
  of: Claimed,
): Verdict {
  const { problem } = of.study;
  if (problem.size > 1 || !derivative.endsWith("''") || derivative.endsWith("'''")) return null;
  const d = 1e-5 * (problem.end - problem.start);
  const slope = (slopesAt(of, t + d)[0]! - slopesAt(of, t - d)[0]!) / (2 * d);
  const scale = Math.abs(slope) + Math.abs(made);
  if (Math.abs(slope - made) > 1e-4 * scale) return `differences give ${slope}`;
  return Math.abs(typed - made) > 1e-9 * scale ? null : 'they are the same';
}

/** The accuracy of a reference is tested where the solution is known; here only what is said of its end. */
export function reference(figures: Figures['reference'], { truth, own }: Claimed): Verdict {
  switch (figures.kind) {
    case 'none':
      return null;
    case 'reached': {
      const beyond = own.rungs.filter((r) => r.steps >= figures.steps && r.error !== null);
      return beyond.every((r) => r.error! < 1e3 * figures.error * Math.max(1, r.taken?.size ?? 1))
        ? null
        : 'an error is far above that of the reference';
    }
    case 'whole':
      return figures.ended === null || truth.reached === figures.ended.t
        ? null
        : `it ends at ${truth.reached}`;
  }
}

const NUMBER = '(-?\\d+(?:\\.\\d+)?(?:e[+-]?\\d+)?)';

/** What is printed of a last step: that h does not divide the interval, and what becomes of it. */
export function lastStep({ more }: Figures['last step'], of: Claimed): Verdict {
  const { study, own, rungs, sentence } = of;
  const { start, end } = study.problem;
  const rung = own.rungs[rungs[0] ?? -1];
  if (rung === undefined) return 'of no step size';
  if (more !== rungs.length - 1) return `it holds for ${rungs.length - 1} more`;
  const parts = (end - start) / rung.wished;
  if (Math.abs(parts - Math.round(parts)) < 1e-9) return `${rung.wished} divides the interval`;
  const full = Math.floor(parts);
  const [, shorter] = new RegExp(`the last step is ${NUMBER}`).exec(sentence) ?? [];
  if (shorter !== undefined)
    return within(shorter, end - start - full * rung.wished, 1)
      ? null
      : `it is ${end - start - full * rung.wished}`;
  const [, nearest] = new RegExp(`interval: h = ${NUMBER}, the nearest that does`).exec(sentence) ?? [];
  if (nearest !== undefined) {
    const fitting = [full, full + 1].filter((n) => n > 0).map((n) => (end - start) / n);
    const closest = fitting.reduce((a, b) => (Math.abs(b - rung.wished) < Math.abs(a - rung.wished) ? b : a));
    return within(nearest, closest, 1) ? null : `the nearest is ${closest}`;
  }
  const [, h, last, there] =
    new RegExp(`h = ${NUMBER} the last point is \\S+ = ${NUMBER}, not ${NUMBER}`, 'i').exec(sentence) ?? [];
  if (h === undefined) return 'it is not read';
  const point = start + (full + 1) * rung.wished;
  return within(h, rung.wished, 1) && within(last ?? '', point, 1) && within(there ?? '', end, 1)
    ? null
    : `it is ${point}`;
}

/** What is printed of an error at a time that is no grid point. */
export function elsewhere({ sizes }: Figures['time'], of: Claimed): Verdict {
  const { study, own, sentence } = of;
  const { start } = study.problem;
  const { at } = study.error;
  if (typeof at !== 'object') return 'no time is asked for';
  const [, asked = '', taken] =
    new RegExp(`= ${NUMBER} is not a grid point: .+?(?:taken at \\S+ = ${NUMBER}|interpolated)`).exec(
      sentence,
    ) ?? [];
  if (!within(asked, at.t, 1)) return `${at.t} is asked for`;
  for (const rung of own.rungs.filter(({ h }) => sizes.includes(h))) {
    const n = (at.t - start) / rung.h;
    if (Math.abs(n - Math.round(n)) < 1e-9) return `it is a grid point of h = ${rung.h}`;
    if (taken !== undefined && !within(taken, start + Math.round(n) * rung.h, 1))
      return `nearest to it at h = ${rung.h} is another`;
  }
  return null;
}
