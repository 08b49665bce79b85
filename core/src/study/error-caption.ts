import { stepSizeText } from '../text/number-text.ts';
import type { Captioned } from './measures/measure.ts';
import { ERROR_MEASURES } from './measures/measures.ts';
import { type ErrorChoice, isRelative } from './runs/error-choice.ts';

/**
 * What the errors of a study are, as plots say it.
 *
 * @example errorCaption(problem, study.error) // 'error at t = 8'
 */
export function errorCaption(problem: Captioned, choice: ErrorChoice): string {
  const { at, of } = choice;
  const what = `${isRelative(choice) ? 'relative ' : ''}error${of === 'norm' ? '' : ` of ${of}`}`;
  return typeof at === 'object'
    ? `${what} at ${problem.independent} = ${stepSizeText(at.t)}`
    : ERROR_MEASURES[at].caption(what, problem);
}
