import { childrenOf, type Expression } from '../../formula/expression.ts';
import type { Problem } from '../../problem/problem.ts';

interface Size {
  readonly operations: number;
  /** Whether it depends on the time or on an unknown, so that it has a series at all. */
  readonly varies: boolean;
}

/**
 * About how many operations the Taylor coefficients of all right-hand sides take up to an order: a product of two
 * series takes order^2/2 of them, a sum or a multiple as many as there are coefficients.
 *
 * Source: A. Griewank, A. Walther, Evaluating Derivatives (2nd ed., 2008), section 13.2.
 */
export function seriesOperations({ blocks, unknowns, independent }: Problem, order: number): number {
  const varying = new Set([independent, ...unknowns.map(({ name }) => name)]);
  const [line, square] = [order, order ** 2 / 2];
  const cost = (node: Expression, parts: readonly Size[]): number => {
    const varyingParts = parts.filter(({ varies }) => varies).length;
    if (varyingParts === 0) return 0;
    switch (node.kind) {
      case 'binary':
        if (node.operator === '^') return 2 * square;
        if (node.operator === '*') return varyingParts === 2 ? square : line;
        return node.operator === '/' && parts[1]?.varies === true ? square : line;
      case 'call':
        return 2 * square;
      default:
        return line;
    }
  };
  const sizeOf = (node: Expression): Size => {
    if (node.kind === 'number') return { operations: 0, varies: false };
    if (node.kind === 'name' || node.kind === 'indexed')
      return { operations: 0, varies: varying.has(node.name) };
    const parts = childrenOf(node).map(sizeOf);
    const inside = parts.reduce((sum, { operations }) => sum + operations, 0);
    return { operations: inside + cost(node, parts), varies: parts.some(({ varies }) => varies) };
  };
  return blocks.reduce((sum, { rhs, size }) => sum + size * (line + sizeOf(rhs).operations), 0);
}
