import { type Problem, stepSizeText } from '@schritt/core/notation';
import { type ErrorChoice, isRelative } from '@schritt/core/study';

/** What the errors of a study are, as the picture says it. */
export function errorCaption(problem: Pick<Problem, 'end' | 'independent'>, choice: ErrorChoice): string {
  const { at, of } = choice;
  const what = `${isRelative(choice) ? 'relative ' : ''}error${of === 'norm' ? '' : ` of ${of}`}`;
  if (at === 'local') return `${what} of one step`;
  if (at === 'max') return `largest ${what}`;
  if (at === 'rms') return `${what}, root mean square`;
  return `${what} at ${problem.independent} = ${stepSizeText(at === 'end' ? problem.end : at.t)}`;
}
