import { type Expression, partsOf, some } from '../../formula/expression.ts';
import { givenBy, type Method, valuesOf } from '../../method/method.ts';
import type { Span } from '../../text/place.ts';
import { type Amount, isZero, opposite } from '../form/amount.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { shiftsOf } from '../order/step-series.ts';
import { multipleOfH } from './multiple-of-h.ts';

/** One change of a text that may mend it. */
export interface Change {
  readonly at: Span;
  readonly text: string;
  /** Of changes that do equally well the one with the lowest rank is the likeliest. */
  readonly rank: number;
}

function source(method: Method, { from, to }: Span): string {
  return method.text.slice(from, to);
}

/** A node of a formula, with the node that it is part of. */
interface Placed {
  readonly node: Expression;
  readonly parent: Expression | null;
}

function nodesIn(formula: Expression, parent: Expression | null = null): readonly Placed[] {
  return [{ node: formula, parent }, ...partsOf(formula).flatMap((part) => nodesIn(part, formula))];
}

/** The formulas of a text, with the place of the statement that each belongs to. */
function formulasOf({
  statements,
}: Method): readonly { readonly formula: Expression; readonly statement: number }[] {
  return statements.flatMap((one, statement) => valuesOf(one).map((formula) => ({ formula, statement })));
}

/** Every node of every formula of a text. */
function nodesOf(method: Method): readonly Placed[] {
  return formulasOf(method).flatMap(({ formula }) => nodesIn(formula));
}

function isName(node: Expression, name: string): boolean {
  return node.kind === 'name' && node.name === name && node.primes === 0;
}

/** Whether a formula holds the step size. */
export function holdsStep(formula: Expression): boolean {
  return some(formula, (node) => isName(node, 'h'));
}

/** A slope of the history, such as `f[n-1]`. */
function isStoredSlope(node: Expression): boolean {
  return node.kind === 'indexed' && node.name === 'f';
}

/** A call of f, of a, or of a derivative of f, or a slope of the history. */
function isEvaluation(node: Expression): boolean {
  return (node.kind === 'call' && /^[fa](_|$)/.test(node.name)) || isStoredSlope(node);
}

/** Names of vectors that lines of a text give. */
export function vectorNames(method: Method): ReadonlySet<string> {
  return new Set(
    method.statements.flatMap((statement) =>
      statement.kind === 'let' && statement.shape !== 'vector'
        ? []
        : givenBy(statement).flatMap((given) => (given.kind === 'name' ? [given.name] : [])),
    ),
  );
}

/** Whether a node is a slope by its name: one that a line gives, or one of the history. */
function isNamedSlope(node: Expression, names: ReadonlySet<string>): boolean {
  return (node.kind === 'name' && names.has(node.name)) || isStoredSlope(node);
}

function isSum(node: Expression): node is Expression & { readonly kind: 'binary' } {
  return node.kind === 'binary' && '+-'.includes(node.operator);
}

/** Whether a node is the beginning of a longer sum. */
function beginsSum({ node, parent }: Placed): boolean {
  return parent !== null && isSum(parent) && parent.left === node;
}

/** The terms of a sum from left to right; the formula itself where it is none. */
function termsOf(formula: Expression): readonly Expression[] {
  return isSum(formula) ? [...termsOf(formula.left), formula.right] : [formula];
}

/**
 * Whether the stages of a text are defined as h times a slope: most of them are, or as many as are not where the last line has
 * no h.
 */
function definesWithStep(method: Method): boolean {
  const definitions = method.statements.flatMap((statement) =>
    statement.kind === 'let' && statement.given.kind === 'name' ? [statement.value] : [],
  );
  const withStepIn = definitions.filter(
    (value) =>
      value.kind === 'binary' &&
      value.operator === '*' &&
      isName(value.left, 'h') &&
      isEvaluation(value.right),
  ).length;
  const without = definitions.filter(isEvaluation).length;
  if (withStepIn !== without) return withStepIn > without;
  const last = method.statements.at(-1);
  return withStepIn > 0 && last !== undefined && !valuesOf(last).some(holdsStep);
}

/** h put in before something that may lack it: a slope, a bracket, a definition. */
function withStep(
  method: Method,
  names: ReadonlySet<string>,
  isDefinedWithStep: boolean,
): (placed: Placed) => readonly Change[] {
  const definition = isDefinedWithStep ? 0 : 3;
  return ({ node, parent }) => {
    const { at } = node;
    const written = source(method, at);
    const isSlope = isEvaluation(node) || /^v(\[.*\])?$/.test(written) || isNamedSlope(node, names);
    const isBracket = isSum(node) && written.startsWith('(');
    const isWhole = parent === null && isEvaluation(node);
    const isDivisor = parent?.kind === 'binary' && parent.operator === '/' && parent.right === node;
    if ((!isSlope && !isBracket) || isDivisor) return [];
    return ['h', 'h^2'].map((factor, i) => ({
      at,
      text: `${factor}*${written}`,
      rank: (isWhole ? definition : 1) + 2 * i,
    }));
  };
}

