import { methodTex } from '../method/tex-method.ts';
import { componentNames } from '../problem/problem.ts';
import { aligned, problemTex, systemTex } from '../problem/tex-problem.ts';
import type { Grid } from '../run/grid.ts';
import { runOf, type Study } from '../study/runs/study.ts';
import { stepSizeText } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import { workedStep } from '../worked/worked-step.ts';
import { texDocument, texText } from './tables/tex-text.ts';

/** One step of a run, to be computed for every component. */
export interface StepToWorkOut {
  readonly method: number;
  readonly grid: Grid;
  /** The step from grid point n to n + 1. */
  readonly n: number;
}

function display(lines: readonly string[]): string {
  return `\\[ ${aligned(lines)} \\]`;
}

function problemPart({ problem }: Study): readonly string[] {
  const { equations, initial, interval, exact, parameters, conserved, given } = problemTex(problem, '&=');
  const isReduced = problem.unknowns.some(({ order, rearranged }) => order > 1 || rearranged);
  const named: readonly (readonly [string, readonly string[]])[] = [
    ['The problem', equations],
    ['with', [...parameters, ...given, ...initial, interval].filter((line) => line !== '')],
    ['as a first-order system', isReduced ? systemTex(problem, '&=') : []],
    ['exact solution', exact],
    ['conserved quantity', conserved],
  ];
  return named.flatMap(([words, lines]) =>
    lines.length === 0 ? [] : [`\\noindent ${words}`, display(lines)],
  );
}

function stepPart(study: Study, { method: place, grid, n }: StepToWorkOut): readonly string[] {
  const chosen = study.methods[place];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${place}`);
  const run = runOf(study, chosen);
  const names = componentNames(study.problem);
  const places = run.layout.places[0] ?? [];
  return [
    `\\section*{${texText(chosen.title)}, h = ${texText(stepSizeText(grid.h))}: step from $n = ${n}$ to ${n + 1}}`,
    ...places.slice(0, 8).flatMap((at, component) => {
      const { lines, byStarter } = workedStep(run, grid, n, component);
      const heading = places.length > 1 ? [`\\noindent ${texText(names[at] ?? '')}`] : [];
      if (byStarter) return [...heading, '\\noindent This step is taken by the starting method.\\par'];
      const aligned = lines.map(({ tex }) => {
        const [first = '', ...rest] = tex;
        return rest.map((part, i) => `${i === 0 ? first : ''} &= ${part}`).join(' \\\\ ');
      });
      return [...heading, `\\begin{align*} ${aligned.join(' \\\\[4pt] ')} \\end{align*}`];
    }),
  ];
}

/**
 * The formulas of a study as a document of LaTeX: the problem, every method, and one step computed where it is asked
 * for.
 *
 * @throws Refusal where there is no such step
 */
export function formulasTex(title: string, study: Study, step: StepToWorkOut | null, part: boolean): string {
  const body = [
    `\\section*{${texText(title)}}`,
    ...problemPart(study),
    ...study.methods.flatMap(({ title: name, method }) => [
      `\\noindent\\textbf{${texText(name)}}`,
      display(methodTex(method, '&=')),
    ]),
    ...(step === null ? [] : stepPart(study, step)),
  ];
  return part ? `${body.join('\n')}\n` : texDocument(body);
}
