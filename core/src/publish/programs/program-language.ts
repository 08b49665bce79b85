import { SPELLED_POWERS } from '../../formula/arithmetic.ts';
import type { Leaf } from '../../formula/expression.ts';
import { atom, type Language, type TextPart, textLanguage, within } from '../../formula/printer.ts';
import type { FormulaWriting } from './language.ts';

/** Largest integer that is written without a point. */
const MAX_INTEGER = 1e6;

/** An integer in a formula, which can be written without a point beside a double. */
interface IntegerPart extends TextPart {
  readonly integer: string;
}

function isInteger(part: TextPart): part is IntegerPart {
  return 'integer' in part;
}

function besideDouble(part: TextPart): TextPart {
  return isInteger(part) ? atom(part.integer) : part;
}

/** Functions that every language rounds alike. */
const EXACT: ReadonlySet<string> = new Set(['sqrt', 'abs', 'sign', 'floor', 'min', 'max', 'mod']);

/** A number of either sign as a part of a formula. */
export function numberPart(value: number, { number }: Pick<FormulaWriting, 'number'>): TextPart {
  return value < 0 || Object.is(value, -0)
    ? { text: `-${number(-value)}`, holds: 'sign' }
    : atom(number(value));
}

/** A constant of the notation with the digits that the language is to have of it, or any number that has no name. */
export function constantPart(name: string | null, value: number, writing: FormulaWriting): TextPart {
  const digits = name === null ? null : (writing.constantDigits?.(name) ?? null);
  return digits === null ? numberPart(value, writing) : atom(writing.number(value, digits));
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
  const plain = textLanguage({
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
      if (!EXACT.has(name) || writing.inexact?.has(name) === true) used(name);
      return writing.call(name, inputs);
    },
    choice: writing.choice,
  });
  if (writing.integers === 'as numbers') return plain;
  type Both = (left: TextPart, right: TextPart) => TextPart;
  const mixed =
    (make: Both, isDouble: boolean): Both =>
    (left, right) =>
      isInteger(left) && isInteger(right) && !isDouble
        ? make(left, right)
        : make(besideDouble(left), besideDouble(right));
  return {
    ...plain,
    number: (value, digits): TextPart => {
      const part = plain.number(value, digits);
      if (!Number.isInteger(value) || value <= 0 || value > MAX_INTEGER) return part;
      const integer: IntegerPart = { ...part, integer: String(value) };
      return integer;
    },
    sum: (operator, left, right) => mixed((a, b) => plain.sum(operator, a, b), false)(left, right),
    product: mixed(plain.product, false),
    quotient: mixed(plain.quotient, writing.integers === 'in quotients'),
  };
}
