/** Where an error is taken, besides at a time. */
export const ERROR_TIMES = ['end', 'max', 'rms', 'local'] as const;

/** How an error is expressed. */
export const ERROR_SCALES = ['absolute', 'relative', 'digits', 'places'] as const;

/** Where and of what the error of a run is taken, and how it is expressed. */
export interface ErrorChoice {
  /**
   * At the end; at a time; the maximum over the grid; the root mean square over it; or `local`: after one step from
   * exact values.
   */
  readonly at: (typeof ERROR_TIMES)[number] | { readonly t: number };
  /** `norm`, the Euclidean norm over all components, or the name of one. */
  readonly of: string;
  /**
   * `absolute` or `relative`; `digits` is the relative error told as digits that agree, -log10 of it; `places` the
   * absolute error told as correct decimal places.
   */
  readonly scale: (typeof ERROR_SCALES)[number];
}

const DEFAULT_ERROR: ErrorChoice = { at: 'end', of: 'norm', scale: 'absolute' };

/** The error that a file asks for, with what it leaves out filled in. */
export function errorChoice(given: Partial<ErrorChoice> | undefined): ErrorChoice {
  return { ...DEFAULT_ERROR, ...given };
}

/** Whether an error is told relative to the size of the exact value. */
export function isRelative({ scale }: ErrorChoice): boolean {
  return scale === 'relative' || scale === 'digits';
}
