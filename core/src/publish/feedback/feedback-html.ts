import type { StudentMarking } from '../../marking/mark-class.ts';
import type { Marking, MarkRequest } from '../../marking/mark-column.ts';
import { markingText, rowText } from '../../marking/marking-text.ts';
import { type MarkRule, marksOf } from '../../marking/marks.ts';
import { methodTex } from '../../method/tex-method.ts';
import { componentNames } from '../../problem/problem.ts';
import { problemLinesTex } from '../../problem/tex-problem.ts';
import { counted, short, significant, stepSizeText, withMinus } from '../../text/number-text.ts';
import type { Typeset } from '../handouts/handout-html.ts';
import { htmlText } from '../tables/table-formats.ts';

/** What all sheets have in common. */
export interface FeedbackChoice {
  readonly title: string;
  readonly rule: MarkRule;
  /** What rows were compared with: one run, or one a sheet. */
  readonly keys: readonly MarkRequest[];
}

/** Rows of a sheet; of more those around the first wrong one are printed. */
const MAX_ROWS = 24;
const BEFORE = 5;

const STYLE = `
@page { size: A4; margin: 16mm; }
@media screen { body { max-width: 190mm; margin: 8mm auto; padding: 0 6mm; } }
body { font: 11pt/1.45 'Source Serif 4', Georgia, 'Times New Roman', serif; color: #1B2733; background: #fff; }
.sheet { break-after: page; }
.sheet:last-child { break-after: auto; }
header { display: flex; justify-content: space-between; gap: 1em; align-items: baseline; border-bottom: 1px solid #1B2733; }
h1 { font-size: 16pt; margin: 0; }
h2 { font-size: 11pt; margin: 1em 0 0.2em; }
.marks { white-space: nowrap; font-weight: 600; }
.formulas > div { margin: 0.4em 0; }
table { border-collapse: collapse; margin: 0.6em 0; font-variant-numeric: tabular-nums; font-size: 9pt; line-height: 1.3; }
th, td { border: 1px solid #9AA5AE; padding: 0.12em 0.6em; text-align: right; }
th { background: #F1EEE6; font-weight: 600; text-align: center; }
tr.wrong td { background: #F9E8DC; }
tr.first td { font-weight: 600; }
code { font: 10pt 'IBM Plex Mono', ui-monospace, monospace; white-space: pre-wrap; }
dl { display: grid; grid-template-columns: max-content 1fr; gap: 0.1em 0.8em; margin: 0.3em 0; }
dd, p { margin: 0; }
p { margin: 0.25em 0; }
`;

function numbers(values: readonly (number | null)[] | null, digits: number): string {
  return (values ?? [])
    .map((value) => (value === null ? '–' : htmlText(withMinus(significant(value, digits)))))
    .join('<br>');
}

function rowsHtml({ rows, digits, firstWrong }: Marking, { study }: MarkRequest): readonly string[] {
  const first = rows.findIndex(({ n }) => n === firstWrong);
  const from = rows.length <= MAX_ROWS ? 0 : Math.min(Math.max(0, first - BEFORE), rows.length - MAX_ROWS);
  const shown = rows.slice(from, from + MAX_ROWS);
  const own = Math.min(12, digits.significant);
  const names = componentNames(study.problem).map(htmlText).join(', ');
  const { independent } = study.problem;
  return [
    '<table>',
    `<thead><tr><th>n</th><th>${htmlText(independent)}</th><th>your ${names}</th><th>right</th><th>from your row before</th><th>result</th></tr></thead>`,
    '<tbody>',
    ...shown.map((row) => {
      const kind = [row.agrees ? '' : 'wrong', row.n === firstWrong ? 'first' : ''].join(' ').trim();
      return `<tr${kind === '' ? '' : ` class="${kind}"`}><td>${row.n}</td><td>${htmlText(withMinus(short(row.t, 6)))}</td><td>${numbers(row.given, own)}</td><td>${numbers(row.right, own + 1)}</td><td>${numbers(row.fromOwn, own + 1)}</td><td>${rowText(row, 'your')}</td></tr>`;
    }),
    '</tbody>',
    '</table>',
    ...(shown.length < rows.length
      ? [`<p>Rows ${shown[0]?.n}–${shown.at(-1)?.n} of ${counted(rows.length, 'row')} are printed.</p>`]
      : []),
  ];
}

