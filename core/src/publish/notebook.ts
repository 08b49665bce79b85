import type { StudyDocument } from '../document/document.ts';
import { methodTex } from '../method/tex-method.ts';
import { hasExact } from '../problem/problem.ts';
import { aligned, problemTex, statementLines } from '../problem/tex-problem.ts';
import { runStudy } from '../study/run-study.ts';
import { isDecimal } from '../compile/precision.ts';
import type { Grid } from '../run/grid.ts';
import { precisionOf, type Study } from '../study/runs/study.ts';
import { stepSizeText } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import { type ProgramRun, programOf } from './programs/program-of.ts';
import { studyReport } from './study-report.ts';
import { studyTable } from './tables/study-tables.ts';
import { markdownText, writeTable } from './tables/table-formats.ts';

/** A cell of a notebook (nbformat 4.5), before it has a name. */
type NotebookCell = { readonly kind: 'markdown' | 'code'; readonly lines: readonly string[] };

/** Where the definitions of a program end and what runs when it is called begins. */
const MAIN = '\ndef main():';

/** Significant digits of the table that a notebook shows. */
const DIGITS = 5;

function formulas(lines: readonly string[]): readonly string[] {
  return lines.length === 0 ? [] : [`$$ ${aligned(lines)} $$`, ''];
}

function statement(title: string, { problem }: Study, name: string, text: readonly string[]): NotebookCell {
  const tex = problemTex(problem, '&=');
  return {
    kind: 'markdown',
    lines: [
      `# ${markdownText(title)}`,
      '',
      ...formulas(statementLines(tex)),
      ...(tex.exact.length === 0 ? [] : ['Exact solution', '', ...formulas(tex.exact)]),
      `## ${markdownText(name)}`,
      '',
      ...formulas(text),
    ],
  };
}

function code(lines: readonly string[]): NotebookCell {
  return { kind: 'code', lines };
}

/** The runs of a notebook. */
interface NotebookRuns {
  readonly grid: Pick<Grid, 'h' | 'steps'>;
  /** Those of all step sizes of the study. */
  readonly rungs: readonly Pick<Grid, 'h' | 'steps'>[];
  readonly isInDecimals: boolean;
}

/** Cells that run what the definitions define: the rows, the errors of all step sizes, both as plots. */
function runCells(
  study: Study,
  { grid, rungs, isInDecimals }: NotebookRuns,
  vectors: string,
  components: readonly string[],
): readonly NotebookCell[] {
  const point = `n, t, ${vectors}`;
  // a double is no step size of a run in decimals: there h is the length of the interval over N
  const sizes = rungs.map(({ h, steps }) => (isInDecimals ? steps : h));
  const [first, each] = isInDecimals
    ? [
        `steps, h = ${grid.steps}, (T_END - T_START)/${grid.steps}`,
        '    steps, h = size, (T_END - T_START)/size',
      ]
    : [`steps, h = steps_for(${grid.h})`, '    steps, h = steps_for(size)'];
  return [
    code([
      first,
      'points = list(solve(h, steps))',
      `for ${point} in points[:20]:`,
      `    print(n, t, ${vectors})`,
    ]),
    code([
      'import matplotlib.pyplot as plt',
      '',
      ...components.map(
        (text) =>
          `plt.plot([t for ${point} in points], [${text} for ${point} in points], "o-", label=${JSON.stringify(text)})`,
      ),
      'plt.xlabel("t")',
      'plt.legend()',
      'plt.show()',
    ]),
    ...(hasExact(study.problem)
      ? [
          code([
            'sizes, errors = [], []',
            `for size in [${sizes.join(', ')}]:`,
            each,
            `    for ${point} in solve(h, steps):`,
            '        pass',
            '    sizes.append(h)',
            `    errors.append(error_at(t, ${vectors}))`,
            'for k in range(len(sizes)):',
            '    last = None if k == 0 else (sizes[k - 1], errors[k - 1])',
            '    print(sizes[k], errors[k], order_of(last, sizes[k], errors[k]))',
          ]),
          code(['plt.loglog(sizes, errors, "o-")', 'plt.xlabel("h")', 'plt.ylabel("error")', 'plt.show()']),
        ]
      : []),
  ];
}

/**
 * A run as a notebook (nbformat 4.5): the statement, the table of the study, the program in Python and cells that run it
 * and draw what it gives.
 *
 * @throws Refusal as `programOf`
 */
export function notebookOf(document: StudyDocument, study: Study, run: ProgramRun): string {
  const { title } = document;
  const chosen = study.methods[run.method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${run.method}`);
  const program = programOf(title, study, run, 'py');
  const definitions = program.slice(0, program.indexOf(MAIN)).trimEnd();
  const { problem } = study;
  const isSecondOrder = chosen.method.form === 'second order';
  const vectors = isSecondOrder ? 'x, v' : 'y';
  const count = isSecondOrder ? problem.size / 2 : problem.size;
  const shown = (isSecondOrder ? ['x', 'v'] : ['y']).flatMap((name) =>
    count === 1 ? [name] : Array.from({ length: Math.min(count, 4) }, (_, i) => `${name}[${i}]`),
  );
  const result = runStudy(study);
  const report = studyReport(title, problem, result);
  const { grid } = run;
  const rungs = result.methods[run.method]?.rungs ?? [];
  const isInDecimals = isDecimal(precisionOf(study, chosen));
  const cells: readonly NotebookCell[] = [
    statement(title, study, chosen.title, methodTex(chosen.method, '&=')),
    { kind: 'markdown', lines: writeTable(studyTable(report, 'rungs', DIGITS), 'md').split('\n') },
    code(definitions.split('\n')),
    ...runCells(study, { grid, rungs, isInDecimals }, vectors, shown),
  ];
  const made = {
    nbformat: 4,
    nbformat_minor: 5,
    metadata: {
      title: `${title}: ${chosen.title}, h = ${stepSizeText(run.grid.h)}`,
      kernelspec: { display_name: 'Python 3', language: 'python', name: 'python3' },
      language_info: { name: 'python' },
    },
    cells: cells.map(({ kind, lines }, i) => {
      const source = lines.map((line, k) => (k < lines.length - 1 ? `${line}\n` : line));
      const own = { cell_type: kind, id: `cell-${i + 1}`, metadata: {}, source };
      return kind === 'code' ? { ...own, execution_count: null, outputs: [] } : own;
    }),
  };
  return `${JSON.stringify(made, null, 1)}\n`;
}
