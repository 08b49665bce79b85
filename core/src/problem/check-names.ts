import type { Expression } from '../formula/expression.ts';
import { walk } from '../formula/expression.ts';
import { type Complaints, PlaceError } from '../text/place.ts';
import { type LeafMeaning, Meanings, missingEdge, type Naming } from './meaning.ts';
import type { Block, Conserved, TypedDerivative } from './problem.ts';

/** Complains of every name in right-hand sides, exact solutions and conserved quantities that means nothing there. */
export function checkNames(
  problem: Naming & { readonly conserved: readonly Conserved[]; readonly typed: readonly TypedDerivative[] },
  complaints: Complaints,
): void {
  const meanings = new Meanings(problem);
  const check = (
    expression: Expression,
    block: Block | null,
    allow: (meaning: LeafMeaning) => string | null,
  ): void =>
    walk(expression, (node) => {
      if (node.kind !== 'name' && node.kind !== 'indexed') return;
      complaints.attempt(() => {
        const meaning = meanings.of(node, block?.unknown.range?.variable ?? null);
        const refusal = allow(meaning);
        if (refusal !== null) throw new PlaceError(node.at, refusal);
        if (meaning.kind === 'neighbour' && block !== null)
          checkReach(meaning.block, meaning.shift, block, node);
      });
    });
  const anything = (): null => null;
  const noUnknown = (meaning: LeafMeaning): string | null =>
    meaning.kind === 'time' || meaning.kind === 'constant' || meaning.kind === 'position'
      ? null
      : 'an exact solution may contain only the independent variable and parameters';
  const seen = new Set<Expression>();
  for (const block of problem.blocks) {
    if (block.derivative === block.unknown.order - 1) {
      check(block.rhs, block, anything);
      for (const value of block.unknown.given.values())
        if (!seen.has(value)) {
          seen.add(value);
          check(value, null, (meaning) =>
            meaning.kind === 'given' ? 'an edge value cannot refer to another edge value' : null,
          );
        }
    }
    if (block.exact !== null) check(block.exact, block, noUnknown);
  }
  for (const { value } of [...problem.conserved, ...problem.typed]) check(value, null, anything);
}

/** Every neighbour that the body of a family reaches must be in a family or given. */
function checkReach(neighbour: Block, shift: number, body: Block, node: Expression): void {
  const from = body.unknown.range!.from + shift;
  const to = body.unknown.range!.to + shift;
  const { range, given } = neighbour.unknown;
  for (const [low, high] of [
    [from, Math.min(to, range!.from - 1)],
    [Math.max(from, range!.to + 1), to],
  ] as const)
    for (let index = low; index <= high; index += 1)
      if (neighbour.derivative > 0 || !given.has(index))
        throw new PlaceError(node.at, missingEdge(neighbour, index));
}
