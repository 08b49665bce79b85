import { pow } from '../../../elementary/power.ts';
import { clearRungs } from '../../judge/clear-rungs.ts';
import type { MethodCase } from '../cases.ts';
import type { FactOf } from '../facts.ts';

/** How far, as a factor, an error may be from what two finer ones say of it. */
const NEAR = 3;

/** A signed error at a step size. */
interface Signed {
  readonly rung: number;
  readonly h: number;
  readonly error: number;
}

/** The error at another step size by C h^p + D h^(p+1) through two of them. */
function byTwoTerms(one: Signed, other: Signed, p: number, h: number): number {
  const [a, b] = [one.error / pow(one.h, p), other.error / pow(other.h, p)];
  const slope = (b - a) / (other.h - one.h);
  return (a + slope * (h - one.h)) * pow(h, p);
}

/**
 * An error that changes its sign between two rungs is small near there by chance. Both sides must follow the expansion
 * of the error: the coarser one is where the leading term and the next one, from two finer rungs, say it is.
 */
export function sign({ result: { rungs, promised, predicted } }: MethodCase): FactOf<'sign'> | null {
  if (promised.kind !== 'order') return null;
  const p = predicted?.order ?? promised.order;
  const signed = clearRungs(rungs).flatMap((one): Signed[] => {
    const { h, taken } = one;
    return taken?.signed == null ? [] : [{ rung: rungs.indexOf(one), h, error: taken.signed }];
  });
  for (const [k, coarse] of signed.entries()) {
    const [one, other] = [signed[k + 1], signed[k + 2]];
    if (one === undefined || other === undefined) break;
    if (coarse.error * one.error >= 0 || one.error * other.error <= 0) continue;
    const part = coarse.error / byTwoTerms(one, other, p, coarse.h);
    if (!(part < NEAR && part > 1 / NEAR)) continue;
    return {
      kind: 'sign',
      rungs: [coarse.rung, one.rung],
      tone: 'plain',
      figures: { between: [coarse.h, one.h] },
    };
  }
  return null;
}
