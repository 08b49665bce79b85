import { atom } from '../../formula/printer.ts';
import { C_WORDS } from './reserved-words.ts';
import { BY_NAME, decimal, LIKE_C, nested, shifted } from './writing-parts.ts';
import type { Writing } from './language.ts';

/** Functions of the notation that C calls by another name. */
export const C_NAMES: Readonly<Record<string, string>> = {
  ln: 'log',
  abs: 'fabs',
  sign: 'sign',
  min: 'fmin',
  max: 'fmax',
};

/** How the language writes the parts of a formula. */
export const C: Writing = {
  ...LIKE_C,
  ...BY_NAME,
  reserved: C_WORDS,
  number: decimal,
  integers: 'beside doubles',
  isWhole: false,
  power: (base, exponent) => atom(`pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = C_NAMES[name] ?? name;
    return name === 'min' || name === 'max' ? nested(own, inputs) : `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) => `(${left} ${relation} ${right} ? ${yes} : ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? `(double)${counter}` : `(double)(${shifted(counter, ahead)})`),
};
