/** Where and of what the error of a run is taken, and how it is told. */
export interface ErrorChoice {
  /**
   * At the end; at a time; the maximum over the grid; the root mean square over it; or `local`: after one step from
   * exact values.
   */
  readonly at: 'end' | 'max' | 'rms' | 'local' | { readonly t: number };
  /** `norm`, the Euclidean norm over all components, or the name of one. */
  readonly of: string;
  /**
   * `absolute` or `relative`; `digits` is the relative error told as digits that agree, -log10 of it; `places` the
   * absolute error told as correct decimal places.
   */
  readonly scale: 'absolute' | 'relative' | 'digits' | 'places';
}

export const DEFAULT_ERROR: ErrorChoice = { at: 'end', of: 'norm', scale: 'absolute' };

/** Whether an error is told relative to the size of the exact value. */
export function isRelative({ scale }: ErrorChoice): boolean {
  return scale === 'relative' || scale === 'digits';
}
