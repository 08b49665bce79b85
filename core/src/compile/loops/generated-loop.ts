import type { Kernel } from '../kernel/kernel.ts';

/**
 * Source of a loop over steps, from one of the generators; what a run may never ask for is written when it is asked.
 */
export interface GeneratedLoop {
  /** `function (S, origin, h, first, count)`: advances the state S in place. */
  readonly advance: string;
  /** The same with a further input OUT that takes the stages of every step, row after row. */
  readonly trace: () => string;
  /**
   * `advance` with a further input OUT that takes, for each component, the smallest value on the way and its grid
   * point, and the largest and its; null where the caller is to look after every step.
   */
  readonly watch: (() => string) | null;
  /** `advance` with a further input OUT that takes the values after every step; null for large systems. */
  readonly rows: (() => string) | null;
  /** Steps that `advance` may be asked for at once: it checks for non-finite values itself, or they are few. */
  readonly atOnce: number;
  /** Stage values of one step. */
  readonly stageWidth: number;
  /** Values of parameters, which the source reads as P[0], P[1], ... */
  readonly parameters: readonly number[];
  /** Inner loops that the source calls as K[0], K[1], ..., and the doubles of memory they need; null for none. */
  readonly kernels: { readonly list: readonly Kernel[]; readonly doubles: number } | null;
}
