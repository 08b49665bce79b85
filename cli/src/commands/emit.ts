import { componentNames } from '@schritt/core/notation';
import { generateLoop } from '@schritt/core/study';
import { loadStudy } from '../load.ts';
import { pickMethod } from '../pick-method.ts';

/** Prints the code that is generated for one method of a study: the loop over steps, as it is compiled. */
export function emitCommand(file: string, options: { readonly method: string }): string {
  const { study } = loadStudy(file);
  const { title, method } = pickMethod(study, options.method);
  const { problem, start } = study;
  const { loop } = generateLoop(problem, method, start.precision ?? 'double');
  const names = componentNames(problem);
  const shown = names.length > 12 ? `${names.length} components` : names.join(', ');
  const inner = loop.kernels?.list.length ?? 0;
  return [
    `// ${title.replace(/[\p{Cc}\u2028\u2029]/gu, ' ')}: ${shown}, ${start.precision ?? 'double'} precision`,
    '// S is the state, first the components; h the step size; t = origin + n*h, never a running sum',
    ...(inner === 0 ? [] : [`// K[0] to K[${inner - 1}] are inner loops in WebAssembly`]),
    loop.advance,
    '',
  ].join('\n');
}
