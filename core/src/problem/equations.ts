import { count } from '../text/number-text.ts';
import { primed } from '../text/primes.ts';
import { bounded, measure } from '../formula/measure.ts';
import { type Expression, number, rewrite, walk } from '../formula/expression.ts';
import { type Complaints, PlaceError } from '../text/place.ts';
import { affine } from './meaning.ts';
import { constantValue } from './constant-value.ts';
import { MAX_COMPONENTS, type IndexRange, type Unknown } from './problem.ts';
import { type HighestDerivative, isDerivative, solveFor, written } from './solve-equation.ts';
import type { ForRange, Statement } from './statement.ts';

/** Most terms of all equations of a problem together, once they are solved. */
const MAX_TERMS_IN_ALL = 50_000;
const NOWHERE = { from: 0, to: 1 };

type Equation = Statement & { readonly kind: 'equation' };

/** The unknowns of a text, each with its equation solved for its highest derivative. */
export function buildUnknowns(
  statements: readonly Statement[],
  known: ReadonlyMap<string, number>,
  complaints: Complaints,
): readonly Unknown[] {
  const equations = statements.filter((statement) => statement.kind === 'equation');
  const highest = highestDerivatives(equations);
  const pairs = assign(equations, highest, complaints);
  const given = readGiven(statements, known, complaints);
  const solved: Unknown[] = [];
  for (const [of, equation] of pairs) {
    const unknown = complaints.attempt(() => {
      const { rhs, rearranged } = solveFor(equation.left, equation.right, of, equation.at);
      return {
        name: of.name,
        order: of.order,
        range: equation.range === null ? null : readRange(equation.range, equation, of, known),
        written: { left: equation.left, right: equation.right },
        highest: rhs,
        rearranged,
        given: given.get(of.name) ?? new Map<number, Expression>(),
      };
    });
    if (unknown === null) complaints.lose();
    else solved.push(unknown);
  }
  const total = solved.reduce(
    (sum, u) => sum + u.order * (u.range === null ? 1 : u.range.to - u.range.from + 1),
    0,
  );
  if (total > MAX_COMPONENTS) {
    complaints.add(
      equations.find((e) => e.range !== null)?.at ?? equations[0]!.at,
      `this problem has ${count(total)} components; at most ${count(MAX_COMPONENTS)} are allowed`,
    );
    return [];
  }
  return withoutOtherHighest(solved, pairs, complaints);
}

function highestDerivatives(equations: readonly Equation[]): readonly HighestDerivative[] {
  const orders = new Map<string, number>();
  const note = (node: Expression): void => {
    if ((node.kind === 'name' || node.kind === 'indexed') && node.primes > 0)
      orders.set(node.name, Math.max(orders.get(node.name) ?? 0, node.primes));
  };
  for (const equation of equations) {
    walk(equation.left, note);
    walk(equation.right, note);
  }
  return [...orders].map(([name, order]) => ({ name, order }));
}

/** Which equation gives which derivative: one that is alone on a left side first, then what is left over. */
function assign(
  equations: readonly Equation[],
  highest: readonly HighestDerivative[],
  complaints: Complaints,
): readonly (readonly [HighestDerivative, Equation])[] {
  const taken = new Map<HighestDerivative, Equation>();
  const open: Equation[] = [];
  const byName = new Map(highest.map((of) => [of.name, of]));
  const derivativeAt = (node: Expression): HighestDerivative | undefined => {
    const of = node.kind === 'name' || node.kind === 'indexed' ? byName.get(node.name) : undefined;
    return of !== undefined && isDerivative(node, of) ? of : undefined;
  };
  for (const equation of equations) {
    const of = derivativeAt(equation.left);
    if (of === undefined) open.push(equation);
    else if (taken.has(of))
      complaints.add(equation.at, `${written(of)} has two equations; remove one of them`);
    else taken.set(of, equation);
  }
  const inside = new Map<Equation, ReadonlySet<HighestDerivative>>(
    equations.map((equation) => {
      const found = new Set<HighestDerivative>();
      for (const side of [equation.left, equation.right])
        walk(side, (node) => {
          const of = derivativeAt(node);
          if (of !== undefined) found.add(of);
        });
      return [equation, found];
    }),
  );
  for (const equation of open) {
    const unknownsInside = [...(inside.get(equation) ?? [])];
    const of = unknownsInside.find((candidate) => !taken.has(candidate));
    if (of !== undefined) {
      taken.set(of, equation);
      continue;
    }
    const [first] = unknownsInside;
    complaints.lose();
    complaints.add(
      equation.at,
      first === undefined
        ? "this equation contains no highest derivative; write it with the derivative, as in y' = ..."
        : `${written(first)} has two equations; remove one of them`,
    );
  }
  for (const of of highest) {
    if (taken.has(of) || complaints.any) continue;
    const at = equations.find((equation) => inside.get(equation)?.has(of))?.at ?? NOWHERE;
    complaints.missing(at, `an equation for ${written(of)} is missing`);
  }
  const order = [...taken].sort(([, a], [, b]) => a.at.from - b.at.from);
  return order;
}

