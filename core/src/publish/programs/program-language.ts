import { SPELLED_POWERS } from '../../formula/arithmetic.ts';
import type { Leaf } from '../../formula/expression.ts';
import { atom, type Language, type TextPart, textLanguage, within } from '../../formula/printer.ts';
import type { FormulaWriting } from './language.ts';

/** Functions that every language rounds alike. */
const EXACT: ReadonlySet<string> = new Set(['sqrt', 'abs', 'sign', 'floor', 'min', 'max', 'mod']);

/** A number of either sign as a part of a formula. */
export function numberPart(value: number, { number }: Pick<FormulaWriting, 'number'>): TextPart {
  return value < 0 || Object.is(value, -0)
    ? { text: `-${number(-value)}`, holds: 'sign' }
    : atom(number(value));
}

/**
 * A programming language or a spreadsheet as a language of formulas: every operation in the order of the text, squares
 * and cubes as products, as a run has them.
 *
 * @param leaf what represents a name
 * @param used is called with every function whose rounding differs from language to language
 */
export function programLanguage<L extends Leaf>(
  writing: FormulaWriting,
  leaf: (node: L) => TextPart,
  used: (name: string) => void,
): Language<TextPart, L> {
  return textLanguage({
    number: writing.number,
    leaf,
    signs: { '+': ' + ', '-': ' - ', '*': '*', '/': '/' },
    power: (base, exponent, whole) => {
      if (whole !== null && SPELLED_POWERS.has(whole)) {
        const factor = within(base, 'atom');
        return { text: Array.from({ length: whole }, () => factor).join('*'), holds: 'product' };
      }
      used('^');
      return writing.power(base.text, exponent.text);
    },
    call: ({ name }, inputs) => {
      if (!EXACT.has(name)) used(name);
      return writing.call(name, inputs);
    },
    choice: writing.choice,
  });
}
