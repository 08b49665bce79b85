import type { Relation } from '../../formula/expression.ts';

/** An operation of generated code. `single` rounds its one input to 32 bits. */
export type Op =
  | '+'
  | '-'
  | '*'
  | '/'
  | 'negate'
  | 'single'
  /** A function of the fixed table, under the name by which generated code calls it. */
  | { readonly call: string }
  /** Compares the first two inputs and takes the third or the fourth. */
  | { readonly choose: Relation }
  /** Reads an element of an array that the frame around the code gives. */
  | { readonly read: string };

export interface NumberNode {
  readonly kind: 'number';
  readonly value: number;
  /** What it is to all digits, where a double is not: its digits, or the name of a constant or parameter. */
  readonly spelled: string | null;
  readonly loopInvariant: true;
  readonly key: string;
}

/** A name, or an element of an array, that the frame around the code gives; always of the generator's own making. */
export interface NameNode {
  readonly kind: 'name';
  readonly name: string;
  readonly loopInvariant: boolean;
  readonly key: string;
}

/** A node that was put aside under a number. */
export interface TemporaryNode {
  readonly kind: 'kept';
  readonly id: number;
  readonly loopInvariant: boolean;
  readonly key: string;
}

export interface Operation {
  readonly kind: 'operation';
  readonly op: Op;
  readonly inputs: readonly CodeNode[];
  /** Operations in it, this one included. */
  readonly operations: number;
  /** Operations inside one another, this one included. */
  readonly depth: number;
  readonly loopInvariant: boolean;
  readonly key: string;
}

/**
 * A node of generated code: what is computed, not how it is written; `print.ts` writes it, once, at the end.
 * `loopInvariant`: the same in every step of a loop. `key`: equal for nodes that compute the same in the same way.
 */
export type CodeNode = NumberNode | NameNode | TemporaryNode | Operation;

export function constantNode(value: number, spelled: string | null = null): NumberNode {
  const key = spelled === null ? (Object.is(value, -0) ? '-0' : String(value)) : `#${spelled}`;
  return { kind: 'number', value, spelled, loopInvariant: true, key };
}

export function nameNode(name: string, loopInvariant = false): NameNode {
  return { kind: 'name', name, loopInvariant, key: name };
}

export function temporaryNode(id: number, loopInvariant: boolean): TemporaryNode {
  return { kind: 'kept', id, loopInvariant, key: loopInvariant ? `$s${id}` : `$v${id}` };
}

function opKey(op: Op): string {
  if (typeof op === 'string') return op;
  if ('call' in op) return op.call;
  return 'choose' in op ? `?${op.choose}` : op.read;
}

export function operation(op: Op, ...inputs: readonly CodeNode[]): Operation {
  let key = `${opKey(op)}(`;
  let loopInvariant = true;
  let operations = 1;
  let depth = 1;
  for (let i = 0; i < inputs.length; i += 1) {
    const input = inputs[i]!;
    key += i === 0 ? input.key : `,${input.key}`;
    loopInvariant &&= input.loopInvariant;
    if (input.kind !== 'operation') continue;
    operations += input.operations;
    depth = Math.max(depth, input.depth + 1);
  }
  return { kind: 'operation', op, inputs, operations, depth, loopInvariant, key: `${key})` };
}

/** An element of an array that is read once, and then has a name. */
export function readNode(element: string, loopInvariant: boolean): Operation {
  return {
    kind: 'operation',
    op: { read: element },
    inputs: [],
    operations: 1,
    depth: 1,
    loopInvariant,
    key: element,
  };
}

/** Whether a node may occur twice without being computed twice. */
export function isAtom(piece: CodeNode): piece is Exclude<CodeNode, Operation> {
  return piece.kind !== 'operation';
}

export const ZERO = constantNode(0);
export const ONE = constantNode(1);
