import { exponential, short } from '../text/number-text.ts';
import { primed } from '../text/primes.ts';
import { derivative } from '../formula/derivative.ts';
import { evaluate } from '../formula/evaluate.ts';
import { measure } from '../formula/measure.ts';
import { type Expression, type IndexedLeaf, type NameLeaf, number, walk } from '../formula/expression.ts';
import { PlaceError } from '../text/place.ts';
import { Meanings } from './meaning.ts';
import { atTime, type TimeAxis } from './time-text.ts';
import { componentName, type Problem, type Unknown } from './problem.ts';

/** What came of putting the exact solution into the equations and the initial values. */
export interface ExactCheck {
  /** Largest residual found, relative to the size of the terms of its equation; null where nothing could be checked. */
  readonly residual: number | null;
  /** The equation and the time of the largest residual. */
  readonly worst: { readonly equation: string; readonly t: number } | null;
  /** Initial values that the exact solution does not have. */
  readonly initial: readonly { readonly component: string; readonly exact: number; readonly given: number }[];
  /** Equations that hold a component whose exact solution is not known. */
  readonly unchecked: readonly string[];
  readonly satisfied: boolean;
}

/** A residual below this is rounding; a solution that is wrong in its eighth digit is above it. */
const ROUNDING = 1e-10;
/** Times at which the residual is taken. */
const POINTS = 97;
/** Elements of a family at which it is taken, at most. */
const ELEMENTS = 40;
/** About how many values of terms are taken in all; long equations are checked at fewer times and elements. */
const MAX_VALUES = 1_000_000;
/** Fewest times and elements all the same. */
const FEWEST = 5;

/**
 * The size of a formula as the sum of the sizes of its terms, so that cancelling terms count in full:
 * what rounding in them can do is a small multiple of it.
 */
function termSize(expression: Expression, value: (node: Expression) => number): number {
  const of = (node: Expression): number => termSize(node, value);
  if (expression.kind === 'negate') return of(expression.of);
  if (expression.kind === 'binary')
    switch (expression.operator) {
      case '+':
      case '-':
        return of(expression.left) + of(expression.right);
      case '*':
        return of(expression.left) * of(expression.right);
      case '/':
        return of(expression.left) / Math.abs(value(expression.right));
      case '^':
        break;
    }
  return Math.abs(value(expression));
}

/** Exact solutions with their derivatives, made when they are asked for. */
class ExactDerivatives {
  readonly #made = new Map<string, Expression | null>();
  readonly #problem: Problem;

  constructor(problem: Problem) {
    this.#problem = problem;
  }

