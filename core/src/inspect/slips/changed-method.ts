import { type Expression, type NumberLeaf, partsOf, rewrite } from '../../formula/expression.ts';
import { type Method, type Shape, valuesOf, withValues } from '../../method/method.ts';

/** Gives the nodes of a changed tree the shapes of those that they represent. */
function addShapes(before: Expression, after: Expression, shapes: Map<Expression, Shape>): void {
  if (before === after) return;
  const shape = shapes.get(before);
  if (shape !== undefined) shapes.set(after, shape);
  const parts = partsOf(after);
  partsOf(before).forEach((part, i) => addShapes(part, parts[i] ?? part, shapes));
}

/**
 * The method with one node of its text exchanged for one of the same shape; the node is known by being the same object.
 */
export function withNode(method: Method, node: Expression, other: Expression): Method {
  const change = (one: Expression): Expression | null => (one === node ? other : null);
  const shapes = new Map(method.shapes);
  const statements = method.statements.map((statement) => {
    const before = valuesOf(statement);
    const values = before.map((value) => rewrite(value, change));
    before.forEach((value, i) => addShapes(value, values[i] ?? value, shapes));
    return withValues(statement, values);
  });
  return { ...method, statements, shapes };
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
