import { derivative } from '../formula/derivative.ts';
import { type Expression, number } from '../formula/expression.ts';
import { measure } from '../formula/measure.ts';
import { texSymbol } from '../formula/tex-names.ts';
import { texOf } from '../formula/tex.ts';
import { attempt } from '../text/refusal.ts';
import { hasFamilies, type Problem, type Unknown } from './problem.ts';

/** Highest derivative that is shown, above the right-hand side. */
const MAX_ORDERS = 3;
/** Terms of a derivative that is shown; a longer one is only told of. */
const MAX_TERMS = 60;
/** Unknowns for which derivatives are shown. */
const MAX_UNKNOWNS = 4;

/** The derivative of an expression along the solutions, with y' for the derivative of y. */
function alongSolution(expression: Expression, problem: Problem): Expression {
  return derivative(expression, (leaf): Expression => {
    if (leaf.kind !== 'name') return number(0);
    if (leaf.primes === 0 && leaf.name === problem.independent) return number(1);
    const isUnknown = problem.unknowns.some(({ name }) => name === leaf.name);
    return isUnknown ? { ...leaf, primes: leaf.primes + 1 } : number(0);
  });
}

function derivativesOf(unknown: Unknown, problem: Problem): readonly string[] {
  const lines: string[] = [];
  let value = unknown.highest;
  for (let order = unknown.order + 1; order <= unknown.order + MAX_ORDERS; order += 1) {
    const made = attempt(() => alongSolution(value, problem));
    if (!made.ok) break;
    value = made.value;
    if (measure(value).terms > MAX_TERMS) break;
    lines.push(`${texSymbol(unknown.name, order)} = ${texOf(value)}`);
  }
  return lines;
}

/**
 * The derivatives above the right-hand sides in TeX, each by those below it, as they come from the right-hand sides along the solutions: the next
 * three for each unknown, as long as they are short.
 *
 * @returns none for families and for more than four unknowns
 * @example derivativesTex(problem).length > 0 // true
 */
export function derivativesTex(problem: Problem): readonly string[] {
  if (problem.unknowns.length > MAX_UNKNOWNS || hasFamilies(problem)) return [];
  return problem.unknowns.flatMap((unknown) => derivativesOf(unknown, problem));
}
