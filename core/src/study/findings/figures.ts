import type { ExactCheck } from '../../problem/check-exact.ts';
import type { TimeAxis } from '../../problem/time-text.ts';
import type { Leap } from '../runs/leap.ts';

/** An order as a range in which it lies. */
export interface Ranged {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** What an order is held against. */
export interface ExpectedOrder {
  readonly promised: number;
  /** Whether theory says it of this problem alone, it is proved of the formula, or trial runs showed it. */
  readonly by: 'theory here' | 'proof' | 'trial';
  /** Whether it is the order of errors of single steps, which is one higher. */
  readonly local: boolean;
}

/** The orders from one step size to the next over the finest rungs, and where they go. */
export interface OrderTrend {
  /** From coarse to fine, at most four. */
  readonly orders: readonly number[];
  readonly goes: 'rising' | 'falling' | 'steady' | 'up and down';
}

/** Times at which a right-hand side has a kink; none where it has none, or none is known. */
interface Kinked {
  readonly kinks: readonly number[];
  readonly axis: TimeAxis;
}

/** Step sizes that a fact speaks of, in the order of its rungs. */
interface Sizes {
  readonly sizes: readonly number[];
}

/** Step sizes that are excluded from the fits of a study, those of methods that exclude the same ones together. */
interface Excluded {
  readonly of: readonly (Sizes & {
    /** Titles of the methods; none where it holds for every method that was run. */
    readonly titles: readonly string[];
  })[];
}

/**
 * What is known where errors show no order that is expected: the orders between successive h alone, that h is not small
 * enough yet, or that no order can be estimated.
 */
export type NoOrder = 'orders' | 'not yet' | 'unknown';

/** Why an order is another than expected, where that is sure. */
export type Cause =
  /** The leading term of the formula's order is zero where the error is taken. */
  | { readonly kind: 'zero'; readonly order: number }
  | ({ readonly kind: 'kinks' } & Kinked)
  | { readonly kind: 'starter'; readonly name: string; readonly order: number }
  /** The method evaluates a derivative that was typed by hand, and wrongly. */
  | { readonly kind: 'typed'; readonly derivative: string }
  /** The finest step size in units of the time of the fastest decay, and the rate of that. */
  | { readonly kind: 'decay'; readonly times: number; readonly rate: number }
  | { readonly kind: 'unknown' };

/** The reference that errors are taken against. */
export type ReferenceFigures =
  | { readonly kind: 'none'; readonly axis: TimeAxis }
  | {
      readonly kind: 'whole';
      /** `decimals`: Taylor series with as many digits as the runs, all of which are in decimals. */
      readonly by: 'taylor' | 'fine steps' | 'decimals';
      readonly error: number;
      readonly broken: boolean;
      /** Whether some runs are in decimals, and are compared with a reference of as many digits instead. */
      readonly someInDecimals: boolean;
      readonly axis: TimeAxis;
      /** Where it ends before the interval does, and why. */
      readonly ended: { readonly t: number; readonly why: 'leaves' | 'singular' | 'stuck' } | null;
    }
  /** Errors of a method are no longer its own from that number of steps on. */
  | { readonly kind: 'reached'; readonly steps: number; readonly error: number };

/** What every kind of finding rests on. */
export interface Figures {
  readonly 'wrong exact': {
    readonly check: ExactCheck;
    readonly axis: TimeAxis;
    readonly equations: number;
  };
  readonly refused: { readonly why: string };
  readonly 'left the numbers': Sizes & {
    readonly step: number;
    readonly t: number;
    readonly stage: string;
    readonly why: string;
    readonly axis: TimeAxis;
  };
  readonly formula: {
    /** Errors grow as h falls: a root outside of the unit circle, or so it is seen; or they tend to no solution. */
    readonly diverges: boolean;
    readonly by: 'proof' | 'trial';
    /** Size of the largest root of the formula on y' = 0, where that is why. */
    readonly root: number | null;
  };
  readonly 'as promised': Ranged & ExpectedOrder & OrderTrend;
  readonly 'no order': OrderTrend & ExpectedOrder & { readonly cause: Cause; readonly says: NoOrder };
  readonly 'two rungs': { readonly order: number };
  readonly 'better than promised': Ranged & ExpectedOrder & { readonly cause: Cause };
  readonly 'order lost': Ranged & ExpectedOrder & { readonly cause: Cause };
  /** The leading term of the error is not yet what rules at the finest h: how many times it the error is. */
  readonly 'not yet': OrderTrend & { readonly order: number; readonly h: number; readonly times: number };
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
  readonly 'leading sign': { readonly axis: TimeAxis; readonly t: number };
  readonly 'leading zero': { readonly order: number; readonly general: number };
  readonly unstable: Sizes & {
    readonly limit: number;
    readonly decay: number;
    /**
     * By how much an error of the decay is multiplied in a step of the finest of them; null where that is not known.
     */
    readonly growth: number | null;
    readonly h: number;
  };
  readonly large: Sizes & { readonly error: number; readonly swing: number };
  /** Times that Newton's method had to be damped, and of how many steps, over those rungs. */
  readonly damped: Sizes & { readonly times: number; readonly steps: number };
  /** The first jump at the first of the rungs. */
  readonly leap: Sizes & { readonly leap: Leap; readonly axis: TimeAxis };
  readonly coarse: Excluded;
  readonly 'same grid': Sizes & { readonly h: number };
  readonly 'typed derivative': {
    readonly derivative: string;
    readonly axis: TimeAxis;
    readonly t: number;
    readonly typed: number;
    readonly made: number;
  };
  /** What is remarked of the first of the rungs, and how many more it holds for. */
  readonly 'last step': { readonly remark: string; readonly more: number };
  readonly time: Sizes & { readonly remark: string };
  readonly sign: { readonly between: readonly [number, number] };
  /** The decimals of a method, its orders within their digits and taken exactly, and from which h on their rounding shows. */
  readonly digits: {
    readonly digits: number;
    readonly defect: number;
    readonly order: number;
    readonly exact: number;
    readonly h: number;
  };
  readonly 'near zero': { readonly axis: TimeAxis; readonly t: number; readonly value: number };
  readonly floor: {
    readonly steps: number;
    /** Size of rounding in the error there, and that error. */
    readonly rounding: number;
    readonly error: number;
    /** How many roundings of the solution that is. */
    readonly roundings: number;
    readonly least: { readonly error: number; readonly steps: number };
  };
  /** What rounding makes of the error at the finest step size, from the same run with more digits. */
  readonly 'rounding part': {
    readonly steps: number;
    readonly rounding: number;
    readonly error: number;
    /** Digits of the run that it is the difference from; null for double precision. */
    readonly digits: number | null;
  };
  readonly reference: ReferenceFigures;
  readonly 'rounding only': Readonly<Record<string, never>>;
  readonly 'no relative error': { readonly axis: TimeAxis; readonly t: number };
  readonly struck: Excluded;
  readonly comparison: {
    readonly wished: number;
    readonly needs: readonly {
      readonly title: string;
      readonly evaluations: number;
      readonly atMost: boolean;
      readonly isCoarsest: boolean;
    }[];
    readonly short: readonly string[];
  };
}