function mistakesHtml({ mistakes, firstWrong, slip }: Marking): readonly string[] {
  if (firstWrong === null) return [];
  if (mistakes.length === 0)
    return slip === null ? ['<p>No known mistake gives exactly these numbers.</p>'] : [];
  return [
    `<h2>${mistakes.length === 1 ? 'This mistake gives exactly your numbers' : 'Each of these mistakes gives exactly your numbers'}</h2>`,
    ...mistakes
      .slice(0, MAX_MISTAKES)
      .flatMap(({ sentence, lines }) => [
        `<p>${htmlText(sentence)}</p>`,
        ...lines.map(
          ({ given, right }) =>
            `<dl><dt>with it</dt><dd><code>${htmlText(given)}</code></dd><dt>right</dt><dd><code>${htmlText(right)}</code></dd></dl>`,
        ),
      ]),
    ...(mistakes.length > MAX_MISTAKES ? [`<p>${mistakes.length - MAX_MISTAKES} more do.</p>`] : []),
  ];
}

/** Mistakes that are printed on one sheet. */
const MAX_MISTAKES = 4;

function sheetHtml(
  student: StudentMarking,
  { title, rule, keys }: FeedbackChoice,
  typeset: Typeset,
): readonly string[] {
  const { marking, why, sheet } = student;
  const key = keys[(sheet ?? 1) - 1] ?? keys[0];
  if (key === undefined) return [];
  const { study, method, grid } = key;
  const chosen = study.methods[method];
  const marks = marking && marksOf(marking, rule);
  return [
    '<section class="sheet">',
    `<header><h1>${htmlText(student.student)}</h1>${marks === null ? '' : `<span class="marks">${marks.marks} of ${marks.of} marks</span>`}</header>`,
    `<p>${htmlText(title)}${sheet === null ? '' : `, sheet ${sheet}`}: ${htmlText(chosen?.title ?? '')}, h = ${htmlText(stepSizeText(grid.h))}</p>`,
    '<div class="formulas">',
    ...problemLinesTex(study.problem).map((line) => `<div>${typeset(line, true)}</div>`),
    ...(chosen === undefined
      ? []
      : methodTex(chosen.method).map((line) => `<div>${typeset(line, false)}</div>`)),
    '</div>',
    ...(marking === null
      ? [`<p>Not marked: ${htmlText(why ?? '')}</p>`]
      : [
          ...(marks === null
            ? []
            : [
                `<p>${marks.rowsRight} of ${counted(marks.rowsAsked, 'row')} right; ${marks.stepsRight} of ${counted(marks.rowsAsked, 'step')} right from your own rows.</p>`,
              ]),
          ...markingText(marking, 'your').map((sentence) => `<p>${htmlText(sentence)}</p>`),
          ...mistakesHtml(marking),
          ...rowsHtml(marking, key),
        ]),
    '</section>',
  ];
}

/**
 * Feedback for students as a page that prints, one sheet for each: marks, the first wrong row, what reproduces the rows, and the
 * rows beside the right ones.
 *
 * @param typeset sets formulas, such as KaTeX does as MathML
 * @example feedbackHtml([], { title: 'Reservoir', rule: USUAL_RULE, keys: [] }, (tex) => tex).includes('<section') // false
 */
export function feedbackHtml(
  students: readonly StudentMarking[],
  choice: FeedbackChoice,
  typeset: Typeset,
): string {
  return [
    '<!doctype html>',
    '<html lang="en">',
    `<head><meta charset="utf-8"><title>${htmlText(choice.title)}: feedback</title>`,
    `<style>${STYLE}</style></head>`,
    '<body>',
    ...students.flatMap((one) => sheetHtml(one, choice, typeset)),
    '</body>',
    '</html>',
    '',
  ].join('\n');
}