  of(name: string, order: number): Expression | null {
    const key = `${name}/${order}`;
    const known = this.#made.get(key);
    if (known !== undefined) return known;
    const block = this.#problem.blocks.find((b) => b.unknown.name === name && b.derivative === order);
    const lower = order > 0 && block?.exact == null ? this.of(name, order - 1) : null;
    const made = block?.exact ?? (lower === null ? null : derivative(lower, (leaf) => this.#time(leaf)));
    this.#made.set(key, made);
    return made;
  }

  #time(leaf: NameLeaf | IndexedLeaf): Expression {
    return number(
      leaf.kind === 'name' && leaf.name === this.#problem.independent && leaf.primes === 0 ? 1 : 0,
    );
  }
}

/** Thrown inside to leave an equation whose components are not all known. */
class NotKnown extends Error {}

/** Elements of a family from the first to the last, at most so many. */
function sample(size: number, most = ELEMENTS): readonly number[] {
  if (size <= most) return Array.from({ length: size }, (_, i) => i);
  const inner = Array.from({ length: most - 2 }, (_, i) => Math.round(((i + 1) * (size - 1)) / (most - 1)));
  return [0, ...inner, size - 1];
}

interface Residual {
  readonly size: number;
  readonly t: number;
}

/** The value of an exact solution at a time, for a family at one index of its range. */
function solutionAt(
  solution: Expression,
  range: Unknown['range'],
  meanings: Meanings,
  { t, index }: { readonly t: number; readonly index: number },
): number {
  return evaluate(solution, (leaf) => {
    if (leaf.kind !== 'name' && leaf.kind !== 'indexed') return NaN;
    const meaning = meanings.of(leaf, range?.variable ?? null);
    if (meaning.kind === 'time') return t;
    if (meaning.kind === 'position') return index;
    return meaning.kind === 'constant' ? meaning.value : NaN;
  });
}

function sizeOf({ range }: Unknown): number {
  return range === null ? 1 : range.to - range.from + 1;
}

/** About how many values of terms one look at an equation takes. */
function pointWork({ written }: Unknown, exact: ExactDerivatives): number {
  let terms = 0;
  const seen = new Set<string>();
  for (const side of [written.left, written.right]) {
    terms += 3 * measure(side).terms;
    walk(side, (node) => {
      if ((node.kind !== 'name' && node.kind !== 'indexed') || seen.has(`${node.name}/${node.primes}`))
        return;
      seen.add(`${node.name}/${node.primes}`);
      const solution = exact.of(node.name, node.primes);
      terms += solution === null ? 0 : measure(solution).terms;
    });
  }
  return terms;
}

/** At how many times and elements an equation can be looked at. */
function placesToLook(
  unknown: Unknown,
  looks: number,
): { readonly times: number; readonly elements: number } {
  const size = sizeOf(unknown);
  const elements = Math.max(FEWEST, Math.min(ELEMENTS, Math.floor(looks / POINTS)));
  const times = Math.max(FEWEST, Math.min(POINTS, Math.floor(looks / Math.min(size, elements))));
  return { times, elements };
}

/** A problem with its exact solutions, and what the names of both mean. */
interface ExactCase {
  readonly problem: Problem;
  readonly exact: ExactDerivatives;
  readonly meanings: Meanings;
  readonly unknowns: ReadonlyMap<string, Unknown>;
}

/** The largest relative residual of one equation. */
function residualOf({ problem, exact, meanings, unknowns }: ExactCase, unknown: Unknown): Residual | null {
  const variable = unknown.range?.variable ?? null;
  const { left, right } = unknown.written;
  // of the components at one time
  const values = new Map<string, number>();
  let worst: Residual | null = null;

  const valueAt = (expression: Expression, t: number, index: number): number =>
    evaluate(expression, (node) => {
      if (node.kind !== 'name' && node.kind !== 'indexed') return NaN;
      return leafAt(node, t, index);
    });
  const leafAt = (node: NameLeaf | IndexedLeaf, t: number, index: number): number => {
    const of = unknowns.get(node.name);
    if (of === undefined) {
      const meaning = meanings.of(node, variable);
      if (meaning.kind === 'time') return t;
      if (meaning.kind === 'position') return index;
      return meaning.kind === 'constant' ? meaning.value : NaN;
    }
    const at = node.kind === 'indexed' ? Math.round(valueAt(node.index, t, index)) : index;
    const { range } = of;
    const given = of.given.get(at);
    if (range !== null && (at < range.from || at > range.to) && given !== undefined)
      return valueAt(given, t, at);
    const solution = exact.of(node.name, node.primes);
    if (solution === null) throw new NotKnown();
    const key = `${node.name}/${node.primes}/${at}`;
    const value = values.get(key) ?? solutionAt(solution, range, meanings, { t, index: at });
    values.set(key, value);
    return value;
  };

  const places = placesToLook(unknown, MAX_VALUES / unknowns.size / pointWork(unknown, exact));
  const elements = sample(sizeOf(unknown), places.elements);
  for (let i = 0; i < places.times; i += 1) {
    // away from both ends, where roots and quotients may be singular
    const t = problem.start + ((problem.end - problem.start) * (i + 0.5)) / places.times;
    for (const element of elements) {
      const index = (unknown.range?.from ?? 0) + element;
      values.clear();
      const value = (node: Expression): number => valueAt(node, t, index);
      const scale = termSize(left, value) + termSize(right, value);
      const difference = Math.abs(valueAt(left, t, index) - valueAt(right, t, index));
      const size = scale === 0 ? 0 : difference / scale;
      if (Number.isFinite(size) && (worst === null || size > worst.size)) worst = { size, t };
    }
  }
  return worst;
}

function wrongInitials(problem: Problem): ExactCheck['initial'] {
  const meanings = new Meanings(problem);
  const wrong: { component: string; exact: number; given: number }[] = [];
  for (const block of problem.blocks) {
    if (block.exact === null) continue;
    for (const element of sample(block.size)) {
      const { range } = block.unknown;
      const index = (range?.from ?? 0) + element;
      const exact = solutionAt(block.exact, range, meanings, { t: problem.start, index });
      const given = problem.initial[block.offset + element] ?? NaN;
      const scale = Math.max(1, Math.abs(given), Math.abs(exact));
      if (Math.abs(exact - given) <= 1e-12 * scale) continue;
      wrong.push({ component: componentName(problem, block.offset + element), exact, given });
    }
  }
  return wrong;
}

/**
 * Puts the exact solution into every equation as it was written (with symbolic derivatives, at many points
 * of the interval) and compares it with the initial values.
 *
 * @returns null where the problem gives no exact solution at all
 * @example checkExact(problem)?.satisfied // true
 */
export function checkExact(problem: Problem): ExactCheck | null {
  if (problem.blocks.every((block) => block.exact === null)) return null;
  const exact = new ExactDerivatives(problem);
  const meanings = new Meanings(problem);
  const unknowns = new Map(problem.unknowns.map((of) => [of.name, of]));
  const unchecked: string[] = [];
  let residual: number | null = null;
  let worst: ExactCheck['worst'] = null;
  for (const unknown of problem.unknowns) {
    const equation = primed(unknown.name, unknown.order);
    try {
      const found = residualOf({ problem, exact, meanings, unknowns }, unknown);
      if (found === null) {
        unchecked.push(equation);
        continue;
      }
      if (residual === null || found.size > residual) {
        residual = found.size;
        worst = { equation, t: found.t };
      }
    } catch (thrown) {
      if (!(thrown instanceof NotKnown) && !(thrown instanceof PlaceError)) throw thrown;
      unchecked.push(equation);
    }
  }
  const initial = wrongInitials(problem);
  return {
    residual,
    worst,
    initial,
    unchecked,
    satisfied: initial.length === 0 && (residual ?? 0) <= ROUNDING,
  };
}

function shown(value: number): string {
  const isPlain = value === 0 || (Math.abs(value) >= 1e-3 && Math.abs(value) < 1e6);
  return isPlain ? short(value, 6) : exponential(value, 2);
}

/**
 * The outcome of the check in a sentence.
 *
 * @example exactCheckSentence({ ...problem, equations: 1 }, checkExact(problem)!)
 */
export function exactCheckSentence(
  { equations, ...axis }: TimeAxis & { readonly equations: number },
  check: ExactCheck,
): string {
  const parts: string[] = [];
  const { residual, worst, initial, unchecked } = check;
  if (residual !== null)
    parts.push(
      residual <= ROUNDING
        ? `satisfies the ${equations === 1 ? 'equation' : 'equations'} (largest residual ${shown(residual)})`
        : `does not satisfy the equation for ${worst?.equation ?? ''}: residual ${shown(residual)} relative to its terms at ${atTime(worst?.t ?? axis.start, axis)}`,
    );
  const [first] = initial;
  if (first !== undefined)
    parts.push(
      `does not match the initial values: ${first.component} is ${shown(first.exact)} at the start, not ${shown(first.given)}`,
    );
  else
    parts.push(
      residual !== null && residual <= ROUNDING ? 'and the initial values' : 'matches the initial values',
    );
  const joined =
    residual !== null && residual <= ROUNDING && first === undefined ? parts.join(' ') : parts.join('; ');
  const rest =
    unchecked.length === 0
      ? ''
      : `; not checked for ${unchecked.join(', ')}, where a component has no exact solution`;
  return `exact solution ${joined}${rest}`;
}
