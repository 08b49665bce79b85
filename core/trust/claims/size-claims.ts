import { systemRightHandSides } from '../../src/compile/right-hand-sides.ts';
import { layLadder } from '../../src/study/runs/ladder.ts';
import { ln } from '../../src/elementary/logarithm.ts';
import { pow } from '../../src/elementary/power.ts';
import { norm } from '../../src/run/norm.ts';
import type { Figures } from '../../src/study/findings/figures.ts';
import { type Claimed, counting, isSameList, runsAt, sizeAt, sizesOfRungs, type Verdict } from './claimed.ts';
import { steepness } from './steepness.ts';

/** Ends of the stretch of the negative real axis on which methods are stable, as books print them. */
const LIMITS: Readonly<Record<string, number>> = {
  Euler: 2,
  Heun: 2,
  Midpoint: 2,
  'Kutta 3': 2.5127,
  RK4: 2.7853,
  '3/8 rule': 2.7853,
  'Adams-Bashforth 2': 1,
  'Adams-Bashforth 3': 6 / 11,
  'Adams-Bashforth 4': 0.3,
  'Adams-Bashforth 5': 0.1633,
  Leapfrog: 0,
};

export function unstable({ limit, decay, sizes }: Figures['unstable'], of: Claimed): Verdict {
  const known = LIMITS[of.own.title];
  if (known !== undefined && Math.abs(known - limit) > 2e-4 * Math.max(1, known))
    return `the limit is ${known}`;
  const steepest = steepness(of);
  if (steepest === null) return null;
  if (decay > 1.1 * steepest + 1e-9) return `nothing decays faster than ${steepest}`;
  if (!sizes.every((h) => h * steepest > limit * 0.97)) return 'a step is below the limit';
  if (limit === 0) return null;
  const beyond = sizesOfRungs(of, ({ h, stopped: end }) => h * decay > limit * 1.001 && end?.step !== 0);
  return beyond.every((h) => sizes.includes(h)) ? null : `beyond the limit are ${beyond.join(', ')}`;
}

export function oscillation({ re, im, growth }: Figures['oscillation'], of: Claimed): Verdict {
  const steepest = steepness(of);
  if (steepest !== null && norm([re, im]) > 1.05 * steepest) return `no motion is faster than ${steepest}`;
  return growth > 1 ? null : 'nothing grows';
}

export function large({ swing, error, sizes }: Figures['large'], of: Claimed): Verdict {
  const { start, end } = of.study.problem;
  const most = Math.max(
    ...Array.from({ length: 501 }, (_, i) => sizeAt(of, start + ((end - start) * i) / 500)),
  );
  if (swing < 0.95 * most) return `the solution reaches ${most}`;
  if (!(error > swing)) return `${error} is not larger than ${swing}`;
  const isRelative = of.study.error.scale !== 'absolute';
  const beyond = sizesOfRungs(
    of,
    ({ taken, leftOut }) =>
      leftOut?.kind === 'large' &&
      taken !== null &&
      taken.error * (isRelative ? taken.size : 1) > 1.01 * most,
  );
  const others = of.result.findings.flatMap((finding) =>
    finding.method === of.method && (finding.kind === 'unstable' || finding.kind === 'oscillation')
      ? finding.figures.sizes
      : [],
  );
  const missed = beyond.filter((h) => !sizes.includes(h) && !others.includes(h));
  return missed.length === 0 ? null : `larger than the solution are also ${missed.join(', ')}`;
}

export function damped({ sizes, times, steps }: Figures['damped'], of: Claimed): Verdict {
  const rungs = of.own.rungs.filter(({ h }) => sizes.includes(h));
  const [all, counted] = [rungs.reduce((n, r) => n + r.steps, 0), rungs.reduce((n, r) => n + r.damped, 0)];
  return all === steps && counted === times ? null : `${counted} of ${all}`;
}

