/** How formulas are set wherever Schritt sets them, in the words of KaTeX. */
export interface TypesetOptions {
  readonly displayMode: boolean;
  readonly output: 'htmlAndMathml' | 'mathml';
  /** What cannot be set is shown as it was typed. */
  readonly throwOnError: false;
  /** A formula that grows without end is given up. `trust` stays off: none becomes a link, or HTML of its own. */
  readonly maxExpand: number;
  readonly strict: 'ignore';
}

/**
 * For a page in sight `htmlAndMathml`, which looks alike everywhere; for a file that is self-contained `mathml`.
 *
 * @example typesetOptions(true, 'mathml').displayMode // true
 */
export function typesetOptions(block: boolean, output: TypesetOptions['output']): TypesetOptions {
  return { displayMode: block, output, throwOnError: false, maxExpand: 100, strict: 'ignore' };
}
