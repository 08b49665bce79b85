import { solutionJets } from '../../compile/jets/jet-function.ts';
import { numberPiece, namePiece, operation, type Piece } from '../../compile/pieces/piece.ts';
import { pieceOf } from '../../compile/pieces/piece-of-tree.ts';
import { Scopes } from '../../compile/pieces/scopes.ts';
import { type PartialKind, partialRate, type RateLeaf, RateTrees } from '../../compile/program/rate-tree.ts';
import { binary, bound, type Bound, call, type Tree } from '../../formula/expression.ts';
import { factorial } from '../../formula/factorial.ts';
import { FUNCTIONS } from '../../formula/functions.ts';
import { typedDerivative } from '../../problem/typed-derivatives.ts';
import { Refusal } from '../../text/refusal.ts';
import type { Line } from './language.ts';
import type { Names } from './names.ts';
import type { RateContext } from './rate-lines.ts';
import { writeFormula } from './write-formula.ts';

/** Most components whose derivatives are written out, and most lines of one. */
const MAX_COMPONENTS = 8;
const MAX_LINES = 400;

/** Functions of the notation by the names under which generated code calls them. */
const NOTATION: ReadonlyMap<string, string> = new Map([...FUNCTIONS].map(([name, { code }]) => [code, name]));

/** A piece of code as a formula, operation by operation; names stand for themselves. */
function treeOf(piece: Piece, nameOf: (id: number, loopInvariant: boolean) => string): Tree<Bound<string>> {
  switch (piece.kind) {
    case 'number':
      return piece.value < 0 || Object.is(piece.value, -0)
        ? { kind: 'negate', of: { kind: 'number', value: -piece.value, at: NOWHERE }, at: NOWHERE }
        : { kind: 'number', value: piece.value, at: NOWHERE };
    case 'name':
      return bound(piece.name, piece.name);
    case 'kept':
      return bound(nameOf(piece.id, piece.loopInvariant), piece.key);
    case 'operation': {
      const inputs = piece.inputs.map((input) => treeOf(input, nameOf));
      const [first, second, yes, no] = inputs;
      const { op } = piece;
      if (first === undefined) return bound(piece.key, piece.key);
      if (op === 'negate') return { kind: 'negate', of: first, at: NOWHERE };
      if (typeof op === 'string')
        return op === 'single' || second === undefined ? first : binary(op, first, second);
      if ('call' in op)
        return op.call === 'pow' && second !== undefined
          ? binary('^', first, second)
          : call(NOTATION.get(op.call) ?? op.call, inputs);
      if ('read' in op || second === undefined || yes === undefined || no === undefined) return first;
      return {
        kind: 'if',
        test: { relation: op.choose, left: first, right: second, at: NOWHERE },
        yes,
        no,
        at: NOWHERE,
      };
    }
  }
}

const NOWHERE = { from: 0, to: 0 };

/** Lines, and the names of the numbers that they set. */
export interface Written {
  readonly lines: readonly Line[];
  readonly numbers: readonly string[];
}

/** What derivatives are written with: where they are taken, and where they go. */
export interface DerivativeAt {
  readonly order: number;
  /** The time, as a text that can stand anywhere. */
  readonly time: string;
  readonly present: readonly string[];
  readonly into: (component: number) => string;
}

/** A constant: a parameter by its name where one has that value. */
function constantsOf({ problem, parameters }: RateContext): (value: number) => Piece {
  return (value) => {
    const own = problem.parameters.find((parameter) => Object.is(parameter.value, value));
    const name = own === undefined ? undefined : parameters.get(own.name);
    return name === undefined || value === 0 || value === 1 ? numberPiece(value) : namePiece(name, true);
  };
}

/**
 * A partial derivative of f, written out; one by y is applied to a vector.
 *
 * @param along elements of that vector; none for a single equation, where it is a number itself
 * @throws Refusal for larger systems
 */
export function partialLines(
  context: RateContext,
  of: PartialKind,
  { time, present, into }: Omit<DerivativeAt, 'order'>,
  along: readonly string[],
  names: Names,
): Written {
  const { problem } = context;
  checkSize(problem.size);
  const scopes = new Scopes({ pure: true, single: false, inlines: false });
  const constant = constantsOf(context);
  const trees = new RateTrees(problem);
  const leaf = (to: RateLeaf): Piece => {
    if (to.kind === 'time') return namePiece(time);
    if (to.kind === 'constant') return constant(to.value);
    const place = to.kind === 'component' ? present[to.place] : undefined;
    const moving = to.kind === 'tangent' && to.of.kind === 'component' ? along[to.of.place] : undefined;
    const name = place ?? moving;
    return name === undefined ? numberPiece(0) : namePiece(name);
  };
  const results = problem.blocks.flatMap((block) =>
    Array.from({ length: block.size }, (_, element) =>
      pieceOf(partialRate(trees.at(block.rate, block, element), of), scopes, leaf),
    ),
  );
  return writtenOut(scopes, results, into, context, names);
}