/** Both values that the step jumps between solve its equation, where that is the one of backward Euler. */
export function leap({ leap: { step, h, from, to } }: Figures['leap'], of: Claimed): Verdict {
  const { study, rungs } = of;
  const text = study.methods[of.method]!.method.text.trim();
  const rung = of.own.rungs[rungs[0] ?? -1];
  if (text !== 'solve y[n+1] = y + h*f(t + h, y[n+1])' || study.problem.size > 1 || rung === undefined)
    return null;
  const { start } = study.problem;
  const t = start + (step - 1) * rung.h;
  const before =
    step === 1
      ? study.problem.initial[0]!
      : runsAt({ ...study, problem: { ...study.problem, end: t } }, of.method, [step - 1])[0]!.values[0]!;
  const rhs = systemRightHandSides(study.problem);
  const residual = (y: number): number => y - before - h * rhs(t + h, Float64Array.of(y))[0]!;
  const scale = Math.abs(from) + Math.abs(to) + Math.abs(before);
  return [from, to].every((y) => Math.abs(residual(y)) < 1e-4 * scale) ? null : 'a value solves nothing';
}

export function stopped({ sizes, step }: Figures['left the numbers'], of: Claimed): Verdict {
  const own = of.own.rungs.filter(({ h }) => sizes.includes(h));
  if (!own.every((rung) => rung.stopped !== null)) return 'one of the runs goes on';
  return own[0]?.stopped?.step === step ? null : `it stops in step ${own[0]?.stopped?.step}`;
}

export function refused({ why }: Figures['refused'], { own }: Claimed): Verdict {
  return own.refused === why ? null : `the reason is ${own.refused}`;
}

/** The finest of the excluded sizes is off the line of the finer ones, or a run at it or below fails. */
export function coarse({ of: groups }: Figures['coarse'], claimed: Claimed): Verdict {
  for (const { titles, sizes } of groups) {
    const methods = claimed.result.methods.flatMap((own, method) =>
      own.refused === null && (titles.length === 0 || titles.includes(own.title))
        ? [{ ...claimed, own, method }]
        : [],
    );
    for (const of of methods) {
      const h = Math.min(...sizes);
      const rung = of.own.rungs.find((r) => r.h === h);
      const [first, second] = counting(of);
      const failed = of.own.rungs.some((r) => r.h <= h && r.stopped !== null);
      if (rung?.error == null || first === undefined || second === undefined || failed) continue;
      if (h <= first.h) return `${of.own.title}: ${h} is not coarser than those that count`;
      const order = of.own.promised.kind === 'order' ? of.own.promised.order : NaN;
      const observed = ln(first.error! / second.error!) / ln(first.h / second.h);
      if (Math.abs(observed - order) > 0.15) continue;
      const part = rung.error / (first.error! * pow(h / first.h, order));
      if (Math.abs(part - 1) < 0.01)
        return `${of.own.title}: it is ${part} times what order ${order} makes of the next`;
    }
  }
  return null;
}

export function struck({ of: groups }: Figures['struck'], { study }: Claimed): Verdict {
  const laid = layLadder(study.ladder, study.problem.start, study.problem.end, study.lastStep);
  const wanted = study.methods.flatMap(({ title, struck: out }) =>
    out.length === 0
      ? []
      : [{ title, sizes: out.flatMap((i) => (laid[i]?.ok === true ? [laid[i].grid.h] : [])) }],
  );
  const missed = wanted.find(
    ({ title, sizes }) =>
      !groups.some(
        (group) =>
          (group.titles.length === 0 || group.titles.includes(title)) && isSameList(sizes, group.sizes),
      ),
  );
  return missed === undefined ? null : `${missed.title} has ${missed.sizes.join(', ')}`;
}

export function sameGrid({ h }: Figures['same grid'], { own, rungs }: Claimed): Verdict {
  const steps = new Set(rungs.map((i) => own.rungs[i]!.steps));
  for (const rung of own.rungs) if (rung.h === h) steps.add(rung.steps);
  return steps.size === 1 ? null : `the numbers of steps are ${[...steps].join(', ')}`;
}
