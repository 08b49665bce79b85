import { ERROR_MEASURES, type MeasureName } from '../measures/measures.ts';
import type { ErrorMeasure, GridMeasure } from '../measures/measure.ts';

/** How an error is expressed. */
export const ERROR_SCALES = ['absolute', 'relative', 'digits', 'places'] as const;

/** Where and of what the error of a run is taken, and how it is expressed. */
export interface ErrorChoice {
  /** An error measure by its name, or a time at which the error is taken. */
  readonly at: MeasureName | { readonly t: number };
  /** `norm`, the Euclidean norm over all components, or the name of one. */
  readonly of: string;
  /**
   * `absolute` or `relative`; `digits` is the relative error told as digits that agree, -log10 of it; `places` the
   * absolute error told as correct decimal places.
   */
  readonly scale: (typeof ERROR_SCALES)[number];
}

const DEFAULT_ERROR: ErrorChoice = { at: 'end', of: 'norm', scale: 'absolute' };

/**
 * The error that a file asks for, with what it leaves out filled in.
 *
 * @example errorChoice({ at: 'max' }) // { at: 'max', of: 'norm', scale: 'absolute' }
 */
export function errorChoice(given: Partial<ErrorChoice> | undefined): ErrorChoice {
  return { ...DEFAULT_ERROR, ...given };
}

/** The error measure of a choice; null for the error at a time. */
export function measureOf({ at }: ErrorChoice): ErrorMeasure | null {
  return typeof at === 'object' ? null : ERROR_MEASURES[at];
}

/** The measure over the whole grid that is chosen; null for an error at one point. */
export function gridMeasureOf(choice: ErrorChoice): GridMeasure | null {
  const measure = measureOf(choice);
  return measure?.kind === 'grid' ? measure : null;
}

/** Whether an error is relative to the size of the exact value. */
export function isRelative({ scale }: ErrorChoice): boolean {
  return scale === 'relative' || scale === 'digits';
}
