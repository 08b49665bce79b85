import { solutionJets } from '../../compile/jets/jet-function.ts';
import {
  type CodeNode,
  constantNode,
  nameNode,
  type NumberNode,
  operation,
} from '../../compile/nodes/code-node.ts';
import { pieceOf } from '../../compile/nodes/node-of-tree.ts';
import { Scopes } from '../../compile/nodes/scopes.ts';
import type { Statement } from '../../compile/nodes/statement.ts';
import { type PartialKind, partialRhs, type RhsLeaf, RhsTrees } from '../../program/rhs-tree.ts';
import { factorial, factorialDigits } from '../../formula/factorial.ts';
import { atom } from '../../formula/printer.ts';
import { typedDerivative } from '../../problem/typed-derivatives.ts';
import { Refusal } from '../../text/refusal.ts';
import type { CodeLine } from './language.ts';
import type { Names } from './names.ts';
import { keptIn, piecePart } from './node-part.ts';
import { programLanguage } from './program-language.ts';
import type { RhsContext } from './rhs-lines.ts';

/** Most components whose derivatives are written out, and most lines of one. */
const MAX_COMPONENTS = 8;
const MAX_LINES = 400;

/** Lines, and the names of the numbers that they set. */
export interface Written {
  readonly lines: readonly CodeLine[];
  readonly numbers: readonly string[];
}

/** What derivatives are written with: where they are taken, and where they go. */
export interface DerivativeAt {
  /** The time, as a text that can be anywhere. */
  readonly time: string;
  readonly present: readonly string[];
  readonly into: (component: number) => string;
  /** Elements of the vector that a derivative by y is applied to; none for a single equation, where it is a number. */
  readonly along: readonly string[];
  readonly names: Names;
}

/** A constant: a parameter by its name in the program. */
function constantPiece(
  { parameters }: RhsContext,
  { name, value }: RhsLeaf & { readonly kind: 'constant' },
): CodeNode {
  const own = name === null ? undefined : parameters.get(name);
  return own === undefined ? constantNode(value, name) : nameNode(own, true);
}

/**
 * A partial derivative of f, written out; one by y is applied to a vector.
 *
 * @throws Refusal for larger systems
 */
export function partialLines(
  context: RhsContext,
  of: PartialKind,
  { time, present, along, into, names }: DerivativeAt,
): Written {
  const { problem } = context;
  checkSize(problem.size);
  const scopes = new Scopes({ pure: true, arithmetic: 'decimal', inlines: false });
  const trees = new RhsTrees(problem);
  const leaf = (to: RhsLeaf): CodeNode => {
    if (to.kind === 'time') return nameNode(time);
    if (to.kind === 'constant') return constantPiece(context, to);
    const place = to.kind === 'component' ? present[to.place] : undefined;
    const moving = to.kind === 'tangent' && to.of.kind === 'component' ? along[to.of.place] : undefined;
    const name = place ?? moving;
    return name === undefined ? constantNode(0) : nameNode(name);
  };
  const results = problem.blocks.flatMap((block) =>
    Array.from({ length: block.size }, (_, element) =>
      pieceOf(partialRhs(trees.at(block.rhs, block, element), of), scopes, leaf),
    ),
  );
  return writtenOut(context, { scopes, results, into, names });
}

function checkSize(size: number): void {
  if (size > MAX_COMPONENTS)
    throw new Refusal('size', `derivatives of f are written out for up to ${MAX_COMPONENTS} components`);
}

/**
 * The total derivative of f of an order, written out: typed ones as they were typed, others by the recurrences of
 * Taylor series, in the order in which a run does them.
 *
 * Source: A. Griewank, A. Walther, Evaluating Derivatives (2nd ed., 2008), chapter 13.
 *
 * @returns lines, and the names of the numbers that they set
 * @throws Refusal for larger systems, and where it becomes too long to be read
 */
export function derivativeLines(
  context: RhsContext,
  order: number,
  { time, present, into, names }: DerivativeAt,
): Written {
  const { problem } = context;
  checkSize(problem.size);
  const scopes = new Scopes({ pure: true, arithmetic: 'decimal', inlines: false });
  const when = nameNode(time);
  const at = present.map((name) => nameNode(name));
  const trees = new RhsTrees(problem);
  const byHand = problem.blocks.flatMap((block) => {
    const typed = typedDerivative(problem, block, order);
    return Array.from({ length: block.size }, (_, element) =>
      typed === null
        ? null
        : pieceOf(trees.at(typed, block, element), scopes, (leaf) => {
            if (leaf.kind === 'time') return when;
            if (leaf.kind === 'constant') return constantPiece(context, leaf);
            return (leaf.kind === 'component' ? at[leaf.place] : undefined) ?? constantNode(NaN);
          }),
    );
  });
  const isByHand = byHand.every((typed) => typed !== null);
  const { rhs } = solutionJets(problem, {
    order: isByHand ? 0 : order,
    when,
    at,
    declare: (piece) => scopes.keep(piece),
    constant: (leaf) => constantPiece(context, leaf),
  });
  const results = byHand.map((typed, j): CodeNode => {
    if (typed !== null) return typed;
    const piece = rhs(j, order) ?? constantNode(0);
    return order === 1
      ? piece
      : operation('*', constantNode(factorial(order), factorialDigits(order)), piece);
  });
  return writtenOut(context, { scopes, results, into, names });
}

type KeepStatement = Extract<Statement, { readonly kind: 'keep' }>;

interface WrittenParts extends Pick<DerivativeAt, 'into' | 'names'> {
  readonly scopes: Scopes;
  readonly results: readonly CodeNode[];
}

/** Lines of what was put aside and is read, and of the results. */
function writtenOut({ writing, used }: RhsContext, { scopes, results, into, names }: WrittenParts): Written {
  const kept = readBy(
    results,
    [...scopes.before, ...scopes.statements].flatMap((statement) =>
      statement.kind === 'keep' ? [statement] : [],
    ),
  );
  if (kept.length > MAX_LINES)
    throw new Refusal('size', `a derivative of this problem takes more than ${MAX_LINES} lines, written out`);
  const called = new Map(kept.map((statement, i) => [statement.kept.key, names.make(`c${i + 1}`)]));
  const language = programLanguage<never>(writing, () => atom(''), used);
  const digits = ({ spelled }: NumberNode): string | undefined => {
    if (spelled === null) return undefined;
    return /^[\d.]/.test(spelled) ? spelled : (writing.constantDigits?.(spelled) ?? undefined);
  };
  const set = (to: string, piece: CodeNode): CodeLine => ({
    kind: 'set',
    to,
    value: piecePart(piece, language, ({ key }) => called.get(key) ?? '', digits).text,
  });
  return {
    lines: [
      ...kept.map(({ kept: { key }, value }) => set(called.get(key) ?? '', value)),
      ...results.map((piece, j) => set(into(j), piece)),
    ],
    numbers: [...called.values()],
  };
}

/** What the results rest on: series come in pairs, of which the last coefficient of one is not read. */
function readBy(
  results: readonly CodeNode[],
  statements: readonly KeepStatement[],
): readonly KeepStatement[] {
  const read = new Set(results.flatMap(keptIn));
  const found: KeepStatement[] = [];
  for (const statement of statements.toReversed()) {
    if (!read.has(statement.kept.key)) continue;
    found.push(statement);
    for (const key of keptIn(statement.value)) read.add(key);
  }
  return found.reverse();
}