/** h taken out, or with another power. */
function otherPower(method: Method, isDefinedWithStep: boolean): (placed: Placed) => readonly Change[] {
  return ({ node, parent }) => {
    if (
      node.kind === 'binary' &&
      node.operator === '^' &&
      isName(node.left, 'h') &&
      node.right.kind === 'number'
    ) {
      const own = node.right.value;
      return [own - 1, own + 1, own - 2, own + 2]
        .filter((power) => power > 0)
        .map((power, i) => ({ at: node.at, text: power === 1 ? 'h' : `h^${power}`, rank: 1 + i }));
    }
    if (!isName(node, 'h') || (parent?.kind === 'binary' && parent.operator === '^')) return [];
    const powers = [2, 3].map((power) => ({ at: node.at, text: `h^${power}`, rank: power }));
    if (parent?.kind !== 'binary') return powers;
    const { left, right, operator, at } = parent;
    const without = left === node ? right : left;
    if (operator === '*') {
      const rank = isEvaluation(without) === isDefinedWithStep ? 3 : 1;
      return [{ at, text: source(method, without.at), rank }, ...powers];
    }
    return operator === '/' && left === node ? [{ at: node.at, text: '1', rank: 1 }, ...powers] : powers;
  };
}

/** A bracket around what stands behind a factor with h, to the end of the sum. */
function withBracket(method: Method): (placed: Placed) => readonly Change[] {
  return (placed) => {
    const { node } = placed;
    if (!isSum(node) || beginsSum(placed)) return [];
    return termsOf(node)
      .slice(0, -1)
      .flatMap((term): readonly Change[] => {
        if (term.kind !== 'binary' || term.operator !== '*' || !holdsStep(term.left)) return [];
        const at = { from: term.right.at.from, to: node.right.at.to };
        return [{ at, text: `(${source(method, at)})`, rank: 1 }];
      });
  };
}

/** Changes of where h is and of its power: for a text whose terms are not all measured alike. */
export function stepChanges(method: Method): readonly Change[] {
  const isDefinedWithStep = definesWithStep(method);
  const nodes = nodesOf(method);
  return [
    withStep(method, vectorNames(method), isDefinedWithStep),
    otherPower(method, isDefinedWithStep),
    withBracket(method),
  ].flatMap((changes) => nodes.flatMap(changes));
}

/** `t + h/2`, and `t` for no shift. */
function timeText(shift: Amount): string {
  if (isZero(shift)) return 't';
  return shift.value < 0 ? `t - ${multipleOfH(opposite(shift))}` : `t + ${multipleOfH(shift)}`;
}

/** Another time for an evaluation: that of the value beside it. */
function timeChanges(nodes: readonly Placed[], linear: LinearMethod): readonly Change[] {
  const shifts = shiftsOf(linear).filter(({ stage }) => stage.partial === null);
  return nodes.flatMap(({ node }): readonly Change[] => {
    if (node.kind !== 'call' || !/^[fa]$/.test(node.name)) return [];
    const [time] = node.inputs;
    const found = shifts.find(({ stage }) => stage.span.from <= node.at.from && node.at.to <= stage.span.to);
    return time === undefined || found === undefined
      ? []
      : [{ at: time.at, text: timeText(found.moved), rank: 0 }];
  });
}

/** `y[n]`, or `f[n-2]`: what is stored of some steps back. */
export function storedText(name: string, back: number): string {
  return back === 0 ? `${name}[n]` : `${name}[n-${back}]`;
}

/** Another index into the history, a step or two away. */
function indexChanges(method: Method, nodes: readonly Placed[]): readonly Change[] {
  return nodes.flatMap(({ node }): readonly Change[] => {
    const written = source(method, node.at);
    const found = /^([a-z]+)\[n(?:-(\d+))?\]$/.exec(written);
    const isBare = node.kind === 'name' && ['y', 'x', 'v'].includes(node.name) && node.primes === 0;
    if (node.kind !== 'indexed' && !isBare) return [];
    const name = found?.[1] ?? (isBare ? written : null);
    if (name === null || (isBare && method.depth === 0)) return [];
    const back = Number(found?.[2] ?? 0);
    return [back - 1, back + 1, back - 2, back + 2]
      .filter((other) => other >= 0 && other <= method.depth + 1)
      .map((other, i) => ({ at: node.at, text: storedText(name, other), rank: i < 2 ? 1 : 2 }));
  });
}

