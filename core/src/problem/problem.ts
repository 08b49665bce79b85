import { primed } from '../text/primes.ts';
import type { Expression } from '../formula/expression.ts';
import type { Span } from '../text/place.ts';
import type { Statement } from './statement.ts';

/** A named number of a problem, as it was written and as it is. */
export interface Parameter {
  readonly name: string;
  readonly written: Expression;
  readonly value: number;
  readonly at: Span;
}

/** The index of a family: `for i = 1..n`, both ends included. */
export interface IndexRange {
  readonly variable: string;
  readonly from: number;
  readonly to: number;
}

/** An unknown of the text, with the equation that belongs to it. */
export interface Unknown {
  readonly name: string;
  /** Order of its highest derivative in the text. */
  readonly order: number;
  /** Null for a single unknown; a family shares one equation over its range. */
  readonly range: IndexRange | null;
  readonly written: { readonly left: Expression; readonly right: Expression };
  /**
   * The highest derivative, solved for: an expression in lower derivatives, parameters and the independent variable.
   */
  readonly highest: Expression;
  /** Whether the equation was solved for the highest derivative, or was already solved in the text. */
  readonly rearranged: boolean;
  /** Values at places outside the range of a family, by index. */
  readonly given: ReadonlyMap<number, Expression>;
}

/**
 * A stretch of the state vector of the first-order system: one derivative of one unknown,
 * of size 1 or, for a family, of the size of its range.
 */
export interface Block {
  /** As it is shown: `x`, `x'`, `u`. */
  readonly name: string;
  readonly unknown: Unknown;
  /** Which derivative of the unknown this is, from 0. */
  readonly derivative: number;
  readonly offset: number;
  readonly size: number;
  /** The right-hand side of this block: the next derivative, or the solved equation. */
  readonly rhs: Expression;
  /** The exact solution, if known, in the independent variable, parameters and the index. */
  readonly exact: Expression | null;
}

/**
 * A derivative above the right-hand side that the text gives by hand, such as `level'' = k^2/2` beside `level' = ...`.
 */
export interface TypedDerivative {
  readonly unknown: string;
  /** Which derivative of the unknown it is: 2 for `level''`. */
  readonly order: number;
  readonly written: Expression;
  /** The same with right-hand sides and lower typed derivatives put in for the derivatives it names. */
  readonly value: Expression;
  readonly at: Span;
}

/** A quantity that should stay constant along a solution. */
export interface Conserved {
  readonly name: string;
  readonly value: Expression;
  readonly at: Span;
}

/** An initial value problem, reduced to a first-order system y' = f(t, y). */
export interface Problem {
  readonly text: string;
  readonly independent: string;
  /** Start and end of the interval; start < end. */
  readonly start: number;
  readonly end: number;
  readonly parameters: readonly Parameter[];
  readonly unknowns: readonly Unknown[];
  readonly blocks: readonly Block[];
  /** Number of components: the length of the state vector. */
  readonly size: number;
  /** Initial values, one per component. */
  readonly initial: readonly number[];
  readonly conserved: readonly Conserved[];
  /** Derivatives above the right-hand sides that the text gives by hand. */
  readonly typed: readonly TypedDerivative[];
  readonly statements: readonly Statement[];
}

/** The largest number of components of a problem. */
export const MAX_COMPONENTS = 20_000;

/** How an element of a family is written: `u[3]`, `u[i]'`. */
export function elementName(block: Block, index: number | string): string {
  return primed(`${block.unknown.name}[${index}]`, block.derivative);
}

/** The block that a place of the state vector lies in. */
export function blockAt({ blocks }: Pick<Problem, 'blocks'>, place: number): Block | undefined {
  return blocks.find(({ offset, size }) => place >= offset && place < offset + size);
}

/**
 * The name of the component at a place of the state vector; '' where there is none.
 *
 * @example componentName(problem, 0) // 'level'
 */
export function componentName(problem: Problem, place: number): string {
  const block = blockAt(problem, place);
  if (block === undefined) return '';
  const { range } = block.unknown;
  return range === null ? block.name : elementName(block, range.from + place - block.offset);
}

/**
 * The names of all components in the order of the state vector: `x`, `x'`, `u[1]`, ...
 *
 * @example componentNames(problem) // ['level']
 */
export function componentNames(problem: Problem): readonly string[] {
  return problem.blocks.flatMap((block) => {
    const { range } = block.unknown;
    if (range === null) return [block.name];
    return Array.from({ length: block.size }, (_, k) => elementName(block, range.from + k));
  });
}

/**
 * Whether every component of the problem has an exact solution.
 *
 * @example hasExact(problem) // true
 */
export function hasExact(problem: Problem): boolean {
  return problem.blocks.every((block) => block.exact !== null);
}

/** Whether some unknowns are families, such as u[i] for i = 1..n. */
export function hasFamilies({ unknowns }: Problem): boolean {
  return unknowns.some(({ range }) => range !== null);
}

/**
 * Whether the problem is a system of second-order equations x'' = a(t, x, x'), which methods in x and v need.
 * The blocks of such a problem come in pairs x, x'.
 *
 * @example isSecondOrder(problem) // false
 */
export function isSecondOrder(problem: Problem): boolean {
  return problem.unknowns.every((unknown) => unknown.order === 2);
}
