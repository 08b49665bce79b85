import type { Problem } from '../../problem/problem.ts';

/** What the caption of an error needs of the problem. */
export type Captioned = Pick<Problem, 'end' | 'independent'>;

interface Described {
  /** In a list to choose from. */
  readonly label: string;
  /** What the errors of a study are: `what` is "error", "relative error", "error of u" and the like. */
  readonly caption: (what: string, problem: Captioned) => string;
}

/** Takes the errors at the grid points one after another, and makes one number of them; NaN where one of them is. */
export interface Summary {
  readonly add: (error: number) => void;
  readonly value: () => number;
}

/** One number of the errors at all grid points. */
export interface GridMeasure extends Described {
  readonly kind: 'grid';
  readonly begin: () => Summary;
  /** The same as a formula of a spreadsheet over a range of cells, one a grid point. */
  readonly sheet: (range: string) => string;
}

/** The error at the last grid point. */
export interface EndMeasure extends Described {
  readonly kind: 'end';
}

/** The error after the first step from exact values. */
export interface LocalMeasure extends Described {
  readonly kind: 'local';
}

/** How the errors of a run become one number. */
export type ErrorMeasure = GridMeasure | EndMeasure | LocalMeasure;

/** One number of errors that are known already. */
export function summarize(measure: GridMeasure, errors: readonly number[]): number {
  const summary = measure.begin();
  for (const error of errors) summary.add(error);
  return summary.value();
}
