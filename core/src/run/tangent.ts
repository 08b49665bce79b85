import { derivative } from '../formula/derivative.ts';
import { type Expression, type IndexedLeaf, type NameLeaf, number } from '../formula/expression.ts';
import { registerOf, type Register } from './program.ts';

/**
 * Directional derivatives for Newton's method, exact and symbolic: a leaf that moves becomes itself with a
 * mark in front, which stands for how fast it moves.
 */
const MARK = '~';

/** The leaf behind a marked one, or null for a leaf that is not marked. */
export function unmarked(leaf: NameLeaf | IndexedLeaf): NameLeaf | IndexedLeaf | null {
  return leaf.name.startsWith(MARK) ? { ...leaf, name: leaf.name.slice(MARK.length) } : null;
}

/** The derivative of an expression along the leaves that move. */
export function tangentOf(
  expression: Expression,
  moves: (leaf: NameLeaf | IndexedLeaf) => boolean,
): Expression {
  return derivative(expression, (leaf) =>
    moves(leaf) ? { ...leaf, name: `${MARK}${leaf.name}` } : number(0),
  );
}

/** The derivative of a combination of registers along those that move. */
export function combinationTangent(value: Expression, moving: ReadonlySet<Register>): Expression {
  return tangentOf(value, (leaf) => {
    const register = registerOf(leaf.name);
    return register !== null && moving.has(register);
  });
}
