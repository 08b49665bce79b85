import type { Span } from './place.ts';

/** The arithmetic operators; `^` is a power. */
export type Operator = '+' | '-' | '*' | '/' | '^';

/** The comparisons that may stand in `if(a < b, x, y)`. */
export type Relation = '<' | '<=' | '>' | '>=' | '==' | '!=';

/**
 * A formula as it was written: one node for each operation, in the text's own order.
 * Brackets leave no node, they only shape the tree. `at` is the place in the text.
 */
export type Expression =
  | NumberLeaf
  | NameLeaf
  | IndexedLeaf
  | { readonly kind: 'negate'; readonly of: Expression; readonly at: Span }
  | {
      readonly kind: 'binary';
      readonly operator: Operator;
      readonly left: Expression;
      readonly right: Expression;
      readonly at: Span;
    }
  | {
      /** `sin(x)`, and also `f'(t, y)` of a method or `x(0)` of a problem: who reads it decides. */
      readonly kind: 'call';
      readonly name: string;
      readonly primes: number;
      readonly inputs: readonly Expression[];
      readonly at: Span;
      readonly nameAt: Span;
    }
  | {
      readonly kind: 'if';
      readonly test: Comparison;
      readonly yes: Expression;
      readonly no: Expression;
      readonly at: Span;
    };

export interface NumberLeaf {
  readonly kind: 'number';
  readonly value: number;
  readonly at: Span;
}

/** A name, with the primes behind it: `x` or `x''`. */
export interface NameLeaf {
  readonly kind: 'name';
  readonly name: string;
  readonly primes: number;
  readonly at: Span;
}

/** A name with an index: `u[i-1]`, `y[n+1]`, `x'[i]` is written `x[i]'`. */
export interface IndexedLeaf {
  readonly kind: 'indexed';
  readonly name: string;
  readonly primes: number;
  readonly index: Expression;
  readonly at: Span;
}

export interface Comparison {
  readonly relation: Relation;
  readonly left: Expression;
  readonly right: Expression;
  readonly at: Span;
}

/** The parts of a node that are expressions themselves, in the order of the text. */
export function partsOf(expression: Expression): readonly Expression[] {
  switch (expression.kind) {
    case 'number':
    case 'name':
      return [];
    case 'indexed':
      return [expression.index];
    case 'negate':
      return [expression.of];
    case 'binary':
      return [expression.left, expression.right];
    case 'call':
      return expression.inputs;
    case 'if':
      return [expression.test.left, expression.test.right, expression.yes, expression.no];
  }
}

/** Calls `visit` for the node and all below it, in the order of the text. */
export function walk(expression: Expression, visit: (node: Expression) => void): void {
  visit(expression);
  for (const part of partsOf(expression)) walk(part, visit);
}

/** Whether some node of the tree answers to `is`. */
export function some(expression: Expression, is: (node: Expression) => boolean): boolean {
  return is(expression) || partsOf(expression).some((part) => some(part, is));
}

const NOWHERE: Span = { from: 0, to: 0 };

/** A number as a node; a negative one as the negation of a positive one, as it would be written. */
export function number(value: number, at: Span = NOWHERE): Expression {
  return value < 0 || Object.is(value, -0)
    ? { kind: 'negate', of: { kind: 'number', value: -value, at }, at }
    : { kind: 'number', value, at };
}

export function name(text: string, primes = 0, at: Span = NOWHERE): NameLeaf {
  return { kind: 'name', name: text, primes, at };
}

export function binary(operator: Operator, left: Expression, right: Expression, at?: Span): Expression {
  return { kind: 'binary', operator, left, right, at: at ?? NOWHERE };
}

export function negate(of: Expression, at: Span = NOWHERE): Expression {
  return { kind: 'negate', of, at };
}

export function call(text: string, inputs: readonly Expression[], at: Span = NOWHERE): Expression {
  return { kind: 'call', name: text, primes: 0, inputs, at, nameAt: at };
}

/** The same tree with some nodes exchanged: where `change` answers null the node stays and its parts are asked. */
export function rewrite(expression: Expression, change: (node: Expression) => Expression | null): Expression {
  const changed = change(expression);
  if (changed !== null) return changed;
  const again = (part: Expression): Expression => rewrite(part, change);
  switch (expression.kind) {
    case 'number':
    case 'name':
      return expression;
    case 'indexed':
      return { ...expression, index: again(expression.index) };
    case 'negate':
      return { ...expression, of: again(expression.of) };
    case 'binary':
      return { ...expression, left: again(expression.left), right: again(expression.right) };
    case 'call':
      return { ...expression, inputs: expression.inputs.map(again) };
    case 'if':
      return {
        ...expression,
        test: {
          ...expression.test,
          left: again(expression.test.left),
          right: again(expression.test.right),
        },
        yes: again(expression.yes),
        no: again(expression.no),
      };
  }
}
