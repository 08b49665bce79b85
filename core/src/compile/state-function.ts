import type { Expression } from '../formula/expression.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { generatedFunction } from './generated.ts';
import { nameNode, constantNode, type CodeNode } from './nodes/code-node.ts';
import { pieceOf } from './nodes/node-of-tree.ts';
import { printed } from './nodes/print.ts';
import { Scopes } from './nodes/scopes.ts';
import { linesOf } from './nodes/statement.ts';
import { type RhsLeaf, type RhsTree, RhsTrees } from '../program/rhs-tree.ts';

/** A function of time and the state vector. */
export type StateFunction = (t: number, state: ArrayLike<number>) => number;

/** A function of time and the index of a family. */
export type PositionFunction = (t: number, position: number) => number;

function functionSource(inputs: string, tree: RhsTree, leaf: (to: RhsLeaf) => CodeNode | null): string {
  const scopes = new Scopes({ pure: true, single: false, inlines: false });
  const result = pieceOf(tree, scopes, (to) => {
    if (to.kind === 'time') return nameNode('t');
    return to.kind === 'constant' ? constantNode(to.value) : (leaf(to) ?? constantNode(NaN));
  });
  const lines = [...linesOf(scopes.before), ...linesOf(scopes.statements)];
  return `function (${inputs}) {\n${[...lines, `return ${printed(result)};`].join('\n')}\n}`;
}

/**
 * An expression of a problem as a function of time and state, for one element of a block.
 *
 * @example stateFunction(problem, problem.blocks[0]!.rhs)(0, [4]) // -0.7
 */
export function stateFunction(
  problem: Problem,
  expression: Expression,
  block: Block | null = null,
  element = 0,
): StateFunction {
  const tree = new RhsTrees(problem).at(expression, block, element);
  return generatedFunction(
    functionSource('t, S', tree, (to) => (to.kind === 'component' ? nameNode(`S[${to.place}]`) : null)),
  );
}

/** An expression of a family without unknowns, such as its exact solution, as a function of time and index. */
export function positionFunction(problem: Problem, expression: Expression, block: Block): PositionFunction {
  const tree = new RhsTrees(problem).running(expression, block);
  return generatedFunction(
    functionSource('t, i', tree, (to) => (to.kind === 'position' ? nameNode('i') : null)),
  );
}
