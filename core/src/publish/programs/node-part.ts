import type { CodeNode, NumberNode, Operation, TemporaryNode } from '../../compile/nodes/code-node.ts';
import { FUNCTIONS } from '../../formula/functions.ts';
import { atom, type Language, operation, type TextPart } from '../../formula/printer.ts';
import { numberPart } from './program-language.ts';

/** Functions of the notation by the names under which generated code calls them. */
const NOTATION: ReadonlyMap<string, string> = new Map([...FUNCTIONS].map(([name, { code }]) => [code, name]));

function operationPart(
  { op, inputs }: Operation,
  language: Language<TextPart, never>,
  print: (piece: CodeNode) => TextPart,
): TextPart {
  const parts = inputs.map(print);
  const at = (i: number): TextPart => parts[i] ?? atom('');
  if (op === 'negate') return language.negation(at(0));
  if (op === 'single') return at(0);
  if (typeof op === 'string') return operation(language, op, [at(0), at(1)]);
  if ('read' in op) return atom(op.read);
  if ('choose' in op)
    return language.choice({ relation: op.choose, left: at(0), right: at(1), yes: at(2), no: at(3) });
  return op.call === 'pow'
    ? language.power(at(0), at(1), null)
    : language.call({ name: NOTATION.get(op.call) ?? op.call, primes: 0 }, parts);
}

/**
 * A node of generated code in another language, operation by operation; `nameOf` names what was put aside, `digits` has
 * those of a number of which a double has fewer.
 */
export function piecePart(
  piece: CodeNode,
  language: Language<TextPart, never>,
  nameOf: (kept: TemporaryNode) => string,
  digits: (node: NumberNode) => string | undefined,
): TextPart {
  switch (piece.kind) {
    case 'number':
      return numberPart(piece.value, {
        number: (value) => language.number(value, digits(piece)).text,
      });
    case 'name':
      return atom(piece.name);
    case 'kept':
      return atom(nameOf(piece));
    case 'operation':
      return operationPart(piece, language, (input) => piecePart(input, language, nameOf, digits));
  }
}

/** The keys of the nodes put aside that a node reads. */
export function keptIn(piece: CodeNode): readonly string[] {
  if (piece.kind === 'kept') return [piece.key];
  return piece.kind === 'operation' ? piece.inputs.flatMap(keptIn) : [];
}
