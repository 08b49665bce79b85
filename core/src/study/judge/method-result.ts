import type { RungRun } from '../runs/run-method.ts';
import type { TrialOrder } from '../trial/trial-order.ts';
import type { OrderRange } from './order-range.ts';
import type { Theory } from './predicted.ts';
import type { Extrapolated } from './richardson.ts';
import type { LeftOut, OrderFit } from './window.ts';

/** What came of one method at one step size, and what it means beside the other rungs. */
export interface RungResult extends RungRun {
  readonly error: number | null;
  /** Digits that agree with the exact value: -log10 of the relative error. */
  readonly digits: number | null;
  /** Correct decimal places: the error is at most half a unit of the last one. */
  readonly places: number | null;
  /** Against the rung before it in the ladder. */
  readonly ratio: number | null;
  readonly order: number | null;
  /** From the values of this rung and the two before it; needs no exact solution. */
  readonly extrapolated: Extrapolated | null;
  /** Why it does not count for the order; null where it does. */
  readonly leftOut: LeftOut | null;
  /** What was done where h does not divide the interval, or the error is taken elsewhere than asked; null otherwise. */
  readonly remark: string | null;
}

export interface MethodResult extends Theory {
  readonly title: string;
  readonly rungs: readonly RungResult[];
  readonly fit: OrderFit | null;
  /** The order as a range, from the error's expansion; null where none holds that a finding states. */
  readonly order: OrderRange | null;
  /** What the formula promises, one more for local errors. */
  readonly promised: TrialOrder;
  /** Why the method cannot be used for this problem; null where it can. */
  readonly refused: string | null;
}
