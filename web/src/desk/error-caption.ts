import { type Problem, stepSizeText } from '@schritt/core/notation';
import { type ErrorChoice, isRelative } from '@schritt/core/study';

/** What the errors of a study are, as the picture says it. */
export function errorCaption(problem: Pick<Problem, 'end' | 'independent'>, choice: ErrorChoice): string {
  const { at, of } = choice;
  const what = `${isRelative(choice) ? 'relative ' : ''}error${of === 'norm' ? '' : ` of ${of}`}`;
  if (at === 'local') return `local ${what}`;
  if (at === 'max') return `maximum ${what}`;
  if (at === 'rms') return `RMS ${what}`;
  return `${what} at ${problem.independent} = ${stepSizeText(at === 'end' ? problem.end : at.t)}`;
}
