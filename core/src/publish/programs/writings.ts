import type { Relation } from '../../formula/expression.ts';
import { atom } from '../../formula/printer.ts';
import type { LanguageName, Writing } from './language.ts';

/** A counter and a whole number: `j`, `j + 1`, `j - 2`. */
function shifted(counter: string, ahead: number): string {
  return ahead === 0 ? counter : ahead > 0 ? `${counter} + ${ahead}` : `${counter} - ${-ahead}`;
}

/** The shortest decimals that are read back as the same double, with a point or an exponent. */
function decimal(value: number): string {
  const text = String(value);
  return /[.e]/.test(text) ? text : `${text}.0`;
}

const LIKE_C = {
  at: (vector: string, index: string): string => `${vector}[${index}]`,
  element: (vector: string, i: number): string => `${vector}[${i}]`,
  running: (vector: string, counter: string, ahead: number): string =>
    `${vector}[${shifted(counter, ahead)}]`,
};

/** Min and max of many as calls of two. */
function nested(name: string, inputs: readonly string[]): string {
  return inputs.slice(1).reduce((left, right) => `${name}(${left}, ${right})`, inputs[0] ?? '');
}

const C_NAMES: Readonly<Record<string, string>> = {
  ln: 'log',
  abs: 'fabs',
  sign: 'sign',
  min: 'fmin',
  max: 'fmax',
};

const C: Writing = {
  ...LIKE_C,
  number: decimal,
  power: (base, exponent) => atom(`pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = C_NAMES[name] ?? name;
    return name === 'min' || name === 'max' ? nested(own, inputs) : `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) => `(${left} ${relation} ${right} ? ${yes} : ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? `(double)${counter}` : `(double)(${shifted(counter, ahead)})`),
};

const PYTHON_OWN: ReadonlySet<string> = new Set(['abs', 'min', 'max', 'sign', 'mod', 'cbrt', 'floor']);

const PYTHON: Writing = {
  ...LIKE_C,
  number: decimal,
  power: (base, exponent) => atom(`math.pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = name === 'ln' ? 'math.log' : PYTHON_OWN.has(name) ? name : `math.${name}`;
    return `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) => `(${yes} if ${left} ${relation} ${right} else ${no})`,
  counted: (counter, ahead) => `float(${shifted(counter, ahead)})`,
};

const JAVASCRIPT: Writing = {
  ...LIKE_C,
  number: String,
  power: (base, exponent) => atom(`Math.pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = name === 'ln' ? 'Math.log' : name === 'mod' ? 'mod' : `Math.${name}`;
    return `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) =>
    `(${left} ${relation === '==' ? '===' : relation === '!=' ? '!==' : relation} ${right} ? ${yes} : ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? counter : `(${shifted(counter, ahead)})`),
};

const FORTRAN_RELATION: Readonly<Record<Relation, string>> = {
  '<': '<',
  '<=': '<=',
  '>': '>',
  '>=': '>=',
  '==': '==',
  '!=': '/=',
};

const FORTRAN_NAMES: Readonly<Record<string, string>> = {
  ln: 'log',
  log2: 'log_2',
  cbrt: 'cube_root',
  sign: 'sign_of',
  floor: 'whole_below',
  mod: 'remainder',
};

const FORTRAN: Writing = {
  number: (value) => {
    const text = decimal(value);
    return text.includes('e') ? text.replace('e', 'd') : `${text}d0`;
  },
  power: (base, exponent) => ({ text: `(${base})**(${exponent})`, holds: 'power' }),
  call: (name, inputs) => `${FORTRAN_NAMES[name] ?? name}(${inputs.join(', ')})`,
  choice: ({ left, relation, right, yes, no }) =>
    `merge(${yes}, ${no}, ${left} ${FORTRAN_RELATION[relation]} ${right})`,
  at: (vector, index) => `${vector}(${index} + 1)`,
  element: (vector, i) => `${vector}(${i + 1})`,
  running: (vector, counter, ahead) => `${vector}(${shifted(counter, ahead + 1)})`,
  counted: (counter, ahead) => `real(${shifted(counter, ahead)}, dp)`,
};

/** How each language writes the parts of a formula. */
export const WRITINGS: Readonly<Record<LanguageName, Writing>> = {
  c: C,
  py: PYTHON,
  js: JAVASCRIPT,
  f90: FORTRAN,
};
