import { type Expression, walk } from '../formula/expression.ts';
import type { Meanings } from '../problem/meaning.ts';
import type { Block } from '../problem/problem.ts';
import type { Layout } from './layout.ts';
import type { Placing } from './rate-leaf.ts';

/** Elements of a family all of whose neighbours lie inside: from..to-1; the others are written out one by one. */
export function interiorOf(block: Block, meanings: Meanings): { readonly from: number; readonly to: number } {
  let from = 0;
  let to = block.size;
  const start = block.unknown.range?.from ?? 0;
  walk(block.rate, (node) => {
    if (node.kind !== 'indexed') return;
    const meaning = meanings.of(node, block.unknown.range?.variable ?? null);
    const over = meaning.kind === 'neighbour' ? meaning.block.unknown.range : null;
    if (meaning.kind !== 'neighbour' || over === null) return;
    from = Math.max(from, over.from - start - meaning.shift);
    to = Math.min(to, over.to - start - meaning.shift + 1);
  });
  return { from: Math.min(from, block.size), to: Math.max(Math.min(from, block.size), to) };
}

/** How far apart in the vectors of a method two components are that depend on each other. */
export function bandOf(layout: Layout, meanings: Meanings, placing: Placing): number {
  let band = 0;
  for (const { block, offset } of layout.rated) {
    const { from, to } = interiorOf(block, meanings);
    const elements = new Set([0, from, to - 1, block.size - 1].filter((k) => k >= 0 && k < block.size));
    for (let k = 0; k < from; k += 1) elements.add(k);
    for (let k = to; k < block.size; k += 1) elements.add(k);
    for (const k of elements) {
      const reach = (node: Expression): void => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return;
        const meaning = placing.of(node, block, k);
        if (meaning.kind === 'component')
          band = Math.max(band, Math.abs((layout.of[meaning.place]?.index ?? 0) - offset - k));
        if (meaning.kind === 'given') walk(meaning.value, reach);
      };
      walk(block.rate, reach);
    }
  }
  return band;
}
