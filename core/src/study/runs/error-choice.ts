import { either, named, number, object, type Of, oneOf, text } from '../../text/form.ts';

/** Longest name of a component, or of anything else that has one. */
const LONGEST_NAME = 200;

const AT_WORD = oneOf('end', 'max', 'rms', 'local');
const AT_TIME = object({ t: number(() => true, 'a number', { type: 'number' }) });

/**
 * Where the error of a run is taken: at the end; at a time; the maximum over the grid; the root mean square over it;
 * or `local`: after one step from exact values.
 */
const AT = either<Of<typeof AT_WORD> | Of<typeof AT_TIME>>(
  (value) => (typeof value === 'object' ? AT_TIME : AT_WORD),
  AT_WORD,
  AT_TIME,
);

/**
 * How it is told: `absolute` or `relative`; `digits` is the relative error told as digits that agree, -log10 of it;
 * `places` the absolute error told as correct decimal places.
 */
const SCALE = oneOf('absolute', 'relative', 'digits', 'places');

/** Of what: `norm`, the Euclidean norm over all components, or the name of one. */
const WHAT = text(LONGEST_NAME, { description: 'norm, or the name of a component' });

/** The error of a file; what it leaves out is that of DEFAULT_ERROR. */
export const ERROR = named('error', object({}, { at: AT, of: WHAT, scale: SCALE }));

/** Where and of what the error of a run is taken, and how it is told. */
export interface ErrorChoice {
  readonly at: Of<typeof AT>;
  readonly of: string;
  readonly scale: Of<typeof SCALE>;
}

const DEFAULT_ERROR: ErrorChoice = { at: 'end', of: 'norm', scale: 'absolute' };

/** The error that a file asks for, with what it leaves out filled in. */
export function errorChoice(given: Of<typeof ERROR> | undefined): ErrorChoice {
  return { ...DEFAULT_ERROR, ...given };
}

/** Whether an error is told relative to the size of the exact value. */
export function isRelative({ scale }: ErrorChoice): boolean {
  return scale === 'relative' || scale === 'digits';
}
