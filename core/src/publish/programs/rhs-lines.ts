import { interiorOf } from '../../compile/loops/family-reach.ts';
import { type Layout } from '../../program/layout.ts';
import { type RhsLeaf, rhsTangent, type RhsTree, RhsTrees } from '../../program/rhs-tree.ts';
import type { Bound, Expression } from '../../formula/expression.ts';
import { atom, printer, type TextPart } from '../../formula/printer.ts';
import type { Block, Problem } from '../../problem/problem.ts';
import type { CodeLine, Writing } from './language.ts';
import { constantPart, programLanguage } from './program-language.ts';

/** What lines of a problem's formulas are made with. */
export interface RhsContext {
  readonly problem: Problem;
  readonly layout: Layout;
  readonly writing: Writing;
  /** Names of the parameters in the program. */
  readonly parameters: ReadonlyMap<string, string>;
  readonly isOne: boolean;
  readonly vectors: readonly string[];
  readonly used: (name: string) => void;
}

/** A parameter by its name in the program, any other constant as a number. */
function namedPart(
  { parameters, writing }: Pick<RhsContext, 'parameters' | 'writing'>,
  { name, value }: RhsLeaf & { readonly kind: 'constant' },
): TextPart {
  const own = name === null ? undefined : parameters.get(name);
  return own === undefined ? constantPart(name, value, writing) : atom(own);
}

/** The vector along which a right-hand side moves, where its tangents are written. */
const ALONG = 'v';

/** A leaf of a right-hand side in a program; `j` counts the elements of a family. */
function leafPart(context: RhsContext, to: RhsLeaf): TextPart {
  const { writing, layout, vectors, isOne } = context;
  const standing = (place: number): { readonly vector: string; readonly index: number } => {
    const { vector, index } = layout.of[place] ?? { vector: 0, index: 0 };
    return { vector: vectors[vector] ?? '', index };
  };
  switch (to.kind) {
    case 'time':
      return atom('t');
    case 'constant':
      return namedPart(context, to);
    case 'component': {
      const { vector, index } = standing(to.place);
      return atom(isOne ? vector : writing.element(vector, index));
    }
    case 'position':
      return atom(writing.counted('j', to.from));
    case 'neighbour': {
      const { vector, index } = standing(to.block.offset);
      return atom(writing.running(vector, 'j', index + to.ahead));
    }
    case 'tangent': {
      const { of } = to;
      if (of.kind === 'component')
        return atom(isOne ? ALONG : writing.element(ALONG, standing(of.place).index));
      return atom(writing.running(ALONG, 'j', standing(of.block.offset).index + of.ahead));
    }
  }
}

/** A formula of parameters and constants. */
export function numberFormula(context: RhsContext, formula: Expression): string {
  const { problem, writing, used } = context;
  const print = printer<TextPart, Bound<RhsLeaf>>(
    programLanguage(writing, ({ to }) => leafPart(context, to), used),
  );
  return print(new RhsTrees(problem).at(formula, null, 0)).text;
}

/** A formula of every block, with where the elements of the block begin in the vector that is set. */
interface BlockFormula {
  readonly block: Block;
  readonly offset: number;
  readonly formula: Expression;
}

/**
 * Lines that set `into` to one formula of every block: its elements in a loop, those at the edges one by one.
 *
 * @param isMoved to how the formulas move along the vector v instead
 */
export function blockLines(
  context: RhsContext,
  blocks: readonly BlockFormula[],
  into: string,
  isMoved = false,
): readonly CodeLine[] {
  const { problem, writing, isOne } = context;
  const print = printer<TextPart, Bound<RhsLeaf>>(
    programLanguage(writing, ({ to }) => leafPart(context, to), context.used),
  );
  const trees = new RhsTrees(problem);
  const set = (to: string, tree: RhsTree): CodeLine => ({
    kind: 'set',
    to,
    value: print(isMoved ? rhsTangent(tree) : tree).text,
  });
  return blocks.flatMap(({ block, offset, formula }): CodeLine[] => {
    const one = (k: number): CodeLine =>
      set(isOne ? into : writing.element(into, offset + k), trees.at(formula, block, k));
    if (block.unknown.range === null) return [one(0)];
    const { from, to } = interiorOf({ ...block, rhs: formula }, trees);
    const inner = set(writing.running(into, 'j', offset), trees.running(formula, block));
    return [
      ...Array.from({ length: from }, (_, k) => one(k)),
      ...(to > from ? [{ kind: 'each' as const, from, below: to, body: [inner] }] : []),
      ...Array.from({ length: block.size - to }, (_, k) => one(to + k)),
    ];
  });
}
