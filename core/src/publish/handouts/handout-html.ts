import { significant } from '../../text/number-text.ts';
import type { Handouts } from './make-handouts.ts';
import type { PlotData } from '../plot-data.ts';
import { type CsvCell, isNumberCell } from '../csv.ts';
import { cellText } from '../tables/cell-text.ts';
import type { Column, Table } from '../tables/table.ts';
import { htmlNumber, htmlTable, htmlText } from '../tables/table-formats.ts';
import type { Handout } from './handout.ts';
import { keyTables } from './keys.ts';
import { withNumbers } from './hidden-numbers.ts';

/** The sizes of paper that a page is set for. */
export const PAPERS = ['A4', 'Letter'] as const;
export type Paper = (typeof PAPERS)[number];

/** A line of a page, or a plot that is between two lines. */
export type PagePart = string | PlotData;

/**
 * The page as a text, with its plots drawn.
 *
 * @example drawnPage(['<p>', '</p>'], () => '<svg/>') // '<p>\n</p>'
 */
export function drawnPage(parts: readonly PagePart[], draw: (plot: PlotData) => string): string {
  return parts.map((part) => (typeof part === 'string' ? part : draw(part))).join('\n');
}

/** Sets a formula in TeX as markup for a page; `wide` on a line of its own. */
export type Typeset = (tex: string, wide: boolean) => string;

const STYLE = `
body { font: 11pt/1.45 'Source Serif 4', Georgia, 'Times New Roman', serif; color: #1B2733; background: #fff; margin: 0; }
.sheet { break-after: page; }
.sheet:last-child { break-after: auto; }
header { display: flex; justify-content: space-between; gap: 1em; align-items: baseline; border-bottom: 1px solid #1B2733; }
h1 { font-size: 16pt; margin: 0; }
h2 { font-size: 11pt; margin: 1em 0 0.2em; }
.name { white-space: nowrap; }
.task { margin: 0.6em 0; }
.formulas > div { margin: 0.5em 0; }
.methods { display: flex; flex-wrap: wrap; gap: 0 2.5em; }
table { border-collapse: collapse; margin: 0.8em 0; font-variant-numeric: tabular-nums; font-size: 10pt; }
caption { text-align: left; margin-bottom: 0.3em; }
th, td { border: 1px solid #9AA5AE; padding: 0.28em 0.6em; text-align: right; }
th { background: #F1EEE6; font-weight: 600; text-align: center; }
td.blank { min-width: 5.5em; height: 1.5em; }
.small table { font-size: var(--size); }
.small th, .small td { padding: 0.28em 0.35em; }
.small td.blank { min-width: 4em; }
td.none { background: #F1EEE6; }
.answer { color: #B5490F; }
td.answer { font-weight: 600; }
.room { border: 1px solid #9AA5AE; height: 62mm; margin: 0.8em 0; break-inside: avoid; }
.drawn svg { width: 120mm; height: auto; }
`;

/** What represents a number that is left out: browsers do not draw boxes in formulas. */
const GAP = '\\text{\\_\\_\\_}';

/** A cell of a sheet: a number, an answer in another colour, or a blank. */
function cellHtml(value: CsvCell, of: Column, blank: boolean, solved: boolean): string {
  if (value === null) return '<td class="none"></td>';
  if (blank && !solved) return '<td class="blank"></td>';
  const open = blank ? '<td class="answer">' : '<td>';
  const text = isNumberCell(value) ? htmlNumber(value, of.digits) : htmlText(cellText(value, of));
  return `${open}${text}</td>`;
}

/** Columns that have room on a page in the usual size, and how small a wider table may be set, in points. */
const COLUMNS = 8;
const SIZE = { usual: 10, least: 6.5 } as const;

/** A table, set smaller where it is wide, so that it is not cut off at the margin. */
function tableHtml(table: Table, blank: Handout['blank'], solved: boolean): readonly string[] {
  const size = Math.max(SIZE.least, Math.min(SIZE.usual, (SIZE.usual * COLUMNS) / table.columns.length));
  const lines = tableLines(table, blank, solved);
  return size === SIZE.usual
    ? lines
    : [`<div class="small" style="--size: ${significant(size, 3)}pt">`, ...lines, '</div>'];
}

function tableLines(table: Table, blank: Handout['blank'], solved: boolean): readonly string[] {
  return htmlTable(table, (value, of, r, i) => cellHtml(value, of, blank[r]?.[i] === true, solved));
}

function sheetHtml(handout: Handout, solved: boolean, typeset: Typeset): readonly PagePart[] {
  const { title, number, task, problem, methods, hidesNumbers, table, blank, digits, plot } = handout;
  const hidden = (tex: string): string => {
    if (!hidesNumbers) return tex;
    return withNumbers(tex, (text) => (solved ? `\\textcolor{#B5490F}{${text}}` : GAP));
  };
  const hasBlanks = blank.some((row) => row.includes(true));
  return [
    '<section class="sheet">',
    `<header><h1>${htmlText(title)}${number === null ? '' : `, sheet ${number}`}${solved ? ' <span class="answer">answer key</span>' : ''}</h1>${solved ? '' : '<span class="name">Name: ________________________</span>'}</header>`,
    ...task.map((line) => `<p class="task">${htmlText(line)}</p>`),
    '<div class="formulas">',
    ...problem.filter((line) => line !== '').map((line) => `<div>${typeset(line, true)}</div>`),
    '</div>',
    '<div class="methods">',
    ...methods.map(
      (method) =>
        `<div><h2>${htmlText(method.title)}</h2>${method.lines.map((line) => `<div>${typeset(hidden(line), false)}</div>`).join('')}</div>`,
    ),
    '</div>',
    ...(hasBlanks && !solved ? [`<p>Fill in the blanks to ${digits} significant digits.</p>`] : []),
    ...tableHtml(table, blank, solved),
    ...(plot === null ? [] : solved ? ['<div class="drawn">', plot, '</div>'] : ['<div class="room"></div>']),
    '</section>',
  ];
}

/**
 * Sheets as a page that prints, one sheet a page; solved ones have their answers in another colour, and a table of all
 * keys behind them where there are several.
 *
 * @param typeset sets formulas, such as KaTeX does as MathML
 * @returns lines of the page, with the numbers of a plot wherever one is to be drawn
 */
export function handoutHtml(
  { handouts, keys }: Handouts,
  { solved, paper }: { readonly solved: boolean; readonly paper: Paper },
  typeset: Typeset,
): readonly PagePart[] {
  const title = handouts[0]?.title ?? '';
  return [
    '<!doctype html>',
    '<html lang="en">',
    `<head><meta charset="utf-8"><title>${htmlText(title)}</title>`,
    `<style>@page { size: ${paper}; margin: 16mm; }\n@media screen { body { max-width: 190mm; margin: 8mm auto; padding: 0 6mm; } }${STYLE}</style></head>`,
    '<body>',
    ...handouts.flatMap((handout) => sheetHtml(handout, solved, typeset)),
    ...(solved && keys !== null
      ? [
          '<section class="sheet">',
          '<h1>All keys</h1>',
          ...(keys.note === null ? [] : [`<p>${htmlText(keys.note)}</p>`]),
          ...keyTables(keys).flatMap((table) => tableHtml(table, [], true)),
          '</section>',
        ]
      : []),
    '</body>',
    '</html>',
    '',
  ];
}
