import type { ExactCheck } from '../../problem/check-exact.ts';
import type { BestStep } from '../judge/round-off.ts';

/** An order with its standard error; null where two rungs alone give it. */
export interface Slope {
  readonly order: number;
  readonly standardError: number | null;
}

/** Times at which a rate has a kink; none where it has none, or none is known. */
interface Kinked {
  readonly kinks: readonly number[];
  readonly independent: string;
}

/** Step sizes that a fact speaks of, in the order of its rungs. */
interface Sizes {
  readonly sizes: readonly number[];
}

/** Why an order is lost, where that is sure. */
export type Cause =
  | ({ readonly kind: 'kinks' } & Kinked)
  | { readonly kind: 'starter'; readonly name: string; readonly order: number }
  /** The finest step size in units of the time of the fastest decay, and the rate of that. */
  | { readonly kind: 'decay'; readonly times: number; readonly rate: number }
  | { readonly kind: 'unknown' };

/** The reference that errors are taken against. */
export type ReferenceFigures =
  | { readonly kind: 'none'; readonly independent: string; readonly start: number }
  | {
      readonly kind: 'whole';
      readonly by: 'taylor' | 'fine steps';
      readonly error: number;
      readonly broken: boolean;
      readonly independent: string;
      /** Where it ends before the interval does, and whether it needs too many steps there. */
      readonly ended: { readonly t: number; readonly stuck: boolean } | null;
    }
  /** Errors of a method are no longer its own from that number of steps on. */
  | { readonly kind: 'reached'; readonly steps: number; readonly error: number };

/** What every kind of finding rests on. */
export interface Figures {
  readonly 'wrong exact': {
    readonly check: ExactCheck;
    readonly independent: string;
    readonly equations: number;
  };
  readonly refused: { readonly why: string };
  readonly 'left the numbers': Sizes & {
    readonly step: number;
    readonly t: number;
    readonly stage: string;
    readonly why: string;
    readonly independent: string;
  };
  readonly formula: { readonly diverges: boolean };
  readonly 'as promised': Slope & {
    readonly promised: number;
    /** Whether theory says it of this problem, and less of problems in general. */
    readonly here: boolean;
    readonly count: number;
    readonly agrees: boolean;
  };
  readonly scattered: Slope & Kinked;
  readonly 'two rungs': { readonly order: number };
  readonly 'better than promised': Slope & { readonly promised: number };
  readonly oscillation: {
    readonly sizes: readonly number[];
    readonly re: number;
    readonly im: number;
    /** By how much an error of that motion is multiplied in one step of the finest of them. */
    readonly growth: number;
    readonly h: number;
  };
  readonly predicted: {
    readonly h: number;
    readonly off: number;
    readonly order: number;
    readonly constant: number;
  };
  readonly 'leading sign': { readonly independent: string; readonly t: number };
  readonly 'leading zero': { readonly order: number; readonly general: number };
  readonly 'order lost': Slope & { readonly promised: number; readonly cause: Cause };
  readonly 'not yet': Slope & { readonly promised: number; readonly finest: number };
  readonly unstable: Sizes & { readonly limit: number; readonly decay: number };
  readonly coarse: Sizes;
  readonly 'typed derivative': {
    readonly derivative: string;
    readonly independent: string;
    readonly t: number;
    readonly typed: number;
    readonly made: number;
  };
  /** What is remarked of the first of the rungs, and how many more it holds for. */
  readonly 'last step': { readonly remark: string; readonly more: number };
  readonly time: Sizes & { readonly remark: string };
  readonly sign: { readonly between: readonly [number, number] };
  readonly 'near zero': { readonly independent: string; readonly t: number; readonly value: number };
  readonly floor: {
    readonly steps: number;
    readonly best: {
      readonly own: BestStep;
      readonly other: BestStep;
      readonly otherPrecision: 'single' | 'double';
    } | null;
  };
  readonly reference: ReferenceFigures;
  readonly 'rounding only': Readonly<Record<string, never>>;
  readonly struck: Sizes;
  readonly comparison: {
    readonly wished: number;
    readonly needs: readonly { readonly title: string; readonly evaluations: number }[];
    readonly short: readonly string[];
  };
}
