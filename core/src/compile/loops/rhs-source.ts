import type { ElementLeaf } from '../kernel/kernel.ts';
import { nameNode, type CodeNode, ZERO } from '../nodes/code-node.ts';
import { parameterNode } from '../nodes/node-of-tree.ts';
import type { Scopes } from '../nodes/scopes.ts';
import type { Layout } from '../../program/layout.ts';
import type { Moving, RhsLeaf } from '../../program/rhs-tree.ts';

/**
 * Where the values of a right-hand side come from: arrays by vector, and how fast they move where that is asked for.
 */
export interface Source {
  readonly at: readonly string[];
  readonly along: readonly (string | null)[];
  readonly when: CodeNode;
}

/** A leaf of a right-hand side as a node: an element of the arrays of a source, a constant, or the running index. */
export function sourceNode(leaf: RhsLeaf, source: Source, layout: Layout, scopes: Scopes): CodeNode {
  switch (leaf.kind) {
    case 'time':
      return source.when;
    case 'constant':
      return parameterNode(leaf.value, scopes, leaf.name);
    case 'position':
      return nameNode(`(i + ${leaf.from})`);
    case 'component':
    case 'neighbour':
      return stateElement(leaf, source.at, layout);
    case 'tangent':
      return stateElement(leaf.of, source.along, layout);
  }
}

/** A component of the state as an element of the arrays of a source. */
function stateElement(moving: Moving, arrays: readonly (string | null)[], layout: Layout): CodeNode {
  const at = layout.of[moving.kind === 'component' ? moving.place : moving.block.offset];
  const array = at === undefined ? null : arrays[at.vector];
  if (array == null || at === undefined) return ZERO;
  if (moving.kind === 'component') return nameNode(`${array}[${at.index}]`);
  const shift = at.index + moving.ahead;
  return nameNode(`${array}[${shift === 0 ? 'i' : shift > 0 ? `i + ${shift}` : `i - ${-shift}`}]`);
}

/** A leaf of the body of a family as an element of an array, or as the running index; null where it is neither. */
export function runningElement(leaf: RhsLeaf, source: Source, layout: Layout): ElementLeaf | null {
  if (leaf.kind === 'position') return { kind: 'position', from: leaf.from };
  const moving = leaf.kind === 'tangent' ? leaf.of : leaf;
  if (moving.kind !== 'neighbour') return null;
  const at = layout.of[moving.block.offset];
  const array = at === undefined ? null : (leaf.kind === 'tangent' ? source.along : source.at)[at.vector];
  return array == null || at === undefined
    ? null
    : { kind: 'element', array, shift: at.index + moving.ahead };
}
