import { oneLine } from '../tables/cell-text.ts';
import type { ProgramParts } from './language.ts';

/** How programs of a language are called, for the head of a program. */
export interface ProgramUse {
  /** Commands that come before, such as the one that compiles. */
  readonly before: readonly string[];
  /** The command that prints the rows, and the one with step sizes as arguments. */
  readonly rows: string;
  readonly sizes: string;
  /** Whose functions are called. */
  readonly library: string;
  /** What draws the rows in a file rows.csv; null where the program has lines that do. */
  readonly plot: 'gnuplot' | null;
}

/** What rounds decimal digits as Schritt does. */
export const PYTHON_DECIMALS = "Python's decimal module";

/** Most components that a plot shows. */
export const MAX_PLOTTED = 8;

function linesOf(text: string): readonly string[] {
  return text
    .trimEnd()
    .split(/\r?\n/)
    .map((line) => (line.trim() === '' ? '' : `  ${oneLine(line)}`));
}

/** What draws the rows by gnuplot. */
function gnuplot(rows: string, size: number): readonly string[] {
  const last = 2 + Math.min(size, MAX_PLOTTED);
  const columns = last === 3 ? '"rows.csv" using 2:3' : `for [i=3:${last}] "rows.csv" using 2:i`;
  const title = last === 3 ? 'title columnheader' : 'title columnheader(i)';
  return [
    `${rows} > rows.csv`,
    `gnuplot -p -e 'set datafile separator ","; plot ${columns} with linespoints ${title}'`,
  ];
}

/**
 * What is at the head of a program: what it computes, the texts of the problem and the method with the comments of their
 * author, how it is called, what may differ from Schritt.
 */
export function headNotes(
  parts: ProgramParts,
  { before, rows, sizes, library, plot }: ProgramUse,
): readonly string[] {
  const { title, statement, step, starter, functions, exact, size } = parts;
  const differs = functions.map((name) => (name === '^' ? 'powers' : name)).join(', ');
  const wide = Math.max(rows.length, sizes.length);
  return [
    `${oneLine(title)}: ${oneLine(step.title)}`,
    '',
    ...linesOf(statement),
    '',
    ...linesOf(step.text),
    ...(starter === null ? [] : ['', `started by ${oneLine(starter.title)}:`, ...linesOf(starter.text)]),
    '',
    ...before,
    `${rows.padEnd(wide)}  prints the rows: n, ${oneLine(parts.independent)}, values`,
    `${sizes.padEnd(wide)}  prints, for these step sizes, ${exact === null ? 'the values at the end' : 'the errors at the end and the orders'}`,
    ...(plot === null ? [] : gnuplot(rows, size)),
    '',
    differenceNote(parts, differs, library),
  ];
}

/** What may differ from the digits of Schritt. */
function differenceNote({ decimal }: ProgramParts, differs: string, library: string): string {
  if (decimal !== null && library !== PYTHON_DECIMALS)
    return `The digits may differ from those of Schritt in the last places: ${library} rounds in binary, to about as many digits.`;
  return differs === ''
    ? 'Only +, -, *, / and roots: all digits agree with those of Schritt.'
    : `The digits may differ from those of Schritt in the last places: ${library} rounds ${differs} differently.`;
}

/** The place of every component of the state in the vectors of the method. */
export function placesByComponent({
  places,
  size,
}: ProgramParts): readonly { vector: number; index: number }[] {
  const found: { vector: number; index: number }[] = [];
  places.forEach((list, vector) =>
    list.forEach((place, index) => {
      found[place] = { vector, index };
    }),
  );
  return found.slice(0, size);
}
