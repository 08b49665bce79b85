import { type CsvCell, csv, isNumberCell, type NumberCell, nearestDouble, numberText } from '../csv.ts';
import { plainTable } from '../plain-table.ts';
import { cellText, numberParts, oneLine } from './cell-text.ts';
import type { Column, ColumnGroup, Table, TableFormat } from './table.ts';
import { texDocument, texText } from './tex-text.ts';

/** How a table is written. */
export interface TableOptions {
  /** A byte order mark before CSV, for spreadsheets that guess an encoding without one. */
  readonly mark?: boolean;
  /** CSV with semicolons between the cells and decimal commas. */
  readonly comma?: boolean;
  /** LaTeX and HTML as a part to be put into a document instead of one that is self-contained. */
  readonly part?: boolean;
}

/** The titles of columns in one line each: with the title of their group before them. */
function fullTitles({ columns, groups }: Table): readonly string[] {
  const over = groups?.flatMap(({ title, columns: count }) => Array.from({ length: count }, () => title));
  return columns.map(({ title }, i) => {
    const group = over?.[i] ?? '';
    return oneLine(group === '' ? title : `${group}: ${title}`);
  });
}

function asCsv(table: Table, { mark = false, comma = false }: TableOptions): string {
  return `${mark ? '\ufeff' : ''}${csv([fullTitles(table), ...table.rows], comma)}`;
}

function asText(table: Table): string {
  const rows = table.rows.map((row) => table.columns.map((of, i) => oneLine(cellText(row[i] ?? null, of))));
  return `${plainTable(fullTitles(table), rows)}\n`;
}

