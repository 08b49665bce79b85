import { mathJaxLine } from './moodle-xml.ts';
import type { Question } from './question.ts';

/** Signs that mean something in GIFT, and the backslash of its escapes. */
function escaped(text: string): string {
  return text.replace(/[\\~=#{}:]/g, (sign) => `\\${sign}`).replace(/\s*\n\s*/g, ' ');
}

/**
 * Questions in GIFT: numerical answers with a tolerance, formulas for MathJax. The format has no files, so plots are left
 * out.
 *
 * Source: Moodle documentation, "GIFT format".
 */
export function gift(title: string, questions: readonly Question[]): string {
  return [
    `$CATEGORY: $course$/${title.replaceAll('/', '//').replace(/\s+/g, ' ')}`,
    '',
    ...questions.flatMap(({ name, lines, answer, tolerance }) => [
      `::${escaped(name)}::[html]${escaped(lines.map((line) => mathJaxLine(line, '')).join(''))}{#${answer}:${tolerance}}`,
      '',
    ]),
  ].join('\n');
}
