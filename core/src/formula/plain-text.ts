import { primed } from '../text/primes.ts';
import type { Expression, Operator } from './expression.ts';

const TIGHTNESS: Readonly<Record<Operator, number>> = { '+': 1, '-': 1, '*': 2, '/': 2, '^': 4 };
const SIGN = 3;
const ATOM = 5;

function tightness(expression: Expression): number {
  switch (expression.kind) {
    case 'binary':
      return TIGHTNESS[expression.operator];
    case 'negate':
      return Math.min(SIGN, Math.max(TIGHTNESS['*'], tightness(expression.of)));
    default:
      return ATOM;
  }
}

function within(expression: Expression, least: number): string {
  const text = plainText(expression);
  return tightness(expression) < least ? `(${text})` : text;
}

/** A formula in the notation itself, with the brackets that its order of operations needs and no others. */
export function plainText(expression: Expression): string {
  switch (expression.kind) {
    case 'number':
      return String(expression.value);
    case 'name':
      return primed(expression.name, expression.primes);
    case 'indexed':
      return primed(`${expression.name}[${plainText(expression.index)}]`, expression.primes);
    case 'negate':
      return `-${within(expression.of, TIGHTNESS['*'])}`;
    case 'binary': {
      const { operator, left, right } = expression;
      const own = TIGHTNESS[operator];
      if (operator === '^') return `${within(left, ATOM)}^${within(right, SIGN)}`;
      const spaced = own === 1 ? ` ${operator} ` : operator;
      return `${within(left, own)}${spaced}${within(right, own + 1)}`;
    }
    case 'call':
      return `${primed(expression.name, expression.primes)}(${expression.inputs.map(plainText).join(', ')})`;
    case 'if': {
      const { test, yes, no } = expression;
      const condition = `${plainText(test.left)} ${test.relation} ${plainText(test.right)}`;
      return `if(${condition}, ${plainText(yes)}, ${plainText(no)})`;
    }
  }
}
