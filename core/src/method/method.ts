import { type Expression, walk } from '../formula/expression.ts';
import type { Span } from '../text/place.ts';

/** A number, or one value for each component. */
export type Shape = 'scalar' | 'vector';

/** What a step brings forward: y, or position and velocity. */
export type Variable = 'y' | 'x' | 'v';

/** A name that a line gives: a stage or constant, or a new value such as y[n+1]. */
export type Given =
  { readonly kind: 'name'; readonly name: string } | { readonly kind: 'next'; readonly variable: Variable };

/** One line of a method. */
export type MethodStatement =
  | {
      /** `k1 = f(t, y)`, a plain constant such as `theta = 1/2`, or a new value `y[n+1] = ...`. */
      readonly kind: 'let';
      readonly given: Given;
      readonly shape: Shape;
      readonly value: Expression;
      readonly at: Span;
    }
  | {
      /** `solve k1, k2 = ..., ...`: values that their own formulas hold, found by Newton's method. */
      readonly kind: 'solve';
      readonly given: readonly Given[];
      readonly values: readonly Expression[];
      readonly at: Span;
    };

/** A fixed-step formula, as its text says it. */
export interface Method {
  readonly text: string;
  /** For y' = f(t, y), or for x'' = a(t, x, x'). */
  readonly form: 'first order' | 'second order';
  /** In the order of the text. */
  readonly statements: readonly MethodStatement[];
  /** How many steps back its formula reaches; 0 for a one-step method. */
  readonly depth: number;
  /** The name of the method of its first steps; null where none is named. */
  readonly startWith: { readonly name: string; readonly at: Span } | null;
}

/** The formulas of a statement. */
export function valuesOf(statement: MethodStatement): readonly Expression[] {
  return statement.kind === 'let' ? [statement.value] : statement.values;
}

/** The names that a statement gives. */
export function givenBy(statement: MethodStatement): readonly Given[] {
  return statement.kind === 'let' ? [statement.given] : statement.given;
}

/** How a given name is written. */
export function givenText(given: Given): string {
  return given.kind === 'name' ? given.name : `${given.variable}[n+1]`;
}

/** Whether a node is a value kept from an earlier step, or f there: `y[n-1]`, `f[n]`; the steps back, else null. */
export function stepsBack(node: Expression): number | null {
  if (node.kind !== 'indexed' || node.primes > 0) return null;
  const { index } = node;
  if (index.kind === 'name') return index.name === 'n' && index.primes === 0 ? 0 : null;
  if (index.kind !== 'binary' || index.left.kind !== 'name' || index.left.name !== 'n') return null;
  if (index.right.kind !== 'number' || !Number.isInteger(index.right.value)) return null;
  if (index.operator === '-') return index.right.value;
  return index.operator === '+' ? -index.right.value : null;
}

/**
 * Evaluations of f (or a) that one step costs; with implicit stages those of one Newton iteration.
 * f[n] counts once, however many f[n-j] are kept.
 */
export function evaluationsPerStep(method: Method): number {
  const nodes: Expression[] = [];
  for (const value of method.statements.flatMap(valuesOf)) walk(value, (node) => nodes.push(node));
  const calls = nodes.filter((node) => node.kind === 'call' && (node.name === 'f' || node.name === 'a'));
  const keepsRate = nodes.some((node) => node.kind === 'indexed' && node.name === 'f');
  return calls.length + (keepsRate ? 1 : 0);
}

/** Whether some value is found by Newton's method. */
export function isImplicit(method: Method): boolean {
  return method.statements.some((statement) => statement.kind === 'solve');
}