/** A text in a cell of Markdown: no sign of it is markup. */
export function markdownText(text: string): string {
  return oneLine(text).replace(/[\\`*_{}[\]()#+\-.!|<>~$&]/gu, (sign) =>
    sign === '.' || sign === '-' || sign === '(' || sign === ')' ? sign : sign === '<' ? '&lt;' : `\\${sign}`,
  );
}

/** A cell of Markdown; no sign of a number but a plus is markup. */
function markdownCell(value: CsvCell, of: Column): string {
  const text = cellText(value, of);
  return isNumberCell(value) && !text.includes('+') ? text : markdownText(text);
}

function isNumeric(table: Table, i: number): boolean {
  return table.rows.every((row) => row[i] === null || isNumberCell(row[i] ?? null));
}

function asMarkdown(table: Table): string {
  const line = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`;
  return [
    `**${markdownText(table.caption)}**`,
    '',
    line(fullTitles(table).map(markdownText)),
    line(table.columns.map((_, i) => (isNumeric(table, i) ? '---:' : ':---'))),
    ...table.rows.map((row) => line(table.columns.map((of, i) => markdownCell(row[i] ?? null, of)))),
    '',
  ].join('\n');
}

/** A text in HTML: nothing of it is markup. */
export function htmlText(text: string): string {
  return oneLine(text).replace(/[&<>"']/gu, (sign) => `&#${sign.codePointAt(0) ?? 0};`);
}

/** A number to the digits of its column, as markup. */
export function htmlNumber(value: NumberCell, digits: number | null): string {
  const { mantissa, exponent } = numberParts(value, digits);
  const power = exponent === null ? '' : ` &#215; 10<sup>${String(exponent).replace('-', '&#8722;')}</sup>`;
  return `${mantissa.replace('-', '&#8722;')}${power}`;
}

/** A table as markup, with its cells as they are given: by row and column, counted from 0. */
export function htmlTable(
  table: Table,
  cell: (value: CsvCell, of: Column, row: number, column: number) => string,
): readonly string[] {
  const over = table.groups?.map(
    ({ title, columns }) => `<th colspan="${columns}" scope="colgroup">${htmlText(title)}</th>`,
  );
  return [
    '<table>',
    `<caption>${htmlText(table.caption)}</caption>`,
    '<thead>',
    ...(over === undefined ? [] : [`<tr>${over.join('')}</tr>`]),
    `<tr>${table.columns.map(({ title }) => `<th scope="col">${htmlText(title)}</th>`).join('')}</tr>`,
    '</thead>',
    '<tbody>',
    ...table.rows.map(
      (row, r) => `<tr>${table.columns.map((of, i) => cell(row[i] ?? null, of, r, i)).join('')}</tr>`,
    ),
    '</tbody>',
    '</table>',
  ];
}

function asHtml(table: Table, { part = false }: TableOptions): string {
  const numbers = table.columns.map((_, i) => isNumeric(table, i));
  const body = htmlTable(table, (value, of, _, i) => {
    const align = numbers[i] === true ? ' style="text-align: right"' : '';
    const text = isNumberCell(value) ? htmlNumber(value, of.digits) : htmlText(cellText(value, of));
    return `<td${align}>${text}</td>`;
  }).join('\n');
  return part
    ? `${body}\n`
    : `<!doctype html>\n<html lang="en">\n<head><meta charset="utf-8"><title>${htmlText(table.caption)}</title></head>\n<body>\n${body}\n</body>\n</html>\n`;
}

/** Two cells of LaTeX that meet at the point of a number: 1 and .05 \\cdot 10^{-3}. */
function texNumber(value: NumberCell, digits: number | null): string {
  if (!Number.isFinite(nearestDouble(value))) return `\\multicolumn{2}{c}{${texText(numberText(value))}}`;
  const { mantissa, exponent } = numberParts(value, digits);
  const [whole = '', decimals] = mantissa.split('.');
  const behind = decimals === undefined ? '' : `.${decimals}`;
  const power = exponent === null ? '' : ` \\cdot 10^{${exponent}}`;
  return `$${whole}$ & ${behind === '' && power === '' ? '' : `$${behind}${power}$`}`;
}

function texHead({ title, tex }: Column, wide: boolean): string {
  const set = tex === null ? texText(title) : `$${tex}$`;
  return wide ? `\\multicolumn{2}{c}{${set}}` : set;
}

function texGroups(groups: readonly ColumnGroup[], wide: readonly boolean[]): readonly string[] {
  let place = 0;
  let at = 1;
  const spans = groups.map(({ title, columns }) => {
    const width = wide.slice(place, place + columns).reduce((sum, is) => sum + (is ? 2 : 1), 0);
    const from = at;
    [place, at] = [place + columns, at + width];
    return { title, width, from };
  });
  return [
    `${spans.map(({ title, width }) => `\\multicolumn{${width}}{c}{${texText(title)}}`).join(' & ')} \\\\`,
    spans
      .filter(({ title }) => title !== '')
      .map(({ from, width }) => `\\cmidrule(lr){${from}-${from + width - 1}}`)
      .join(' '),
  ];
}

/** Points that a page of a document has room for: upright, and turned by a right angle. */
const [UPRIGHT, TURNED] = [495, 675];
/** Points of a digit or letter of 10 point type, of a power of ten with its sign, and between two columns. */
const [LETTER, POWER, BETWEEN] = [5, 18, 12];

/** About how many points a column is wide in print. */
function texWidth(table: Table, i: number): number {
  const of = table.columns[i];
  if (of === undefined) return 0;
  const cells = table.rows.map((row) => {
    const value = row[i] ?? null;
    if (!isNumberCell(value)) return LETTER * cellText(value, of).length;
    const { mantissa, exponent } = numberParts(value, of.digits);
    const power = exponent === null ? 0 : POWER + 4 * String(exponent).length;
    // a point is half as wide as a digit
    return LETTER * mantissa.length - (mantissa.includes('.') ? LETTER / 2 : 0) + power;
  });
  const head = of.tex === null ? LETTER * of.title.length : 2 * LETTER;
  return BETWEEN + cells.reduce((most, width) => Math.max(most, width), head);
}

/** A table in parts that are as wide as `room`: each repeats the first column, and groups stay whole where they can. */
function partsOf(table: Table, room: number): readonly Table[] {
  const groups = table.groups ?? table.columns.map(() => ({ title: '', columns: 1 }));
  const parts: Table[] = [];
  let [place, from] = [0, 0];
  const first = texWidth(table, 0);
  let taken: { readonly title: string; readonly columns: number }[] = [];
  let width = first;
  const flush = (end: number): void => {
    if (taken.length === 0) return;
    const isFirst = from === 0;
    const chosen = [...(isFirst ? [] : [0]), ...Array.from({ length: end - from }, (_, i) => from + i)];
    parts.push({
      ...table,
      caption: parts.length === 0 ? table.caption : `${table.caption} (continued)`,
      groups: table.groups === null ? null : [...(isFirst ? [] : [{ title: '', columns: 1 }]), ...taken],
      columns: chosen.flatMap((i) => table.columns[i] ?? []),
      rows: table.rows.map((row) => chosen.map((i) => row[i] ?? null)),
    });
    [from, taken, width] = [end, [], first];
  };
  for (const group of groups) {
    const own = Array.from({ length: group.columns }, (_, i) => texWidth(table, place + i));
    const wide = own.reduce((sum, one) => sum + one, 0);
    if (width + wide > room && place > 1) flush(place);
    taken.push(group);
    width += place === 0 ? 0 : wide;
    place += group.columns;
  }
  flush(place);
  return parts;
}

function texTable(table: Table, environment: 'table' | 'sidewaystable'): readonly string[] {
  const wide = table.columns.map((_, i) => isNumeric(table, i));
  const cell = (value: CsvCell, of: Column, i: number): string => {
    if (isNumberCell(value)) return texNumber(value, of.digits);
    return wide[i] === true ? ' & ' : texText(cellText(value, of));
  };
  return [
    `\\begin{${environment}}${environment === 'table' ? '[htbp]' : ''}`,
    '\\centering',
    `\\caption{${texText(table.caption)}}`,
    `\\begin{tabular}{${wide.map((is) => (is ? 'r@{}l' : 'l')).join('')}}`,
    '\\toprule',
    ...(table.groups === null ? [] : texGroups(table.groups, wide)),
    `${table.columns.map((of, i) => texHead(of, wide[i] === true)).join(' & ')} \\\\`,
    '\\midrule',
    ...table.rows.map(
      (row) => `${table.columns.map((of, i) => cell(row[i] ?? null, of, i)).join(' & ')} \\\\`,
    ),
    '\\bottomrule',
    '\\end{tabular}',
    `\\end{${environment}}`,
  ];
}

/** A table of LaTeX: one that is wider than the page is turned, or parted where it is too wide even for that. */
function asTex(table: Table, { part = false }: TableOptions): string {
  const width = table.columns.reduce((sum, _, i) => sum + texWidth(table, i), 0);
  const isTurned = width > UPRIGHT;
  const tables = width > TURNED ? partsOf(table, TURNED) : [table];
  const body = tables.flatMap((one) => texTable(one, isTurned ? 'sidewaystable' : 'table'));
  const needs = isTurned ? ['% needs \\usepackage{rotating}'] : [];
  return part
    ? `${[...needs, ...body].join('\n')}\n`
    : texDocument(body, { head: ['\\usepackage{rotating}'] });
}

const WRITERS: Readonly<Record<TableFormat, (table: Table, options: TableOptions) => string>> = {
  csv: asCsv,
  md: asMarkdown,
  tex: asTex,
  html: asHtml,
  txt: asText,
};

/**
 * Writes a table as CSV (RFC 4180, whole doubles), Markdown, LaTeX (booktabs, numbers aligned at the point), HTML or plain
 * text. Nothing that a person typed becomes markup, a command or a formula of a spreadsheet.
 *
 * @example writeTable(studyTable(report, 'rungs'), 'csv').startsWith('h,') // true
 */
export function writeTable(table: Table, format: TableFormat, options: TableOptions = {}): string {
  return WRITERS[format](table, options);
}
