import { type Expression, rewrite, some, walk } from '../formula/expression.ts';
import type { Span } from '../text/place.ts';

/** A number, one value for each component, or a Jacobian that waits for the vector it is applied to. */
export type Shape = 'scalar' | 'vector' | 'operator';

/** Shapes by the node of a formula. */
export type Shapes = ReadonlyMap<Expression, Shape>;

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
    }
  | {
      /**
       * `d2(t, y) = 2*t + y^2`: a derivative computed by hand, as a function of a time and the value of one equation.
       */
      readonly kind: 'function';
      readonly name: string;
      readonly inputs: readonly [time: string, value: string];
      readonly value: Expression;
      readonly at: Span;
    };

/** A fixed-step formula, as its text says it. */
export interface Method {
  readonly text: string;
  /** For y' = f(t, y), or for x'' = a(t, x, x'). */
  readonly form: 'first order' | 'second order';
  /** In the order of the text. */
  readonly statements: readonly MethodStatement[];
  /** The shape of every node of its formulas, found when the text was read. */
  readonly shapes: Shapes;
  /** How many steps back its formula reaches; 0 for a one-step method. */
  readonly depth: number;
  /** The name of its starting method; null where none is named. */
  readonly startWith: { readonly name: string; readonly at: Span } | null;
  /** Whether it multiplies values or types derivatives out, so that it is for problems of one equation. */
  readonly oneEquation: boolean;
  readonly called: CalledNames;
  /** A second formula over the same stages, which estimates the local error; null for none. */
  readonly embedded: Embedded | null;
}

/**
 * A second formula over the stages of a one-step method, `yhat[n+1] = ...`, whose difference from the new value estimates
 * the local error. Runs go on with y[n+1] and do not compute it.
 *
 * Source: E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section II.4.
 */
export interface Embedded {
  /** The lines behind that of y[n+1]: further stages, and the formula itself, which is the last. */
  readonly lines: readonly MethodStatement[];
  /** The method that goes on with the second formula; y[n+1] is one of its stages. */
  readonly method: Method;
  /** What that method calls the y[n+1] of the text. */
  readonly advanced: string;
}

/** What a text calls t and y: `x` and `u` in `u[n+1] = u + h*f(x, u)`. */
export interface CalledNames {
  readonly time: string;
  readonly value: string;
}

/** A name of a method as its text has it. */
export function nameAsCalled(name: string, { time, value }: CalledNames): string {
  return name === 't' ? time : name === 'y' ? value : name;
}

/** A function as the text names it: the letters of a partial derivative such as f_ty are those of the text. */
function functionAsCalled(name: string, called: CalledNames): string {
  return partialOf(name) === null ? name : name.replaceAll(/[ty]/g, (letter) => nameAsCalled(letter, called));
}

/** A formula of a method in the names of its text. */
export function asCalled(expression: Expression, called: CalledNames): Expression {
  if (called.time === 't' && called.value === 'y') return expression;
  return rewrite(expression, (node) => {
    switch (node.kind) {
      case 'name':
      case 'indexed':
        return { ...node, name: nameAsCalled(node.name, called) };
      case 'call': {
        const inputs = node.inputs.map((input) => asCalled(input, called));
        return { ...node, name: functionAsCalled(node.name, called), inputs };
      }
      default:
        return null;
    }
  });
}

/** What a line gives, in the names of the text. */
export function givenAsCalled(given: Given, called: CalledNames): string {
  return nameAsCalled(given.kind === 'name' ? given.name : given.variable, called);
}

/** Highest partial derivative of f that a text may use, by t and y together. */
export const HIGHEST_PARTIAL = 6;

/** How often `f_ty` is differentiated by t and by y; null for a name that is no partial derivative of f. */
export function partialOf(name: string): { readonly times: number; readonly values: number } | null {
  const letters = /^f_([ty]+)$/.exec(name)?.[1];
  if (letters === undefined) return null;
  const times = letters.replaceAll('y', '').length;
  return { times, values: letters.length - times };
}

/** The formulas of a statement. */
export function valuesOf(statement: MethodStatement): readonly Expression[] {
  return statement.kind === 'solve' ? statement.values : [statement.value];
}

/** A statement with other formulas, as many as it has. */
export function withValues(statement: MethodStatement, values: readonly Expression[]): MethodStatement {
  return statement.kind === 'solve'
    ? { ...statement, values }
    : { ...statement, value: values[0] ?? statement.value };
}

/** The values that a statement gives. */
export function givenBy(statement: MethodStatement): readonly Given[] {
  if (statement.kind === 'function') return [];
  return statement.kind === 'let' ? [statement.given] : statement.given;
}

/** How a given name is written. */
export function givenText(given: Given): string {
  return given.kind === 'name' ? given.name : `${given.variable}[n+1]`;
}

/** Whether a node is a value kept from an earlier step, or f there: `y[n-1]`, `f[n]`; the steps back, else null. */
export function stepsBack(node: Expression): number | null {
  return node.kind !== 'indexed' || node.primes > 0 ? null : stepsBackBy(node.index);
}

/** How many steps back an index reaches: 0 for `n`, 1 for `n-1`, -1 for `n+1`; null for any other. */
export function stepsBackBy(index: Expression): number | null {
  if (index.kind === 'name') return index.name === 'n' && index.primes === 0 ? 0 : null;
  if (index.kind !== 'binary' || index.left.kind !== 'name' || index.left.name !== 'n') return null;
  if (index.right.kind !== 'number' || !Number.isInteger(index.right.value)) return null;
  if (index.operator === '-') return index.right.value;
  return index.operator === '+' ? -index.right.value : null;
}

/**
 * Evaluations of f (or a) and of its derivatives, made or typed, that one step costs; with implicit stages those of one
 * Newton iteration. f[n] counts once, however many f[n-j] are kept.
 *
 * @example evaluationsPerStep(heun) // 2
 */
export function evaluationsPerStep(method: Method): number {
  const typed = new Map<string, number>();
  const costOf = (value: Expression): number => {
    let cost = 0;
    walk(value, (node) => {
      if (node.kind !== 'call') return;
      const isRhs = node.name === 'f' || node.name === 'a' || partialOf(node.name) !== null;
      cost += isRhs ? 1 : (typed.get(node.name) ?? 0);
    });
    return cost;
  };
  let sum = 0;
  for (const statement of method.statements)
    if (statement.kind === 'function') typed.set(statement.name, 1 + costOf(statement.value));
    else for (const value of valuesOf(statement)) sum += costOf(value);
  const keepsRhs = method.statements
    .flatMap(valuesOf)
    .some((value) => some(value, (node) => node.kind === 'indexed' && node.name === 'f'));
  return sum + (keepsRhs ? 1 : 0);
}

/** Whether a method types a derivative out, which belongs to its own problem. */
export function typesDerivatives(method: Method): boolean {
  return method.statements.some((statement) => statement.kind === 'function');
}

/**
 * Whether some value is found by Newton's method.
 *
 * @example isImplicit(heun) // false
 */
export function isImplicit(method: Method): boolean {
  return method.statements.some((statement) => statement.kind === 'solve');
}
