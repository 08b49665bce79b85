import { pow } from '../elementary/power.ts';
import {
  binary,
  call,
  type Expression,
  type Leaf,
  negate,
  number,
  type Operator,
  type Tree,
} from './expression.ts';

/**
 * Constructors that leave out what a reader would leave out: 0 + x, 1*x, x^1, --x.
 * They are for derivatives and rearranged equations only; a text of the user runs as written.
 */
export const simple = { add, subtract, multiply, divide, raise, negated, apply };

function isNumber<L extends Leaf>(expression: Tree<L>, value: number): boolean {
  return constantOf(expression) === value;
}

/** The value of a plain number, also a negated one; null for anything else. */
export function constantOf<L extends Leaf>(expression: Tree<L>): number | null {
  if (expression.kind === 'number') return expression.value;
  if (expression.kind === 'negate' && expression.of.kind === 'number') return -expression.of.value;
  return null;
}

/** Folds two plain numbers where the result is a whole number, so that no decimals appear that nobody wrote. */
function folded<L extends Leaf>(operator: Operator, left: Tree<L>, right: Tree<L>): Tree<L> | null {
  const a = constantOf(left);
  const b = constantOf(right);
  if (a === null || b === null || !Number.isSafeInteger(a) || !Number.isSafeInteger(b)) return null;
  const results: Readonly<Record<Operator, number>> = {
    '+': a + b,
    '-': a - b,
    '*': a * b,
    '/': a / b,
    '^': pow(a, b),
  };
  const value = results[operator];
  return Number.isSafeInteger(value) ? number(value) : null;
}

function add<L extends Leaf>(left: Tree<L>, right: Tree<L>): Tree<L> {
  if (isNumber(left, 0)) return right;
  if (isNumber(right, 0)) return left;
  if (right.kind === 'negate') return subtract(left, right.of);
  if (left.kind === 'negate') return subtract(right, left.of);
  return folded('+', left, right) ?? binary('+', left, right);
}

function subtract<L extends Leaf>(left: Tree<L>, right: Tree<L>): Tree<L> {
  if (isNumber(right, 0)) return left;
  if (isNumber(left, 0)) return negated(right);
  if (right.kind === 'negate') return add(left, right.of);
  if (same(left, right)) return number(0);
  return folded('-', left, right) ?? binary('-', left, right);
}

function multiply<L extends Leaf>(left: Tree<L>, right: Tree<L>): Tree<L> {
  if (isNumber(left, 0) || isNumber(right, 0)) return number(0);
  if (isNumber(left, 1)) return right;
  if (isNumber(right, 1)) return left;
  if (left.kind === 'negate') return negated(multiply(left.of, right));
  if (right.kind === 'negate') return negated(multiply(left, right.of));
  const whole = folded('*', left, right);
  if (whole !== null) return whole;
  const a = constantOf(left);
  if (a === null && constantOf(right) !== null) return multiply(right, left);
  if (a !== null && right.kind === 'binary' && right.operator === '*' && constantOf(right.left) !== null) {
    const both = folded('*', left, right.left);
    return both === null ? binary('*', left, right) : multiply(both, right.right);
  }
  if (left.kind === 'binary' && left.operator === '/' && isNumber(left.left, 1))
    return divide(right, left.right);
  if (right.kind === 'binary' && right.operator === '/')
    return divide(multiply(left, right.left), right.right);
  if (same(left, right)) return raise(left, number(2));
  return binary('*', left, right);
}

function divide<L extends Leaf>(left: Tree<L>, right: Tree<L>): Tree<L> {
  if (isNumber(left, 0)) return number(0);
  if (isNumber(right, 1)) return left;
  if (isNumber(right, -1)) return negated(left);
  if (left.kind === 'negate') return negated(divide(left.of, right));
  if (right.kind === 'negate') return negated(divide(left, right.of));
  if (same(left, right)) return number(1);
  const cancelled = cancel(left, right);
  if (cancelled !== null) return cancelled;
  if (left.kind === 'binary' && left.operator === '/') return divide(left.left, multiply(left.right, right));
  return folded('/', left, right) ?? binary('/', left, right);
}

/** Cancels a common whole number in front: 2*x/2 and 4*x/2. */
function cancel<L extends Leaf>(left: Tree<L>, right: Tree<L>): Tree<L> | null {
  const divisor = constantOf(right);
  if (divisor === null || left.kind !== 'binary' || left.operator !== '*') return null;
  const whole = folded('/', left.left, right);
  return whole === null ? null : multiply(whole, left.right);
}

function raise<L extends Leaf>(base: Tree<L>, exponent: Tree<L>): Tree<L> {
  if (isNumber(exponent, 0)) return number(1);
  if (isNumber(exponent, 1)) return base;
  if (base.kind === 'binary' && base.operator === '^') {
    const inner = folded('*', base.right, exponent);
    if (inner !== null && constantOf(base.right) !== null) return raise(base.left, inner);
  }
  return folded('^', base, exponent) ?? binary('^', base, exponent);
}

function negated<L extends Leaf>(of: Tree<L>): Tree<L> {
  if (of.kind === 'negate') return of.of;
  if (isNumber(of, 0)) return of;
  if (of.kind === 'binary' && of.operator === '-') return binary('-', of.right, of.left);
  return negate(of);
}

function apply<L extends Leaf>(text: string, ...inputs: Tree<L>[]): Tree<L> {
  return call(text, inputs);
}

/** Whether two trees say the same, place in the text apart. */
export function same<L extends Leaf>(left: Tree<L>, right: Tree<L>): boolean {
  if (left === right) return true;
  switch (left.kind) {
    case 'number':
      return right.kind === 'number' && left.value === right.value;
    case 'negate':
      return right.kind === 'negate' && same(left.of, right.of);
    case 'binary':
      return (
        right.kind === 'binary' &&
        left.operator === right.operator &&
        same(left.left, right.left) &&
        same(left.right, right.right)
      );
    case 'call':
      return (
        right.kind === 'call' &&
        left.name === right.name &&
        left.primes === right.primes &&
        left.inputs.length === right.inputs.length &&
        left.inputs.every((input, i) => same(input, right.inputs[i]!))
      );
    case 'if':
      return false;
    default:
      return sameLeaf(left, right);
  }
}

function sameLeaf(left: Leaf, right: Tree<Leaf>): boolean {
  if (left.kind === 'bound') return right.kind === 'bound' && left.key === right.key;
  if (left.kind === 'name')
    return right.kind === 'name' && left.name === right.name && left.primes === right.primes;
  return (
    right.kind === 'indexed' &&
    left.name === right.name &&
    left.primes === right.primes &&
    same(left.index, right.index)
  );
}

/** The same tree, built again with `simple`. */
export function simplified(expression: Expression): Expression {
  if (expression.kind === 'negate') return negated(simplified(expression.of));
  if (expression.kind === 'call') return { ...expression, inputs: expression.inputs.map(simplified) };
  if (expression.kind !== 'binary') return expression;
  const left = simplified(expression.left);
  const right = simplified(expression.right);
  switch (expression.operator) {
    case '+':
      return add(left, right);
    case '-':
      return subtract(left, right);
    case '*':
      return multiply(left, right);
    case '/':
      return divide(left, right);
    case '^':
      return raise(left, right);
  }
}
