import type { Expression } from '../formula/expression.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { generatedFunction } from './generated.ts';
import { nameNode, constantNode, type CodeNode } from './nodes/code-node.ts';
import { pieceOf, problemConstant } from './nodes/node-of-tree.ts';
import { printed } from './nodes/print.ts';
import { Scopes } from './nodes/scopes.ts';
import { linesOf } from './nodes/statement.ts';
import { type RhsLeaf, type RhsTree, RhsTrees } from '../program/rhs-tree.ts';

/** A function of time and the state vector. */
export type StateFunction = (t: number, state: ArrayLike<number>) => number;

/** A function of time and the index of a family. */
export type PositionFunction = (t: number, position: number) => number;

/** Many values of a function of time and the index of a family, at times one after another. */
export type PositionColumn = (
  ...inputs: readonly [
    times: Float64Array,
    position: number,
    count: number,
    out: Float64Array,
    first: number,
    stride: number,
  ]
) => void;

/** An expression as code: what comes before its lines, and the node of its value. */
interface Written {
  readonly before: readonly string[];
  readonly lines: readonly string[];
  readonly result: string;
  readonly parameters: readonly number[];
}

function written(tree: RhsTree, leaf: (to: RhsLeaf) => CodeNode | null, inlines: boolean): Written {
  const scopes = new Scopes({ pure: true, arithmetic: 'double', inlines });
  const result = pieceOf(tree, scopes, (to) => {
    if (to.kind === 'time') return nameNode('t');
    return to.kind === 'constant' ? problemConstant(to, scopes) : (leaf(to) ?? constantNode(NaN));
  });
  return {
    before: linesOf(scopes.before),
    lines: linesOf(scopes.statements),
    result: printed(result),
    parameters: scopes.parameters,
  };
}

function functionOf<T extends (...inputs: never[]) => number>(
  inputs: string,
  tree: RhsTree,
  leaf: (to: RhsLeaf) => CodeNode | null,
): T {
  const { before, lines, result, parameters } = written(tree, leaf, false);
  return generatedFunction(
    `function (${inputs}) {\n${[...before, ...lines, `return ${result};`].join('\n')}\n}`,
    { P: Float64Array.from(parameters) },
  );
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
  return functionOf('t, S', tree, (to) => (to.kind === 'component' ? nameNode(`S[${to.place}]`) : null));
}

function indexLeaf(to: RhsLeaf): CodeNode | null {
  // the index is no constant of the code, but the same in a loop over times
  return to.kind === 'position' ? nameNode('i') : null;
}

/** An expression of a family without unknowns, such as its exact solution, as a function of time and index. */
export function positionFunction(problem: Problem, expression: Expression, block: Block): PositionFunction {
  const tree = new RhsTrees(problem).running(expression, block);
  return functionOf('t, i', tree, indexLeaf);
}

/** The same for many times at once, with the bits of the function. */
export function positionColumn(problem: Problem, expression: Expression, block: Block): PositionColumn {
  const tree = new RhsTrees(problem).running(expression, block);
  const { before, lines, result, parameters } = written(tree, indexLeaf, true);
  const body = [
    ...before,
    'for (let r = 0; r < count; r++) {',
    'const t = T[r];',
    ...lines,
    `OUT[first + r * stride] = ${result};`,
    '}',
  ];
  return generatedFunction(`function (T, i, count, OUT, first, stride) {\n${body.join('\n')}\n}`, {
    P: Float64Array.from(parameters),
  });
}
