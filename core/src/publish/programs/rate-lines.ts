import { interiorOf } from '../../compile/loops/family-reach.ts';
import { type Layout } from '../../compile/program/layout.ts';
import { type RateLeaf, rateTangent, type RateTree, RateTrees } from '../../compile/program/rate-tree.ts';
import { type Expression, type Bound, type Tree } from '../../formula/expression.ts';
import { CONSTANTS } from '../../formula/functions.ts';
import type { Block, Problem } from '../../problem/problem.ts';
import type { Line, Writing } from './language.ts';
import { writeFormula } from './write-formula.ts';

/** What lines of a problem's formulas are made with. */
export interface RateContext {
  readonly problem: Problem;
  readonly layout: Layout;
  readonly writing: Writing;
  /** Names of the parameters in the program. */
  readonly parameters: ReadonlyMap<string, string>;
  readonly isOne: boolean;
  readonly vectors: readonly string[];
  readonly used: (name: string) => void;
}

function constant({ writing }: RateContext, value: number): string {
  return value < 0 ? `(-${writing.number(-value)})` : writing.number(value);
}

/** The parameter that has a value, where a formula of a family has lost its name. */
function parameterOf({ problem, parameters }: RateContext, value: number): string | null {
  const found = problem.parameters.find((parameter) => Object.is(parameter.value, value));
  return found === undefined ? null : (parameters.get(found.name) ?? null);
}

function place({ layout, writing, vectors, isOne }: RateContext, at: number): string {
  const { vector, index } = layout.of[at] ?? { vector: 0, index: 0 };
  const name = vectors[vector] ?? '';
  return isOne ? name : writing.element(name, index);
}

/** A formula of a single unknown, with the names of its text. */
function named(context: RateContext, expression: Expression): string {
  const { problem, parameters, writing } = context;
  return writeFormula(
    expression,
    writing,
    (node) => {
      if (node.kind === 'name') {
        if (node.name === problem.independent && node.primes === 0) return 't';
        const parameter = parameters.get(node.name);
        if (parameter !== undefined) return parameter;
        const known = CONSTANTS.get(node.name);
        if (known !== undefined) return constant(context, known);
        const block = problem.blocks.find(
          ({ unknown, derivative }) => unknown.name === node.name && derivative === node.primes,
        );
        if (block !== undefined) return place(context, block.offset);
      }
      return bound(context, node, null, 0);
    },
    context.used,
  );
}

/** A leaf that is no plain name: an element of a family, a value at its edge. */
function bound(context: RateContext, node: Expression, block: Block | null, element: number): string {
  const tree = new RateTrees(context.problem).at(node, block, element);
  return treeText(context, tree, null);
}

/** The vector along which a rate moves, where its tangents are written. */
const ALONG = 'v';

function treeText(context: RateContext, tree: Tree<Bound<RateLeaf>>, counter: string | null): string {
  const { writing, layout, vectors } = context;
  return writeFormula(
    tree,
    writing,
    ({ to }) => {
      switch (to.kind) {
        case 'time':
          return 't';
        case 'constant':
          return parameterOf(context, to.value) ?? constant(context, to.value);
        case 'component':
          return place(context, to.place);
        case 'position':
          return writing.counted(counter ?? 'j', to.from);
        case 'neighbour': {
          const { vector, index } = layout.of[to.block.offset] ?? { vector: 0, index: 0 };
          return writing.running(vectors[vector] ?? '', counter ?? 'j', index + to.ahead);
        }
        case 'tangent': {
          const { of } = to;
          if (of.kind === 'component')
            return context.isOne ? ALONG : writing.element(ALONG, layout.of[of.place]?.index ?? 0);
          const index = layout.of[of.block.offset]?.index ?? 0;
          return writing.running(ALONG, counter ?? 'j', index + of.ahead);
        }
      }
    },
    context.used,
  );
}

/**
 * Lines that set `into` to one formula of every block: its elements in a loop, those at the edges one by one.
 *
 * @param isMoved to how the formulas move along the vector v instead
 */
export function blockLines(
  context: RateContext,
  blocks: readonly { readonly block: Block; readonly offset: number; readonly formula: Expression }[],
  into: string,
  isMoved = false,
): readonly Line[] {
  const { problem, writing, isOne } = context;
  const changed = (tree: RateTree): RateTree => (isMoved ? rateTangent(tree) : tree);
  const trees = new RateTrees(problem);
  return blocks.flatMap(({ block, offset, formula }): Line[] => {
    if (block.unknown.range === null)
      return [
        {
          kind: 'set',
          to: isOne ? into : writing.element(into, offset),
          value: isMoved
            ? treeText(context, changed(trees.at(formula, block, 0)), null)
            : named(context, formula),
        },
      ];
    const { from, to } = interiorOf({ ...block, rate: formula }, trees);
    const edge = (k: number): Line => ({
      kind: 'set',
      to: writing.element(into, offset + k),
      value: treeText(context, changed(trees.at(formula, block, k)), null),
    });
    const inner: Line = {
      kind: 'each',
      from,
      below: to,
      body: [
        {
          kind: 'set',
          to: writing.running(into, 'j', offset),
          value: treeText(context, changed(trees.running(formula, block)), 'j'),
        },
      ],
    };
    return [
      ...Array.from({ length: from }, (_, k) => edge(k)),
      ...(to > from ? [inner] : []),
      ...Array.from({ length: block.size - to }, (_, k) => edge(to + k)),
    ];
  });
}
