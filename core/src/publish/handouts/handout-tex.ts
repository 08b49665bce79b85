import { type CsvCell, isNumberCell, nearestDouble, numberText } from '../csv.ts';
import { cellText, numberParts } from '../tables/cell-text.ts';
import type { Column, Table } from '../tables/table.ts';
import { texDocument, texText } from '../tables/tex-text.ts';
import type { Handout } from './handout.ts';
import type { Paper } from './handout-html.ts';
import { withNumbers } from './hidden-numbers.ts';
import { type Keys, keyTables } from './keys.ts';

function valueTex(value: CsvCell, of: Column): string {
  if (!isNumberCell(value)) return texText(cellText(value, of));
  if (!Number.isFinite(nearestDouble(value))) return texText(numberText(value));
  const { mantissa, exponent } = numberParts(value, of.digits);
  return `$${mantissa}${exponent === null ? '' : ` \\cdot 10^{${exponent}}`}$`;
}

function cellTex(value: CsvCell, of: Column, blank: boolean, solved: boolean): string {
  if (!blank) return valueTex(value, of);
  return solved ? `\\textcolor{answer}{${valueTex(value, of)}}` : '\\hspace*{1.6cm}';
}

function tableTex(
  { groups, columns, rows }: Table,
  blank: Handout['blank'],
  solved: boolean,
): readonly string[] {
  const over = groups?.map(({ title, columns: count }) => `\\multicolumn{${count}}{|c|}{${texText(title)}}`);
  return [
    '{\\footnotesize\\renewcommand{\\arraystretch}{1.35}\\setlength{\\tabcolsep}{3.5pt}',
    `\\begin{longtable}{|${columns.map(() => 'r|').join('')}}`,
    '\\hline',
    ...(over === undefined ? [] : [`${over.join(' & ')} \\\\ \\hline`]),
    `${columns.map(({ title, tex }) => (tex === null ? texText(title) : `$${tex}$`)).join(' & ')} \\\\ \\hline`,
    '\\endhead',
    ...rows.map(
      (row, r) =>
        `${columns.map((of, i) => cellTex(row[i] ?? null, of, blank[r]?.[i] === true, solved)).join(' & ')} \\\\ \\hline`,
    ),
    '\\end{longtable}}',
  ];
}

function sheetTex(handout: Handout, solved: boolean): readonly string[] {
  const { title, number, task, problem, methods, hidesNumbers, table, blank, digits, plot } = handout;
  const hidden = (tex: string): string => {
    if (!hidesNumbers) return tex;
    return withNumbers(tex, (text) => (solved ? `\\textcolor{answer}{${text}}` : '\\boxed{\\phantom{00}}'));
  };
  const name = solved ? '\\textcolor{answer}{answer key}' : 'Name: \\underline{\\hspace{5cm}}';
  const hasBlanks = blank.some((row) => row.includes(true));
  return [
    `\\noindent{\\Large\\bfseries ${texText(title)}${number === null ? '' : `, sheet ${number}`}}\\hfill ${name}\\par\\smallskip\\hrule\\medskip`,
    ...task.map((line) => `\\noindent ${texText(line)}\\par\\smallskip`),
    ...problem.filter((line) => line !== '').map((line) => `\\[ ${line} \\]`),
    ...methods.flatMap((method) => [
      `\\noindent\\textbf{${texText(method.title)}}`,
      ...method.lines.map((line) => `\\[ ${hidden(line)} \\]`),
    ]),
    ...(hasBlanks && !solved ? [`\\noindent Fill in the blanks to ${digits} significant digits.\\par`] : []),
    `\\noindent ${texText(table.caption)}`,
    ...tableTex(table, blank, solved),
    ...(plot === null ? [] : ['\\noindent\\framebox[\\linewidth]{\\rule{0pt}{6cm}}\\par']),
    '\\clearpage',
  ];
}

/** Sheets as a document of LaTeX, one after another; solved ones with their answers in another colour, and all keys. */
export function handoutTex(
  handouts: readonly Handout[],
  solved: boolean,
  paper: Paper,
  keys: Keys | null,
): string {
  const body = [
    '\\pagestyle{empty}',
    ...handouts.flatMap((handout) => sheetTex(handout, solved)),
    ...(solved && keys !== null
      ? [
          '\\noindent\\textbf{All keys}',
          ...(keys.note === null ? [] : [`\\par\\noindent ${texText(keys.note)}`]),
          ...keyTables(keys).flatMap((table) => tableTex(table, [], true)),
        ]
      : []),
  ];
  return texDocument(body, {
    options: paper === 'A4' ? 'a4paper' : 'letterpaper',
    head: ['\\usepackage{xcolor}', '\\usepackage{longtable}', '\\definecolor{answer}{HTML}{B5490F}'],
  });
}
