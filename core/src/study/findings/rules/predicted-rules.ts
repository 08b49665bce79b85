import { timeAxis } from '../../../problem/time-text.ts';
import { pow } from '../../../elementary/power.ts';
import { observedOrder } from '../../judge/order.ts';
import type { MethodCase } from '../cases.ts';
import type { FactOf } from '../facts.ts';

/** How near an error must be to its leading term to be told beside it. */
const NEAR = 0.1;
/** How far the order between the finest two may be from that of the leading term. */
const CROSSES = 0.5;

/** The finest rung that counts, whose error is the leading term but for a few percent. */
export function predicted({ result }: MethodCase): FactOf<'predicted'> | null {
  const { predicted: theory, rungs, fit } = result;
  if (theory === null || fit === null || theory.constant === 0) return null;
  const [finest, before] = [...fit.rungs].sort((a, b) => rungs[a]!.h - rungs[b]!.h);
  const [rung, coarser] = [rungs[finest ?? -1], rungs[before ?? -1]];
  if (finest === undefined || rung?.error == null || coarser === undefined) return null;
  // an error that crosses the leading term on its way elsewhere is near it by chance
  const observed = observedOrder(coarser.h, coarser.error, rung.h, rung.error);
  if (observed === null || Math.abs(observed - theory.order) > CROSSES) return null;
  const { order, constant } = theory;
  const off = Math.abs(rung.error / (constant * pow(rung.h, order)) - 1);
  if (!(off <= NEAR)) return null;
  return { kind: 'predicted', rungs: [finest], tone: 'good', figures: { h: rung.h, off, order, constant } };
}

/** An error that is small because its leading term passes zero near the time it is taken at. */
export function leadingSign({ study, result }: MethodCase): FactOf<'leading sign'> | null {
  const t = result.predicted?.changesSign ?? null;
  if (t === null) return null;
  const figures = { axis: timeAxis(study.problem), t };
  return { kind: 'leading sign', rungs: [], tone: 'plain', figures };
}

/** A formula that is of a higher order on this problem than in general, as theory says. */
export function leadingZero({ result }: MethodCase): FactOf<'leading zero'> | null {
  const { predicted: theory } = result;
  if (theory === null || theory.order <= theory.general) return null;
  const { order, general } = theory;
  return { kind: 'leading zero', rungs: [], tone: 'plain', figures: { order, general } };
}