function checkSize(size: number): void {
  if (size > MAX_COMPONENTS)
    throw new Refusal('size', `derivatives of f are written out for up to ${MAX_COMPONENTS} components`);
}

/**
 * The total derivative of f of an order, written out: typed ones as they were typed, others by the recurrences of Taylor
 * series, in the order in which a run does them.
 *
 * Source: A. Griewank, A. Walther, Evaluating Derivatives (2nd ed., 2008), chapter 13.
 *
 * @returns lines, and the names of the numbers that they set
 * @throws Refusal for larger systems, and where it becomes too long to be read
 */
export function derivativeLines(
  context: RateContext,
  { order, time, present, into }: DerivativeAt,
  names: Names,
): Written {
  const { problem } = context;
  checkSize(problem.size);
  const scopes = new Scopes({ pure: true, single: false, inlines: false });
  const when = namePiece(time);
  const at = present.map((name) => namePiece(name));
  const constant = constantsOf(context);
  const trees = new RateTrees(problem);
  const byHand = problem.blocks.flatMap((block) => {
    const typed = typedDerivative(problem, block, order);
    return Array.from({ length: block.size }, (_, element) =>
      typed === null
        ? null
        : pieceOf(trees.at(typed, block, element), scopes, (leaf) => {
            if (leaf.kind === 'time') return when;
            if (leaf.kind === 'constant') return constant(leaf.value);
            return (leaf.kind === 'component' ? at[leaf.place] : undefined) ?? numberPiece(NaN);
          }),
    );
  });
  const isByHand = byHand.every((typed) => typed !== null);
  const { rate } = solutionJets(
    problem,
    isByHand ? 0 : order,
    when,
    at,
    (piece) => scopes.keep(piece),
    constant,
  );
  const results = byHand.map((typed, j): Piece => {
    if (typed !== null) return typed;
    const piece = rate(j, order) ?? numberPiece(0);
    return order === 1 ? piece : operation('*', numberPiece(factorial(order)), piece);
  });
  return writtenOut(scopes, results, into, context, names);
}

/** Lines of what was put aside, and of the results. */
function writtenOut(
  scopes: Scopes,
  results: readonly Piece[],
  into: (component: number) => string,
  { writing, used }: RateContext,
  names: Names,
): Written {
  const statements = [...scopes.before, ...scopes.statements].flatMap((statement) =>
    statement.kind === 'keep' ? [statement] : [],
  );
  if (statements.length > MAX_LINES)
    throw new Refusal('size', `a derivative of this problem takes more than ${MAX_LINES} lines, written out`);
  const called = new Map<string, string>();
  const numbers: string[] = [];
  const nameOf = (id: number, loopInvariant: boolean): string => {
    const key = `${loopInvariant ? 's' : 'v'}${id}`;
    const known = called.get(key);
    if (known !== undefined) return known;
    const made = names.make(`c${numbers.length + 1}`);
    called.set(key, made);
    numbers.push(made);
    return made;
  };
  const text = (piece: Piece): string => writeFormula(treeOf(piece, nameOf), writing, ({ to }) => to, used);
  const all = [
    ...statements.map(({ kept, value }) => {
      const written = text(value);
      return { to: nameOf(kept.id, kept.loopInvariant), value: written };
    }),
    ...results.map((piece, j) => ({ to: into(j), value: text(piece) })),
  ];
  const lines = wanted(all, results.length);
  const set = new Set(lines.map(({ to }) => to));
  return {
    lines: lines.map(({ to, value }) => ({ kind: 'set', to, value })),
    numbers: numbers.filter((name) => set.has(name)),
  };
}

interface Setting {
  readonly to: string;
  readonly value: string;
}

/** The lines that the last ones rest on: series come in pairs, of which the last coefficient of one is not wanted. */
function wanted(lines: readonly Setting[], last: number): readonly Setting[] {
  const read = new Set<string>();
  const kept: Setting[] = [];
  for (let i = lines.length - 1; i >= 0; i -= 1) {
    const line = lines[i]!;
    if (i < lines.length - last && !read.has(line.to)) continue;
    kept.push(line);
    for (const [name] of line.value.matchAll(/[A-Za-z_]\w*/g)) read.add(name);
  }
  return kept.reverse();
}