function readRange(
  range: ForRange,
  equation: Equation,
  of: HighestDerivative,
  known: ReadonlyMap<string, number>,
): IndexRange {
  const from = constantValue(range.from, known);
  const to = constantValue(range.to, known);
  for (const [value, expression] of [
    [from, range.from],
    [to, range.to],
  ] as const)
    if (!Number.isSafeInteger(value))
      throw new PlaceError(expression.at, `a range needs integers, and this is ${value}`);
  if (to < from) throw new PlaceError(range.at, `this range is empty: ${from}..${to}`);
  const { left, right } = equation;
  for (const side of [left, right])
    walk(side, (node) => {
      if (!isDerivative(node, of)) return;
      if (node.kind !== 'indexed' || node.index.kind !== 'name' || node.index.name !== range.variable)
        throw new PlaceError(
          node.at,
          `the equation of a family is for ${primed(`${of.name}[${range.variable}]`, of.order)}`,
        );
    });
  return { variable: range.variable, from, to };
}

function readGiven(
  statements: readonly Statement[],
  known: ReadonlyMap<string, number>,
  complaints: Complaints,
): ReadonlyMap<string, ReadonlyMap<number, Expression>> {
  const given = new Map<string, Map<number, Expression>>();
  for (const statement of statements) {
    if (statement.kind !== 'given') continue;
    const { target, index, value } = statement;
    complaints.attempt(() => {
      const { shift } = affine(index, null, (leaf) => constantValue(leaf, known));
      if (!Number.isSafeInteger(shift)) throw new PlaceError(index.at, 'an index must be an integer');
      const places = given.get(target.name) ?? new Map<number, Expression>();
      if (places.has(shift)) throw new PlaceError(target.at, `${target.name}[${shift}] is given twice`);
      places.set(shift, value);
      given.set(target.name, places);
    });
  }
  return given;
}

/**
 * Puts the solved equations into one another where a right-hand side holds the highest derivative of another unknown.
 * An error says so where that goes round in a circle.
 */
function withoutOtherHighest(
  unknowns: readonly Unknown[],
  pairs: readonly (readonly [HighestDerivative, Equation])[],
  complaints: Complaints,
): readonly Unknown[] {
  const byName = new Map(unknowns.map((u) => [u.name, u]));
  const places = new Map(pairs.map(([of, equation]) => [of.name, equation.at]));
  const done = new Map<string, Expression>();
  const resolve = (unknown: Unknown, path: readonly string[]): Expression => {
    const ready = done.get(unknown.name);
    if (ready !== undefined) return ready;
    const putIn: string[] = [];
    const rhs = rewrite(unknown.highest, (node) => {
      if (node.kind !== 'name' && node.kind !== 'indexed') return null;
      const other = byName.get(node.name);
      if (other === undefined || node.primes !== other.order) return null;
      if (node.kind === 'indexed' || other.range !== null)
        throw new PlaceError(
          node.at,
          `the highest derivative of a family is not allowed in another equation`,
        );
      if (path.includes(other.name))
        throw new PlaceError(
          node.at,
          `the equations for ${path.join(' and ')} are coupled in their highest derivatives; solve them for these by hand`,
        );
      putIn.push(other.name);
      return resolve(other, [...path, other.name]);
    });
    if (putIn.length === 0) {
      // what is typed is bounded by the length of a text
      done.set(unknown.name, unknown.highest);
      return unknown.highest;
    }
    const at = places.get(unknown.name) ?? NOWHERE;
    bounded(rhs, { at, what: `this equation, solved for ${written(unknown)},` });
    done.set(unknown.name, rhs);
    return rhs;
  };
  let total = 0;
  return unknowns.map((unknown) => {
    const at = places.get(unknown.name) ?? NOWHERE;
    const rhs = complaints.attempt(() => {
      const found = resolve(unknown, [unknown.name]);
      total += found === unknown.highest ? 0 : measure(found).terms;
      if (total > MAX_TERMS_IN_ALL)
        throw new PlaceError(
          at,
          `from here on the equations have more than ${count(MAX_TERMS_IN_ALL)} terms when they are solved for ${written(unknown)}`,
        );
      return found;
    });
    // what was complained of is not complained of again by its names
    return { ...unknown, highest: rhs ?? number(1) };
  });
}
