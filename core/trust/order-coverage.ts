import type { OrderRange } from '../src/study/judge/order-range.ts';
import type { StudyResult } from '../src/study/study-result.ts';

/** A stated order beside the one that theory says on the problem. */
export interface Covered {
  readonly range: OrderRange | null;
  readonly truth: number;
}

/** The stated order of each method of a study whose true order is known from the leading term of its error. */
export function coverage({ methods }: StudyResult): readonly Covered[] {
  return methods.flatMap(({ order, predicted, refused }) =>
    predicted === null || refused !== null ? [] : [{ range: order, truth: predicted.order }],
  );
}
