import { componentNames } from '@schritt/core/notation';
import {
  generateLoop,
  isDecimal,
  precisionOf,
  precisionText,
  runOf,
  type Study,
  type StudyMethod,
} from '@schritt/core/study';
import { loadStudy } from '../load.ts';
import { pickMethod } from '../pick-method.ts';

function oneLine(title: string): string {
  return title.replace(/[\p{Cc}\u2028\u2029]/gu, ' ');
}

/** The code of a run in decimals. */
function decimalLoop(study: Study, chosen: StudyMethod): string {
  const { decimal, precision } = runOf(study, chosen);
  return [
    `// ${oneLine(chosen.title)}: ${precisionText(precision)}`,
    '// X is the state, A the arithmetic, C the numbers of the formulas; t = origin + n*h, never a running sum',
    decimal?.source ?? '',
    '',
  ].join('\n');
}

/** Prints the code that is generated for one method of a study: the loop over steps, as it is compiled. */
export function emitCommand(file: string, options: { readonly method: string }): string {
  const { study } = loadStudy(file);
  const chosen = pickMethod(study, options.method);
  const { problem } = study;
  const precision = precisionOf(study, chosen);
  if (isDecimal(precision)) return decimalLoop(study, chosen);
  const { loop } = generateLoop(problem, chosen.method, precision);
  const names = componentNames(problem);
  const shown = names.length > 12 ? `${names.length} components` : names.join(', ');
  const inner = loop.kernels?.list.length ?? 0;
  return [
    `// ${oneLine(chosen.title)}: ${shown}, ${precisionText(precision)}`,
    '// S is the state, first the components; h the step size; t = origin + n*h, never a running sum',
    ...(loop.parameters.length === 0
      ? []
      : [`// P holds the values of parameters: ${loop.parameters.join(', ')}`]),
    ...(inner === 0 ? [] : [`// K holds inner loops in WebAssembly: ${inner}`]),
    loop.advance,
    '',
  ].join('\n');
}
