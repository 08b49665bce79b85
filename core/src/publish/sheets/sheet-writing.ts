import { atom } from '../../formula/printer.ts';
import type { FormulaWriting } from '../programs/language.ts';

/** Digits of a number that a spreadsheet reads from a formula; it drops those behind. */
const MAX_DIGITS = 15;

function digitsOf(text: string): number {
  return text.replace(/[.-]/g, '').replace(/^0+/, '').length;
}

/** A number that a formula may hold as it is, or as a quotient of two; null for one that needs a cell of its own. */
export function shortNumber(value: number): string | null {
  const text = String(value);
  // not every spreadsheet reads a power of ten in a formula
  if (text.includes('e')) return null;
  if (digitsOf(text) <= MAX_DIGITS) return text;
  for (let below = 2; below <= 1000; below += 1) {
    const above = Math.round(value * below);
    if (above !== 0 && Math.abs(above) < 1e6 && above / below === value) return `(${above}/${below})`;
  }
  return null;
}

const NAMES: Readonly<Record<string, string>> = { ln: 'LN', log10: 'LOG10' };

/**
 * How a spreadsheet writes the parts of a formula. It reads -x^2 as (-x)^2 and 2^3^2 from the left: powers are calls
 * here, so that neither is in a formula.
 *
 * @param longNumber the name of a cell that holds a number with more digits than formulas keep
 */
export function sheetWriting(longNumber: (value: number) => string): FormulaWriting {
  return {
    number: (value) => shortNumber(value) ?? longNumber(value),
    integers: 'as numbers',
    power: (base, exponent) => atom(`POWER(${base},${exponent})`),
    call: (name, inputs) => {
      const [x = '', y = ''] = inputs;
      switch (name) {
        case 'atan2':
          return `ATAN2(${y},${x})`;
        case 'log2':
          return `LOG(${x},2)`;
        case 'cbrt':
          return `(SIGN(${x})*POWER(ABS(${x}),1/3))`;
        case 'floor':
          return `FLOOR(${x},1)`;
        case 'mod':
          return `((${x})-(${y})*FLOOR((${x})/(${y}),1))`;
        default:
          return `${NAMES[name] ?? name.toUpperCase()}(${inputs.join(',')})`;
      }
    },
    choice: ({ left, relation, right, yes, no }) => {
      const sign = relation === '==' ? '=' : relation === '!=' ? '<>' : relation;
      return `IF(${left}${sign}${right},${yes},${no})`;
    },
  };
}
