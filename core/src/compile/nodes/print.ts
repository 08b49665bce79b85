import type { Relation } from '../../formula/expression.ts';
import type { TemporaryNode, Operation, CodeNode } from './code-node.ts';

/** How a node that was put aside is called. */
export type NameOf = (kept: TemporaryNode) => string;

/** Local names: loop-invariant ones `s0`, `s1`, ..., others `v0`, `v1`, ... */
export function localName({ id, loopInvariant }: TemporaryNode): string {
  return `${loopInvariant ? 's' : 'v'}${id}`;
}

const RELATIONS: Readonly<Record<Relation, string>> = {
  '<': '<',
  '<=': '<=',
  '>': '>',
  '>=': '>=',
  '==': '===',
  '!=': '!==',
};

/** A number as a literal that reads back to the same bits. */
export function literal(value: number): string {
  return Object.is(value, -0) ? '(-0)' : value < 0 ? `(${value})` : `${value}`;
}

/** An operation in JavaScript, every operation in brackets so that the order is kept. */
function printedOperation({ op, inputs }: Operation, nameOf: NameOf): string {
  const at = (i: number): string => {
    const input = inputs[i];
    return input === undefined ? '' : printed(input, nameOf);
  };
  if (op === 'negate') return `(-${at(0)})`;
  if (op === 'single') return `F(${at(0)})`;
  if (typeof op === 'string') return `(${at(0)} ${op} ${at(1)})`;
  if ('choose' in op) return `(${at(0)} ${RELATIONS[op.choose]} ${at(1)} ? ${at(2)} : ${at(3)})`;
  if ('read' in op) return op.read;
  return `${op.call}(${inputs.map((input) => printed(input, nameOf)).join(', ')})`;
}

/** A node as JavaScript. */
export function printed(piece: CodeNode, nameOf: NameOf = localName): string {
  switch (piece.kind) {
    case 'number':
      return literal(piece.value);
    case 'name':
      return piece.name;
    case 'kept':
      return nameOf(piece);
    case 'operation':
      return printedOperation(piece, nameOf);
  }
}
