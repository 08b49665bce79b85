import { binary, call, type Expression, number, walk } from '../formula/expression.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { stateFunction } from '../compile/state-function.ts';

/**
 * Which branches the right-hand sides take at a time and state: one whole number for each choice, sign, floor and
 * extreme in them. Where it changes along a solution, a right-hand side has a kink or a jump.
 */
export type Branches = (t: number, state: ArrayLike<number>) => readonly number[];

function isBelow(left: Expression, right: Expression): Expression {
  const { at } = left;
  return { kind: 'if', test: { relation: '<', left, right, at }, yes: number(1), no: number(0), at };
}

/** Expressions with whole values that tell which branch a node is in. */
function discrete(node: Expression): readonly Expression[] {
  if (node.kind === 'if') return [{ ...node, yes: number(1), no: number(0) }];
  if (node.kind !== 'call') return [];
  const [x, y] = node.inputs;
  if (x === undefined) return [];
  switch (node.name) {
    case 'abs':
    case 'sign':
      return [call('sign', [x])];
    case 'floor':
      return [node];
    case 'mod':
      return y === undefined ? [] : [call('floor', [binary('/', x, y)])];
    case 'min':
    case 'max':
      return node.inputs.flatMap((a, i) => node.inputs.slice(i + 1).map((b) => isBelow(a, b)));
    default:
      return [];
  }
}

function places(block: Block): readonly number[] {
  return Array.from({ length: block.size }, (_, element) => element);
}

/**
 * Operations that one look for a change of branch takes for each choice in a right-hand side, and looks over one
 * segment, about.
 */
const OPERATIONS_PER_CHOICE = 100;
const LOOKS_PER_PIECE = 80;

/** About how many operations it takes to look for changes of branch over one segment of a reference. */
export function switchOperations({ blocks }: Problem): number {
  let choices = 0;
  for (const { rhs, size } of blocks) walk(rhs, (node) => (choices += size * discrete(node).length));
  return choices * OPERATIONS_PER_CHOICE * LOOKS_PER_PIECE;
}

/** The branches of all right-hand sides of a problem; null where they have none. */
export function branchesOf(problem: Problem): Branches | null {
  const functions = problem.blocks
    .filter((block) => block.derivative === block.unknown.order - 1)
    .flatMap((block) => {
      const found: Expression[] = [];
      walk(block.rhs, (node) => found.push(...discrete(node)));
      return found.flatMap((expression) =>
        places(block).map((element) => stateFunction(problem, expression, block, element)),
      );
    });
  if (functions.length === 0) return null;
  return (t, state) => functions.map((of) => of(t, state));
}
