import { clearErrors } from '../src/study/judge/judge-method.ts';
import { type OrderRange, orderRange } from '../src/study/judge/order-range.ts';
import type { Study } from '../src/study/runs/study.ts';
import type { StudyResult } from '../src/study/study-result.ts';
import { finerOrders } from './claims/claimed.ts';

/** An estimated order beside the one that theory says on the problem. */
export interface Covered {
  /** As it is estimated from the errors, whether it is printed or not. */
  readonly range: OrderRange | null;
  readonly isPrinted: boolean;
  readonly truth: number;
}

/** The estimated order of each method of a study whose true order is known from the leading term of its error. */
export function coverage({ methods }: StudyResult): readonly Covered[] {
  return methods.flatMap(({ order, rungs, predicted, refused }) =>
    predicted === null || refused !== null
      ? []
      : [{ range: orderRange(clearErrors(rungs)), isPrinted: order !== null, truth: predicted.order }],
  );
}

/** A range that a finding prints, whether it excludes the expected order of the formula, and whether it is right. */
export interface PrintedRange {
  readonly excludes: boolean;
  readonly isRight: boolean;
}

/** Orders of runs that may be off their limit by that much. */
const NEARLY = 0.02;

/**
 * Every range that a study prints, held against the order of the leading term; where that is not known against the cause
 * that is proved, or against the order of runs with a quarter of the smallest h.
 */
export function printedRanges(study: Study, result: StudyResult): readonly PrintedRange[] {
  return result.findings.flatMap((finding) => {
    const { kind, method } = finding;
    const own = result.methods[method ?? -1];
    if (method === null || own === undefined) return [];
    if (kind !== 'as promised' && kind !== 'better than promised' && kind !== 'order lost') return [];
    const { low, high } = finding.figures;
    const formula = own.promised.kind === 'order' ? own.promised.order : NaN;
    const isWithin = (order: number, off: number): boolean => order >= low - off && order <= high + off;
    const excludes = !isWithin(formula, 0);
    if (own.predicted !== null) return [{ excludes, isRight: isWithin(own.predicted.order, 0) }];
    if (study.error.at === 'local') return [{ excludes, isRight: isWithin(formula, 0) }];
    if (kind === 'order lost' && finding.figures.cause.kind === 'starter')
      return [{ excludes, isRight: isWithin(finding.figures.cause.order + 1, 0) }];
    const finer = finerOrders({ study, method, own }).at(-1);
    return finer === undefined ? [] : [{ excludes, isRight: isWithin(finer, NEARLY) }];
  });
}
