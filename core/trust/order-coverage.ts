import { clearErrors } from '../src/study/judge/judge-method.ts';
import { type OrderRange, orderRange } from '../src/study/judge/order-range.ts';
import type { StudyResult } from '../src/study/study-result.ts';

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
