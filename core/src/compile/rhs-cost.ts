import { isSpelledPower } from '../formula/evaluate.ts';
import { type Expression, walk } from '../formula/expression.ts';
import { Meanings } from '../problem/meaning.ts';
import { hasFamilies, type Problem } from '../problem/problem.ts';

/** Seconds on a machine of these years: for a component in any case, an operation, a function such as exp, a power. */
const OPTIMISED = { component: 1.2e-9, operation: 1.5e-10, function: 3e-8, power: 8e-8 };
/** The same in a formula of so many operations that the engine leaves it to its interpreter. */
const INTERPRETED = { component: 1e-8, operation: 5e-9, function: 1.5e-7, power: 3e-7 };
const MAX_OPTIMISED = 300;
/** Functions that a processor does in an instruction or two. */
const CHEAP: ReadonlySet<string> = new Set(['sqrt', 'abs', 'sign', 'min', 'max', 'floor']);

/** The same in decimals; with more digits it is longer. */
const DECIMAL = { component: 2e-6, operation: 2.5e-6, function: 3e-4, power: 3e-4 };
/** An operation in decimals beside one in doubles. */
export const DECIMAL_FACTOR = 2_500;

function secondsOf(rhs: Expression, isDecimal: boolean): number {
  let [operations, functions, powers] = [0, 0, 0];
  walk(rhs, (node) => {
    if (node.kind === 'call' && !CHEAP.has(node.name)) functions += 1;
    else if (node.kind === 'binary' && node.operator === '^' && !isSpelledPower(node.right)) powers += 1;
    else if (node.kind === 'binary' || node.kind === 'if' || node.kind === 'call') operations += 1;
  });
  const isLarge = operations + functions + powers > MAX_OPTIMISED;
  const seconds = isDecimal ? DECIMAL : isLarge ? INTERPRETED : OPTIMISED;
  return (
    seconds.component + operations * seconds.operation + functions * seconds.function + powers * seconds.power
  );
}

/** Seconds of one operation of Gaussian elimination. */
const ELIMINATION = 1e-9;

/** How far apart two components are, at most, that depend on each other, a step of an index as one place. */
function bandOf(problem: Problem): number {
  if (!hasFamilies(problem)) return problem.size;
  const meanings = new Meanings(problem);
  let band = 0;
  for (const block of problem.blocks)
    walk(block.rhs, (node) => {
      if (node.kind !== 'name' && node.kind !== 'indexed') return;
      const meaning = meanings.of(node, block.unknown.range?.variable ?? null);
      if (meaning.kind === 'neighbour' && meaning.block === block)
        band = Math.max(band, Math.abs(meaning.shift));
      else if (meaning.kind === 'neighbour' || meaning.kind === 'component') band = problem.size;
    });
  return Math.min(band, problem.size);
}

/** What an iteration of Newton's method on the equations of one step takes. */
export interface NewtonCost {
  /** Seconds of Gaussian elimination, dense or, with families, banded, about. */
  readonly elimination: number;
  /** Evaluations of each formula for the Jacobian, one for a column at the most. */
  readonly evaluations: number;
}

/** @param together values that are solved for together, each with all components of the problem */
export function newtonCost(problem: Problem, together: number): NewtonCost {
  const reach = bandOf(problem);
  const equations = together * problem.size;
  const band = Math.min(equations, together * reach + together - 1);
  // a band as wide as the system is a dense one
  const operations = Math.min(2 * equations * band * (band + 1), equations ** 3 / 3);
  return {
    elimination: operations * ELIMINATION,
    evaluations: together * Math.min(problem.size, 2 * reach + 1),
  };
}

/** About how many seconds one evaluation of the right-hand side takes, all components together. */
export function rhsSeconds({ blocks }: Problem, isDecimal = false): number {
  return blocks.reduce((sum, { rhs, size }) => sum + size * secondsOf(rhs, isDecimal), 0);
}
