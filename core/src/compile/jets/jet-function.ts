import { memoizeFor } from '../../text/memoize.ts';
import { Refusal } from '../../text/refusal.ts';
import type { Problem } from '../../problem/problem.ts';
import { generatedFunction } from '../generated.ts';
import { nameNode, constantNode, ONE, operation, type CodeNode, readNode } from '../nodes/code-node.ts';
import { problemConstant } from '../nodes/node-of-tree.ts';
import { localName, type NameOf, printed } from '../nodes/print.ts';
import { Scopes } from '../nodes/scopes.ts';
import { linesOf } from '../nodes/statement.ts';
import { type RhsLeaf, RhsTrees } from '../../program/rhs-tree.ts';
import { JetCode } from './jet.ts';
import { type Coefficient, orZero } from './series.ts';

/**
 * The Taylor coefficients of the solution through (t, y): coefficient k of component j is written to
 * out[k*size + j], for k = 0..order, so that y_j(t + s) is the sum of out[k*size + j]*s^k.
 */
export type JetFunction = (t: number, y: ArrayLike<number>, out: Float64Array) => void;

/** Above this many intermediate values they are kept in an array: a function can hold only so many of its own. */
const MAX_LOCALS = 50_000;

/** Most components for which jets are made: their code is written out component by component. */
export const MAX_JET_COMPONENTS = 1_000;

/** Compiled series, by problem and order. */
const known = memoizeFor<Problem, JetFunction>();

/** The series of a solution as they are made, one list of coefficients a component. */
export interface SolutionJets {
  readonly solution: readonly (readonly Coefficient[])[];
  /** Coefficient k of the right-hand side of a component. */
  readonly rhs: (component: number, k: number) => Coefficient;
}

/** Where series of solutions begin, and how their code is put together. */
export interface SolutionStart {
  readonly order: number;
  readonly when: CodeNode;
  /** Coefficients 0: the present values. */
  readonly at: readonly CodeNode[];
  /** Puts a node aside. */
  readonly declare: (piece: CodeNode) => CodeNode;
  /** A constant as a coefficient; one of 0 leaves none. */
  readonly constant: (leaf: RhsLeaf & { readonly kind: 'constant' }) => Coefficient;
}

/**
 * Series of the solutions of a problem up to an order: from y' = f(t, y), coefficient k+1 of y is coefficient k of f
 * divided by k+1.
 */
export function solutionJets(
  problem: Problem,
  { order, when, at, declare, constant }: SolutionStart,
): SolutionJets {
  const trees = new RhsTrees(problem);
  const solution: Coefficient[][] = at.map((piece) => [piece]);
  const leaf = (to: RhsLeaf, k: number): Coefficient => {
    switch (to.kind) {
      case 'time':
        return k === 0 ? when : k === 1 ? ONE : null;
      case 'constant':
        return k === 0 ? constant(to) : null;
      case 'component':
        return solution[to.place]?.[k] ?? null;
      default:
        return null;
    }
  };
  const jets = problem.blocks.flatMap((block) =>
    Array.from({ length: block.size }, (_, element) => ({
      jet: new JetCode(leaf, declare),
      rhs: trees.at(block.rhs, block, element),
    })),
  );
  const rhs = (component: number, k: number): Coefficient => {
    const found = jets[component];
    return found === undefined ? null : found.jet.coefficient(found.rhs, k);
  };
  for (let k = 0; k < order; k += 1)
    jets
      .map((_, component) => rhs(component, k))
      .forEach((piece, j) =>
        solution[j]!.push(
          piece === null || k === 0 ? piece : declare(operation('/', piece, constantNode(k + 1))),
        ),
      );
  return { solution, rhs };
}

/**
 * Generates the Taylor coefficients of the solutions of a problem, to any order, as straight-line code.
 *
 * Source: A. Griewank, A. Walther, Evaluating Derivatives (2nd ed., 2008), chapter 13.
 *
 * @throws Refusal for more than MAX_JET_COMPONENTS components
 */
export function jetFunction(problem: Problem, order: number): JetFunction {
  return known(problem, order, () => compiledJets(problem, order));
}

function compiledJets(problem: Problem, order: number): JetFunction {
  const { size } = problem;
  if (size > MAX_JET_COMPONENTS)
    throw new Refusal('size', `Taylor series are made for up to ${MAX_JET_COMPONENTS} components`);
  const scopes = new Scopes({ pure: true, arithmetic: 'double', inlines: false });
  const at = Array.from({ length: size }, (_, j) => scopes.keep(readNode(`Y[${j}]`, false)));
  const { solution } = solutionJets(problem, {
    order,
    when: nameNode('t'),
    at,
    declare: (piece) => scopes.keep(piece),
    constant: (own) => (own.value === 0 ? null : problemConstant(own, scopes)),
  });
  const isLarge = scopes.count > MAX_LOCALS;
  const nameOf: NameOf = isLarge
    ? (kept) => (kept.loopInvariant ? localName(kept) : `V[${kept.id}]`)
    : localName;
  const body = [
    ...linesOf(scopes.before),
    ...linesOf(scopes.statements, nameOf),
    ...solution.flatMap((series, j) =>
      series.map((piece, k) => `OUT[${k * size + j}] = ${printed(orZero(piece), nameOf)};`),
    ),
  ].join('\n');
  const helpers = { P: Float64Array.from(scopes.parameters) };
  if (!isLarge) return generatedFunction(`function (t, Y, OUT) {\n${body}\n}`, helpers);
  return generatedFunction(
    `(function () { const V = new Float64Array(${scopes.count}); return function (t, Y, OUT) {\n${body}\n}; })()`,
    helpers,
  );
}
