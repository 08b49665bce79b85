import { Refusal } from '../../text/refusal.ts';
import { memoize } from '../../text/memoize.ts';
import type { Problem } from '../../problem/problem.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { generatedFunction } from '../generated.ts';
import { nameNode, readNode } from '../nodes/code-node.ts';
import { problemConstant } from '../nodes/node-of-tree.ts';
import { printed } from '../nodes/print.ts';
import { Scopes } from '../nodes/scopes.ts';
import { linesOf } from '../nodes/statement.ts';
import { type RhsLeaf, RhsTrees } from '../../program/rhs-tree.ts';
import { JetCode } from './jet.ts';
import { type Coefficient, orZero } from './series.ts';

/**
 * Series of the right-hand sides where time and state are series in h themselves: time is t + shift*h, coefficient k of
 * component j of the state is read from Y[k*size + j], and that of its right-hand side written to OUT at the same
 * place, k = 0..order.
 */
export type RhsSeries = (t: number, shift: number, Y: ArrayLike<number>, out: Float64Array) => void;

/** Most components for which such series are made. */
export const MAX_SERIES_COMPONENTS = 60;

/** Series are wanted again for every method of a study, and for every Jacobian. */
const known = memoize<RhsSeries>(40);

/**
 * Generates the series of the right-hand sides of a problem along any series of the state, as straight-line code.
 *
 * @throws Refusal for more than MAX_SERIES_COMPONENTS components
 */
export function rhsSeries(problem: Problem, order: number): RhsSeries {
  const { size } = problem;
  if (size > MAX_SERIES_COMPONENTS)
    throw new Refusal(
      'size',
      `series of right-hand sides are made for up to ${MAX_SERIES_COMPONENTS} components`,
    );
  return known(problemKey(problem, order), () => generated(problem, order));
}

function generated(problem: Problem, order: number): RhsSeries {
  const { size } = problem;
  const scopes = new Scopes({ pure: true, arithmetic: 'double', inlines: false });
  const trees = new RhsTrees(problem);
  const at = Array.from({ length: size * (order + 1) }, (_, i) => scopes.keep(readNode(`Y[${i}]`, false)));
  const leaf = (to: RhsLeaf, k: number): Coefficient => {
    switch (to.kind) {
      case 'time':
        return k === 0 ? nameNode('t') : k === 1 ? nameNode('shift') : null;
      case 'constant':
        return k === 0 && to.value !== 0 ? problemConstant(to, scopes) : null;
      case 'component':
        return at[k * size + to.place] ?? null;
      default:
        return null;
    }
  };
  const lines = problem.blocks.flatMap((block) =>
    Array.from({ length: block.size }, (_, element) => {
      const jet = new JetCode(leaf, (piece) => scopes.keep(piece));
      const tree = trees.at(block.rhs, block, element);
      return Array.from({ length: order + 1 }, (__, k) => ({
        place: k * size + block.offset + element,
        piece: orZero(jet.coefficient(tree, k)),
      }));
    }),
  );
  const body = [
    ...linesOf(scopes.before),
    ...linesOf(scopes.statements),
    ...lines.flat().map(({ place, piece }) => `OUT[${place}] = ${printed(piece)};`),
  ].join('\n');
  return generatedFunction(`function (t, shift, Y, OUT) {\n${body}\n}`, {
    P: Float64Array.from(scopes.parameters),
  });
}
