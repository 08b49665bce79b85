import Papa from 'papaparse';

/** One number of a student's table, as it is typed. */
export interface StudentCell {
  readonly text: string;
  readonly value: number;
  /** Digits behind the decimal sign, less the exponent: the last digit counts 10^-decimals. */
  readonly decimals: number;
  /** Significant digits as they are typed, zeros at the end among them. */
  readonly significant: number;
}

/** A column as it is read: its heading, and a cell a line; null where there is no number. */
export interface StudentTableColumn {
  /** Null in a table without headings. */
  readonly title: string | null;
  readonly cells: readonly (StudentCell | null)[];
}

/** A table of a student, as far as it is understood. */
export interface StudentTable {
  readonly columns: readonly StudentTableColumn[];
  /** The line of the text that each row is in, from 1. */
  readonly lines: readonly number[];
  readonly decimalSign: '.' | ',';
  /** Cells with something that is no number, by line and column; columns count from 0. */
  readonly unread: readonly { readonly line: number; readonly column: number; readonly text: string }[];
}

/** Most lines and columns that are read of one text. */
const MAX_LINES = 20_000;
const MAX_COLUMNS = 1_000;

/** Signs that separate thousands besides points and commas. */
const SPACES = /[ \u00a0\u202f\u2009']/;
const THOUSANDS = /^\d{1,3}(?:[ \u00a0\u202f\u2009']\d{3})+(?!\d)/;
const POWER_OF_TEN = /\s*[·×*x]\s*10\s*\^?\s*\{?\s*([-+]?\d+)\s*\}?/i;

/** The digits of a number before and behind its decimal sign; null for a text that is no number. */
function digitsOf(
  body: string,
  comma: boolean,
): { readonly whole: string; readonly decimals: string } | null {
  const closed = body.replace(THOUSANDS, (group) => group.replaceAll(/[^\d]/g, ''));
  if (SPACES.test(closed)) return null;
  const [decimal, other] = comma ? [',', '.'] : ['.', ','];
  const groups = closed.split(decimal)[0]?.split(other) ?? [];
  const isGrouped =
    groups.length > 1 &&
    /^\d{1,3}$/.test(groups[0] ?? '') &&
    groups.slice(1).every((one) => /^\d{3}$/.test(one));
  const plain = isGrouped ? closed.replaceAll(other, '') : closed;
  // a single other sign that separates no thousands is the decimal sign of this cell
  const [whole = '', decimals = '', ...more] = plain.split(/[.,]/);
  if (more.length > 0 || (whole === '' && decimals === '') || !/^\d*$/.test(whole + decimals)) return null;
  return { whole, decimals };
}

/**
 * A number with what is typed around it: signs of other fonts, separated thousands, a unit behind it, powers of ten.
 *
 * @param comma whether a comma is the decimal sign
 * @returns null for a text that is no number
 * @example studentCell('1,270 m', true)?.value // 1.27
 */
export function studentCell(typed: string, comma: boolean): StudentCell | null {
  const text = typed.trim();
  const plain = text.replaceAll(/[\u2212\u2013]/g, '-').replace(POWER_OF_TEN, 'e$1');
  const body = /^([-+]?)\s*([\d.,' \u00a0\u202f\u2009]*[\d.,])/.exec(plain);
  if (body === null) return null;
  const [all, sign = '', number = ''] = body;
  const rest = plain.slice(all.length);
  const exponent = /^[eE]([-+]?\d+)/.exec(rest);
  const unit = rest.slice(exponent?.[0].length ?? 0).trim();
  if (unit !== '' && !/^[^\d.,+-]/.test(unit)) return null;
  const digits = digitsOf(number, comma);
  return digits && cellOf(text, `${sign}${digits.whole}`, digits.decimals, Number(exponent?.[1] ?? 0));
}

function cellOf(text: string, whole: string, decimals: string, exponent: number): StudentCell {
  const digits = `${whole.replace(/^[-+]/, '')}${decimals}`.replace(/^0+/, '');
  const value = Number(`${/^[-+]?$/.test(whole) ? `${whole}0` : whole}.${decimals || '0'}e${exponent}`);
  return { text, value, decimals: decimals.length - exponent, significant: digits.length };
}

/** What separates the fields of a line. */
type Separator = '\t' | ';' | ',' | 'spaces';

function fieldsOf(line: string, separator: Separator): readonly string[] {
  if (separator === 'spaces') return line.trim().split(/\s+/);
  const [fields = []] = Papa.parse<readonly string[]>(line, { delimiter: separator }).data;
  return fields.map((one) => one.trim());
}

/** Whether commas between digits separate columns: then what is in front of them counts up evenly. */
function separatesColumns(lines: readonly string[]): boolean {
  const fronts = lines.map((line) => Number(line.split(',')[0]));
  const [first = NaN, second = NaN] = fronts;
  const step = second - first;
  return step > 0 && fronts.every((front, i) => front === first + i * step);
}

function separatorOf(lines: readonly string[]): Separator {
  const most = (sign: string): boolean =>
    lines.filter((line) => line.includes(sign)).length > lines.length / 2;
  if (most('\t')) return '\t';
  if (most(';')) return ';';
  const isBare = lines.every((line) => /^\s*[-+\u2212]?\d+,\d+\s*$/.test(line));
  if (most(',')) {
    if (isBare) return separatesColumns(lines) ? ',' : 'spaces';
    const isPoint =
      lines.some((line) => /\d\.\d/.test(line)) || lines.some((line) => line.split(',').length > 2);
    return isPoint || !lines.every((line) => /\d,\d/.test(line)) ? ',' : 'spaces';
  }
  // words of a heading may hold spaces; numbers do not
  return lines.some((line) => /[\d.]\s+[-+\u2212\d.]/.test(line.trim())) ? 'spaces' : '\t';
}

/** Whether numbers have a decimal comma: some number has one, and none has a point as its only sign. */
function hasComma(fields: readonly string[], separator: Separator): boolean {
  if (separator === ',') return false;
  const commas = fields.filter((field) => /\d,\d/.test(field)).length;
  const points = fields.filter((field) => /\d\.\d/.test(field) && !/\d,\d/.test(field)).length;
  // in 1.234,5 the last sign is the decimal one
  const both = fields.find((field) => /\d,\d/.test(field) && /\d\.\d/.test(field));
  if (both !== undefined) return both.lastIndexOf(',') > both.lastIndexOf('.');
  return commas > points;
}

/**
 * Whether the first row holds headings: words without a number among them, or a word over the numbers of the first column,
 * beside which headings such as numbers of students may be numbers themselves.
 */
function isHead(
  head: readonly string[],
  body: readonly (readonly string[])[],
  isNumber: (field: string) => boolean,
): boolean {
  const isWord = (field: string): boolean => field !== '' && !isNumber(field);
  const isBare = (field: string): boolean => /^[-+\u2212\d.,eE ]+$/.test(field);
  if (head.some(isWord) && !head.some(isBare)) return true;
  return isWord(head[0] ?? '') && body.length > 0 && body.every(([first = '']) => isBare(first));
}

/** A value behind its name, as programs print it: `y = 1.25`, `t: 0.1`. */
const NAMED = /([A-Za-z_][\w[\]']*)\s*[=:]\s*([-+\u2212]?[\d.,]+(?:[eE][-+]?\d+)?)/g;

/** Lines in which every value is behind its name, as a table with these names for headings; null for others. */
function withoutNames(lines: readonly UsedLine[]): readonly UsedLine[] | null {
  const found = lines.map(({ line }) => [...line.matchAll(NAMED)]);
  const names = found[0]?.map(([, name = '']) => name) ?? [];
  const isAlike = found.every(
    (pairs) => pairs.length === names.length && pairs.every(([, name], i) => name === names[i]),
  );
  if (names.length === 0 || !isAlike) return null;
  return [
    { line: names.join('\t'), number: 0 },
    ...found.map((pairs, i) => ({
      // a comma behind a value separates it from the next name
      line: pairs.map(([, , value = '']) => value.replace(/[.,]+$/, '')).join('\t'),
      number: lines[i]?.number ?? 0,
    })),
  ];
}

/** A line that says something, with its number. */
interface UsedLine {
  readonly line: string;
  readonly number: number;
}

/**
 * Reads a student's table from text: tabs, semicolons, commas or spaces between columns, a decimal point or comma, with or
 * without headings, with units and separated thousands, or values behind their names as programs print them. Lines that begin
 * with # say nothing.
 *
 * @param decimalSign as a person has said it is; null to find it
 * @example readStudentTable('n;y\n0;1,5\n1;1,25').columns[1]?.cells[1]?.value // 1.25
 */
export function readStudentTable(text: string, decimalSign: '.' | ',' | null = null): StudentTable {
  const all = text.split(/\r?\n/).slice(0, MAX_LINES);
  const plain = all.flatMap((line, i) =>
    line.trim() === '' || line.trimStart().startsWith('#') ? [] : [{ line, number: i + 1 }],
  );
  const used = withoutNames(plain) ?? plain;
  const separator = separatorOf(used.map(({ line }) => line));
  const rows = used.map(({ line }) => fieldsOf(line, separator).slice(0, MAX_COLUMNS));
  const comma = decimalSign === null ? hasComma(rows.flat(), separator) : decimalSign === ',';
  const [head = []] = rows;
  const isNumber = (field: string): boolean => studentCell(field, comma) !== null;
  const hasHead = isHead(head, rows.slice(1), isNumber);
  const body = hasHead ? rows.slice(1) : rows;
  const lines = used.slice(hasHead ? 1 : 0).map(({ number }) => number);
  const width = Math.max(0, ...rows.map((row) => row.length));
  const unread = body.flatMap((row, i) =>
    row.flatMap((field, column) =>
      field === '' || isNumber(field) ? [] : [{ line: lines[i] ?? 0, column, text: field }],
    ),
  );
  return {
    columns: Array.from({ length: width }, (_, j) => ({
      title: hasHead ? (head[j] ?? '') : null,
      cells: body.map((row) => studentCell(row[j] ?? '', comma)),
    })),
    lines,
    decimalSign: comma ? ',' : '.',
    unread,
  };
}
