import { type Expression, type NumberLeaf, rewrite } from '../../formula/expression.ts';
import type { Method, MethodStatement } from '../../method/method.ts';

function changedStatement(
  statement: MethodStatement,
  change: (node: Expression) => Expression | null,
): MethodStatement {
  switch (statement.kind) {
    case 'solve':
      return { ...statement, values: statement.values.map((value) => rewrite(value, change)) };
    default:
      return { ...statement, value: rewrite(statement.value, change) };
  }
}

/** The method with one node of its text exchanged; it is known by being the same object. */
export function withNode(method: Method, node: Expression, other: Expression): Method {
  const change = (one: Expression): Expression | null => (one === node ? other : null);
  return { ...method, statements: method.statements.map((statement) => changedStatement(statement, change)) };
}

/** A node as a literal number of a text: `3`, or `1/3` where both are literals. */
export function literalValue(node: Expression): number | null {
  if (node.kind === 'number') return node.value;
  const { left, right } = node.kind === 'binary' && node.operator === '/' ? node : {};
  if (left?.kind === 'number' && right?.kind === 'number') return left.value / right.value;
  return null;
}

/** A number as the node of a text. */
export function numberNode(value: number, at: Expression['at']): NumberLeaf {
  return { kind: 'number', value, at };
}
