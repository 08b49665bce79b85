import type { Problem } from '../problem/problem.ts';
import { stepSizeText } from '../text/number-text.ts';
import { type ErrorChoice, isRelative } from './runs/error-choice.ts';

/** What the errors of a study are, as plots say it. */
export function errorCaption(problem: Pick<Problem, 'end' | 'independent'>, choice: ErrorChoice): string {
  const { at, of } = choice;
  const what = `${isRelative(choice) ? 'relative ' : ''}error${of === 'norm' ? '' : ` of ${of}`}`;
  if (at === 'local') return `local ${what}`;
  if (at === 'max') return `maximum ${what}`;
  if (at === 'rms') return `RMS ${what}`;
  return `${what} at ${problem.independent} = ${stepSizeText(at === 'end' ? problem.end : at.t)}`;
}
