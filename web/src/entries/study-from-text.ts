import type { StudyDocument } from '@schritt/core/document';
import { LIBRARY, type Problem, type Reading } from '@schritt/core/notation';

/** Methods that a study of a pasted text begins with. */
const METHODS = ['Euler', 'Heun', 'RK4'];
const COUNTS = [8, 16, 32, 64, 128, 256];
const LONGEST_TITLE = 80;

export type TextReading =
  | { readonly kind: 'study'; readonly document: StudyDocument }
  | { readonly kind: 'errors'; readonly told: readonly string[] };

/** Errors that are reported at a time. */
const TOLD = 4;

/** The first remark of a text, as a title. */
function titleOf(text: string): string {
  const remark = /^\s*#\s*(\S.*)$/m.exec(text)?.[1]?.trim() ?? '';
  return remark === '' ? 'New study' : remark.slice(0, LONGEST_TITLE);
}

/** A study of a problem that was pasted: with three methods and six step sizes to begin with. */
export function studyFromText(text: string, reading: Reading<Problem>): TextReading {
  if (!reading.ok)
    return {
      kind: 'errors',
      told: reading.errors
        .slice(0, TOLD)
        .map(({ line, column, message }) => `line ${line}, column ${column}: ${message}`),
    };
  const title = titleOf(text);
  return {
    kind: 'study',
    document: {
      schritt: 1,
      kind: 'study',
      title,
      problem: { title, text: text.endsWith('\n') ? text : `${text}\n` },
      methods: LIBRARY.filter((method) => METHODS.includes(method.title)).map((method) => ({
        title: method.title,
        text: method.text,
      })),
      ladder: { counts: COUNTS },
    },
  };
}
