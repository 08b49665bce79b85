import { primed } from '../text/primes.ts';
import { derivative } from '../formula/derivative.ts';
import { evaluate } from '../formula/evaluate.ts';
import { type Expression, number, rewrite } from '../formula/expression.ts';
import { CONSTANTS } from '../formula/functions.ts';
import type { Grammar } from '../formula/grammar.ts';
import { Parser } from '../formula/parse.ts';
import { Complaints, PlaceError, type Reading } from '../text/place.ts';
import { simple } from '../formula/simplify.ts';
import { plainText } from '../formula/plain-text.ts';
import { tokenize } from '../text/token.ts';
import { parseProblem } from './parse-problem.ts';
import type { Problem, Unknown } from './problem.ts';

/** A manufactured solution of one unknown, as text in the independent variable and parameters. */
export interface ChosenSolution {
  readonly unknown: string;
  readonly solution: string;
}

function parseSolution(problem: Problem, text: string): Reading<Expression> {
  const complaints = new Complaints(text);
  const grammar: Grammar = {
    calls: () => false,
    multiplies: () => false,
    refuseCall: () => null,
    report: (at, message) => complaints.add(at, message),
  };
  const known = new Set([...CONSTANTS.keys(), problem.independent, ...problem.parameters.map((p) => p.name)]);
  const expression = complaints.attempt(() => {
    const tokens = tokenize(text, { from: 0, to: text.length }, grammar.report);
    return new Parser(tokens, { from: text.length, to: text.length + 1 }, grammar).whole();
  });
  if (expression !== null)
    rewrite(expression, (node) => {
      if (node.kind === 'indexed' || (node.kind === 'name' && (node.primes > 0 || !known.has(node.name))))
        complaints.add(
          node.at,
          `a manufactured solution may contain only ${problem.independent}, parameters and numbers`,
        );
      return null;
    });
  return complaints.any || expression === null
    ? { ok: false, errors: complaints.list() }
    : { ok: true, value: expression };
}

function timeDerivative(problem: Problem, expression: Expression): Expression {
  return derivative(expression, (leaf) =>
    number(leaf.kind === 'name' && leaf.name === problem.independent && leaf.primes === 0 ? 1 : 0),
  );
}

/** The derivatives 0..order of a manufactured solution. */
function derivativesOf(problem: Problem, solution: Expression, order: number): readonly Expression[] {
  const list = [solution];
  for (let k = 1; k <= order; k += 1) list.push(timeDerivative(problem, list[k - 1]!));
  return list;
}

/**
 * Adds to every right-hand side the term that makes manufactured solutions exact: with y' = f(t, y) and a chosen y*, the new
 * right-hand side is f(t, y) + (y*' - f(t, y*)). So any right-hand side gets an exact solution to test code against.
 *
 * Source: P. J. Roache, Code verification by the method of manufactured solutions, J. Fluids Eng. 124 (2002) 4-10.
 *
 * @param chosen one for each unknown of the problem
 * @returns the text of the new problem, or the errors of the first solution that cannot be read
 * @example manufacture(problem, [{ unknown: 'level', solution: 'exp(-t)' }]).ok // true
 */
export function manufacture(problem: Problem, chosen: readonly ChosenSolution[]): Reading<string> {
  const solutions = new Map<string, readonly Expression[]>();
  for (const unknown of problem.unknowns) {
    const match = chosen.find((w) => w.unknown === unknown.name);
    if (unknown.range !== null || match === undefined)
      return failure(
        unknown.range !== null
          ? 'manufactured solutions are not available for families'
          : `a manufactured solution for ${unknown.name} is missing`,
      );
    const reading = parseSolution(problem, match.solution);
    if (!reading.ok) return reading;
    solutions.set(unknown.name, derivativesOf(problem, reading.value, unknown.order));
  }
  const known = new Map(problem.parameters.map((p) => [p.name, p.value]));
  const atStart = (expression: Expression): number =>
    evaluate(expression, (leaf) => {
      if (leaf.kind !== 'name') return NaN;
      if (leaf.name === problem.independent) return problem.start;
      return known.get(leaf.name) ?? CONSTANTS.get(leaf.name) ?? NaN;
    });
  const rightHandSides = problem.unknowns.map(
    (unknown) => `${highestOf(unknown)} = ${plainText(newRhs(unknown, solutions))}`,
  );
  const values = problem.unknowns.flatMap((unknown) =>
    (solutions.get(unknown.name) ?? []).slice(0, unknown.order).map((expression, k) => {
      const value = atStart(expression);
      return `${primed(unknown.name, k)}(${problem.start}) = ${value}`;
    }),
  );
  const exact = problem.unknowns.map(
    (unknown) => `${unknown.name}(${problem.independent}) = ${plainText(solutions.get(unknown.name)![0]!)}`,
  );
  const parameters = problem.parameters.map((p) => `${p.name} = ${plainText(p.written)}`);
  const interval = `${problem.start} <= ${problem.independent} <= ${problem.end}`;
  const text = `${[...parameters, ...rightHandSides, ...values, interval, ...exact].join('\n')}\n`;
  const check = parseProblem(text);
  return check.ok
    ? { ok: true, value: text }
    : failure('the manufactured solution has no finite value or derivative at the start');
}

function failure(message: string): Reading<string> {
  return { ok: false, errors: [{ line: 1, column: 1, length: 1, message }] };
}

function highestOf(unknown: Unknown): string {
  return primed(unknown.name, unknown.order);
}

/** f + (y*' - f at y*). */
function newRhs(unknown: Unknown, solutions: ReadonlyMap<string, readonly Expression[]>): Expression {
  const atSolution = rewrite(unknown.highest, (node) => {
    if (node.kind !== 'name') return null;
    const series = solutions.get(node.name);
    return series?.[node.primes] ?? null;
  });
  const highest = solutions.get(unknown.name)?.[unknown.order];
  if (highest === undefined) throw new PlaceError(unknown.highest.at, 'a manufactured solution is missing');
  return simple.add(unknown.highest, simple.subtract(highest, atSolution));
}
