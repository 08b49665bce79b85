import { oneLine } from '../tables/cell-text.ts';
import type { ProgramParts } from './language.ts';

/** Step sizes as arguments. */
const SIZES = ' H1 H2 ...';
const WIDE = SIZES.length;

/** What is at the head of a program: what it computes, how it is called, what may differ from Schritt. */
export function headNotes(parts: ProgramParts, call: string, library: string): readonly string[] {
  const { title, step, starter, functions, exact } = parts;
  const differs = functions.map((name) => (name === '^' ? 'powers' : name)).join(', ');
  return [
    `${oneLine(title)}: ${oneLine(step.title)}`,
    ...(starter === null ? [] : [`started by ${oneLine(starter.title)}`]),
    '',
    `${call}${' '.repeat(WIDE)}  prints the rows: n, ${oneLine(parts.independent)}, values`,
    `${call}${SIZES}  prints, for these step sizes, ${exact === null ? 'the values at the end' : 'the errors at the end and the orders'}`,
    '',
    differs === ''
      ? 'Only +, -, *, / and roots: all digits agree with those of Schritt.'
      : `The digits may differ from those of Schritt in the last places: ${library} rounds ${differs} differently.`,
    ...step.text
      .trimEnd()
      .split(/\r?\n/)
      .map((line) => `  ${oneLine(line)}`),
  ];
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