/** Two nodes of a text in each other's place. */
function exchanged(method: Method, one: Expression, other: Expression, rank: number): Change {
  const between = method.text.slice(one.at.to, other.at.from);
  return {
    at: { from: one.at.from, to: other.at.to },
    text: `${source(method, other.at)}${between}${source(method, one.at)}`,
    rank,
  };
}

/** Nodes of one formula in the order of the text. */
function inTextOrder(nodes: readonly Expression[]): readonly Expression[] {
  return nodes.toSorted((a, b) => a.at.from - b.at.from);
}

/** Two weights of slopes in a formula exchanged: two neighbouring numbers that multiply. */
function swappedNumbers(method: Method, formula: Expression): readonly Change[] {
  const numbers = inTextOrder(
    nodesIn(formula).flatMap(({ node, parent }) =>
      node.kind === 'number' && parent?.kind === 'binary' && '*/'.includes(parent.operator) ? [node] : [],
    ),
  );
  return numbers.slice(1).flatMap((other, i): readonly Change[] => {
    const one = numbers[i]!;
    const isSame = one.kind === 'number' && other.kind === 'number' && one.value === other.value;
    return isSame ? [] : [exchanged(method, one, other, 1)];
  });
}

/** Two names of slopes in a formula exchanged, which exchanges their weights. */
function swappedNames(method: Method, formula: Expression, names: ReadonlySet<string>): readonly Change[] {
  const nodes = inTextOrder(
    nodesIn(formula).flatMap(({ node }) => (isNamedSlope(node, names) ? [node] : [])),
  );
  return nodes.flatMap((one, i) =>
    nodes
      .slice(i + 1)
      .flatMap((other) =>
        source(method, one.at) === source(method, other.at) ? [] : [exchanged(method, one, other, 2)],
      ),
  );
}

/** Another sign between two terms. */
function signChanges(method: Method, nodes: readonly Placed[]): readonly Change[] {
  return nodes.flatMap(({ node }): readonly Change[] => {
    if (!isSum(node)) return [];
    const at = { from: node.left.at.to, to: node.right.at.to };
    const other = node.operator === '+' ? '-' : '+';
    return [{ at, text: source(method, at).replace(node.operator, other), rank: 1 }];
  });
}

/** The derivative by the time beside that by y. */
function timeDerivatives(method: Method, nodes: readonly Placed[]): readonly Change[] {
  return nodes.flatMap(({ node }): readonly Change[] => {
    if (node.kind !== 'binary' || node.operator !== '*') return [];
    const { left } = node;
    if (left.kind !== 'call' || left.name !== 'f_y') return [];
    const places = left.inputs.map(({ at }) => source(method, at)).join(', ');
    return [{ at: node.at, text: `(f_t(${places}) + ${source(method, node.at)})`, rank: 0 }];
  });
}

/** Changes of a text whose terms are all measured alike, but for numbers: times, indices, order, signs. */
export function structuralChanges(method: Method, linear: LinearMethod): readonly Change[] {
  const nodes = nodesOf(method);
  const formulas = formulasOf(method);
  const names = vectorNames(method);
  return [
    ...timeChanges(nodes, linear),
    ...timeDerivatives(method, nodes),
    ...indexChanges(method, nodes),
    ...formulas.flatMap(({ formula }) => swappedNumbers(method, formula)),
    ...formulas.flatMap(({ formula }) => swappedNames(method, formula, names)),
    ...signChanges(method, nodes),
  ];
}

/** Sums of slopes of a text to which one may have been forgotten. */
export interface SumOfSlopes {
  readonly sum: Expression;
  /** Slopes that it holds, as they are written. */
  readonly held: ReadonlySet<string>;
  /** The place of its statement in the text. */
  readonly statement: number;
}

export function sumsOf(method: Method): readonly SumOfSlopes[] {
  const names = vectorNames(method);
  return formulasOf(method).flatMap(({ formula, statement }) =>
    nodesIn(formula).flatMap((placed): readonly SumOfSlopes[] => {
      const { node } = placed;
      const isOne = isSum(node) || source(method, node.at).startsWith('(');
      if (!isOne || beginsSum(placed)) return [];
      const held = nodesIn(node).flatMap((one) =>
        isNamedSlope(one.node, names) ? [source(method, one.node.at)] : [],
      );
      return held.length > 0 ? [{ sum: node, held: new Set(held), statement }] : [];
    }),
  );
}
