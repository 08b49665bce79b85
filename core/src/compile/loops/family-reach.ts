import { meaningsOf } from '../../formula/expression.ts';
import type { Block } from '../../problem/problem.ts';
import type { Layout } from '../../program/layout.ts';
import type { RhsTrees } from '../../program/rhs-tree.ts';

/** Elements of a family all of whose neighbours lie inside: from..to-1; the others are written out one by one. */
export interface Interior {
  readonly from: number;
  readonly to: number;
}

export function interiorOf(block: Block, trees: RhsTrees): Interior {
  // a single unknown is written out
  if (block.unknown.range === null) return { from: 1, to: 1 };
  let from = 0;
  let to = block.size;
  for (const leaf of meaningsOf(trees.running(block.rhs, block))) {
    if (leaf.kind !== 'neighbour') continue;
    from = Math.max(from, -leaf.ahead);
    to = Math.min(to, leaf.block.size - leaf.ahead);
  }
  return { from: Math.min(from, block.size), to: Math.max(Math.min(from, block.size), to) };
}

/** How far apart in the vectors of a method two components are that depend on each other. */
export function bandOf(layout: Layout, trees: RhsTrees): number {
  let band = 0;
  for (const { block, offset } of layout.rated) {
    const { from, to } = interiorOf(block, trees);
    // one element represents the inner ones, which all reach equally far
    const inner = to > from ? [from] : [];
    const edges = [
      ...Array.from({ length: from }, (_, k) => k),
      ...Array.from({ length: block.size - to }, (_, k) => to + k),
    ];
    for (const k of [...edges, ...inner])
      for (const leaf of meaningsOf(trees.at(block.rhs, block, k)))
        if (leaf.kind === 'component')
          band = Math.max(band, Math.abs((layout.of[leaf.place]?.index ?? 0) - offset - k));
  }
  return band;
}
