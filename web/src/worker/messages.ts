import type { ParameterValues, Portrait, StudyDocument, StudyResult, Thinned, Wish } from '@schritt/core';

/** The points of one run, thinned for a picture without losing an extreme. */
export interface Trajectory {
  /** One a component. */
  readonly components: readonly Thinned[];
  /** Steps of the run, so that a picture can tell points from a line. */
  readonly steps: number;
  /** Time at which the run left the numbers; null where it came to its end. */
  readonly stoppedAt: number | null;
}

/** Curves for the solution picture at one step size. */
export interface Curves {
  /** One a method, in the order of the study. */
  readonly methods: readonly Trajectory[];
  /** The exact solution, one curve a component; null where it is not known. */
  readonly exact: { readonly t: readonly number[]; readonly values: readonly (readonly number[] | null)[] };
  readonly components: readonly string[];
}

/** What is to be seen of a problem beyond its text. */
export interface ProblemView {
  readonly portrait: Portrait;
  /** What came of putting the exact solution into the equations; null where none is given. */
  readonly check: { readonly satisfied: boolean; readonly sentence: string } | null;
  /** What came of comparing derivatives typed by hand with those made from the rates. */
  readonly typed: readonly { readonly satisfied: boolean; readonly sentence: string }[];
}

/** What the worker is asked. */
export type Request =
  | { readonly id: number; readonly kind: 'study'; readonly document: StudyDocument }
  | { readonly id: number; readonly kind: 'curves'; readonly document: StudyDocument; readonly wish: Wish }
  | {
      readonly id: number;
      readonly kind: 'problem';
      readonly text: string;
      readonly parameters: ParameterValues;
    };

/** What it answers; a failure is a fault of the program, faults of texts never get here. */
export type Answer =
  | { readonly id: number; readonly kind: 'study'; readonly result: StudyResult }
  | { readonly id: number; readonly kind: 'curves'; readonly curves: Curves }
  | { readonly id: number; readonly kind: 'problem'; readonly view: ProblemView }
  /** A sign of life: the part of the work that is done. */
  | { readonly id: number; readonly kind: 'progress'; readonly part: number }
  | { readonly id: number; readonly kind: 'failed'; readonly why: string };
