import { closingOf, depths } from '../text/brackets.ts';
import { type Expression, number } from '../formula/expression.ts';
import { FUNCTIONS } from '../formula/functions.ts';
import type { Grammar } from '../formula/grammar.ts';
import { Parser } from '../formula/parse.ts';
import { PlaceError, type Span, spanning } from '../text/place.ts';
import type { TokenLine, Token } from '../text/token.ts';

/** A name on the left of a statement, with what follows it: `x''`, `u[i]`, `u[i]'`. */
export interface Target {
  readonly name: string;
  readonly primes: number;
  readonly index: Expression | null;
  readonly at: Span;
}

/** `for i = 1..n` behind a statement. */
export interface ForRange {
  readonly variable: string;
  readonly from: Expression;
  readonly to: Expression;
  readonly at: Span;
}

/** One line of a problem, by its form alone; what its names mean is decided when all lines are read. */
export type Statement =
  | {
      readonly kind: 'interval';
      readonly low: Expression;
      readonly variable: string;
      readonly high: Expression;
      readonly at: Span;
    }
  | {
      readonly kind: 'parameter';
      readonly name: string;
      readonly value: Expression;
      readonly at: Span;
      readonly nameAt: Span;
    }
  | {
      readonly kind: 'equation';
      readonly left: Expression;
      readonly right: Expression;
      readonly range: ForRange | null;
      readonly at: Span;
    }
  | {
      /** `x(0) = 1` or `x(t) = cos(t)`: an initial value or an exact solution, by its argument. */
      readonly kind: 'value';
      readonly target: Target;
      readonly argument: Expression;
      readonly value: Expression;
      readonly range: ForRange | null;
      readonly at: Span;
    }
  | {
      readonly kind: 'given';
      readonly target: Target;
      readonly index: Expression;
      readonly value: Expression;
      readonly at: Span;
    }
  | { readonly kind: 'conserved'; readonly name: string; readonly value: Expression; readonly at: Span };

/** Whether a statement gives an exact solution, `x(t) = ...`, and no initial value. */
export function isExactSolution(statement: Statement, independent: string): boolean {
  return (
    statement.kind === 'value' &&
    statement.argument.kind === 'name' &&
    statement.argument.name === independent
  );
}

function topLevel(tokens: readonly Token[], is: (token: Token) => boolean): readonly number[] {
  const depth = depths(tokens);
  const found: number[] = [];
  for (let i = 0; i < tokens.length; i += 1) if (depth[i] === 0 && is(tokens[i]!)) found.push(i);
  return found;
}

function endOf(at: Span): Span {
  return { from: at.to, to: at.to + 1 };
}

function parseAll(tokens: readonly Token[], around: Span, grammar: Grammar): Expression {
  return new Parser(tokens, endOf(around), grammar).whole();
}

/** A right side; one that cannot be read is reported, and the statement still counts as given. */
function parseOrReport(tokens: readonly Token[], around: Span, grammar: Grammar): Expression {
  try {
    return parseAll(tokens, around, grammar);
  } catch (thrown) {
    if (!(thrown instanceof PlaceError)) throw thrown;
    grammar.report(thrown.at, thrown.message, thrown.repairs);
    return number(1);
  }
}

function spanOf(tokens: readonly Token[], otherwise: Span): Span {
  const first = tokens[0];
  const last = tokens.at(-1);
  return first === undefined || last === undefined ? otherwise : spanning(first.at, last.at);
}

function readInterval(line: TokenLine, grammar: Grammar, relations: readonly number[]): Statement {
  const { tokens, at } = line;
  const [first, second] = relations;
  if (first === undefined || second === undefined || relations.length > 2)
    throw new PlaceError(at, 'the interval is written with both ends: 0 <= t <= 6');
  for (const i of [first, second])
    if (tokens[i]!.text !== '<=' && tokens[i]!.text !== '<')
      throw new PlaceError(tokens[i]!.at, 'the interval runs upwards: 0 <= t <= 6');
  const middle = tokens.slice(first + 1, second);
  if (middle.length !== 1 || middle[0]!.kind !== 'name')
    throw new PlaceError(
      spanOf(middle, tokens[first]!.at),
      'only the independent variable goes between the ends of the interval: 0 <= t <= 6',
    );
  return {
    kind: 'interval',
    low: parseAll(tokens.slice(0, first), tokens[first]!.at, grammar),
    variable: middle[0]!.text,
    high: parseAll(tokens.slice(second + 1), at, grammar),
    at,
  };
}

function readRange(tokens: readonly Token[], keyword: Token, grammar: Grammar): ForRange {
  const at = spanOf(tokens, keyword.at);
  const [variable, equals] = tokens;
  const dots = topLevel(tokens, (token) => token.kind === 'dots')[0];
  if (variable?.kind !== 'name' || equals?.text !== '=' || dots === undefined)
    throw new PlaceError(spanning(keyword.at, at), 'a range is written for i = 1..n');
  return {
    variable: variable.text,
    from: parseAll(tokens.slice(2, dots), tokens[dots]!.at, grammar),
    to: parseAll(tokens.slice(dots + 1), at, grammar),
    at: spanning(keyword.at, at),
  };
}

/** The left side as `name primes [index] primes (argument)`, when it is just that. */
function readTarget(
  tokens: readonly Token[],
  grammar: Grammar,
): { readonly target: Target; readonly argument: readonly Token[] | null } | null {
  const first = tokens[0];
  if (first?.kind !== 'name' || FUNCTIONS.has(first.text)) return null;
  let i = 1;
  let primes = 0;
  const takePrimes = (): void => {
    while (tokens[i]?.kind === 'prime') {
      primes += 1;
      i += 1;
    }
  };
  const inside = (): readonly Token[] | null => {
    const from = i + 1;
    const close = closingOf(tokens, i);
    i = close < 0 ? tokens.length : close + 1;
    return close < 0 ? null : tokens.slice(from, close);
  };
  takePrimes();
  let index: Expression | null = null;
  if (tokens[i]?.text === '[') {
    const open = tokens[i]!;
    const content = inside();
    if (content === null) return null;
    index = parseAll(content, open.at, grammar);
    takePrimes();
  }
  const target = { name: first.text, primes, index, at: spanning(first.at, tokens[i - 1]!.at) };
  if (i === tokens.length) return { target, argument: null };
  if (tokens[i]!.text !== '(') return null;
  const argument = inside();
  return argument !== null && i === tokens.length ? { target, argument } : null;
}

function readEquality(line: TokenLine, equals: number, range: ForRange | null, grammar: Grammar): Statement {
  const { tokens, at } = line;
  const left = tokens.slice(0, equals);
  const right = tokens.slice(equals + 1);
  const sign = tokens[equals]!;
  if (left.length === 0) throw new PlaceError(sign.at, 'the left-hand side of this statement is missing');
  if (right.length === 0)
    throw new PlaceError(endOf(sign.at), 'the right-hand side of this statement is missing');
  const value = (): Expression => parseOrReport(right, at, grammar);
  const form = readTarget(left, grammar);
  if (form === null || (form.argument === null && form.target.primes > 0))
    return { kind: 'equation', left: parseAll(left, sign.at, grammar), right: value(), range, at };
  const { target, argument } = form;
  if (argument !== null)
    return {
      kind: 'value',
      target,
      argument: parseAll(argument, target.at, grammar),
      value: value(),
      range,
      at,
    };
  if (right.some((token) => token.kind === 'prime'))
    return { kind: 'equation', left: parseAll(left, sign.at, grammar), right: value(), range, at };
  if (range !== null)
    throw new PlaceError(range.at, 'a range belongs to equations, initial values and exact solutions');
  if (target.index !== null) return { kind: 'given', target, index: target.index, value: value(), at };
  return { kind: 'parameter', name: target.name, value: value(), at, nameAt: target.at };
}

/**
 * Reads the tokens of one line as a statement.
 *
 * @throws PlaceError where the line cannot be read
 */
export function readStatement(line: TokenLine, grammar: Grammar): Statement {
  const { tokens, at } = line;
  const keyword = topLevel(tokens, (token) => token.kind === 'name' && token.text === 'for')[0];
  if (keyword !== undefined) {
    const range = readRange(tokens.slice(keyword + 1), tokens[keyword]!, grammar);
    const before = tokens.slice(0, keyword);
    return readPlain({ tokens: before, at: spanOf(before, at) }, range, grammar);
  }
  return readPlain(line, null, grammar);
}

function readPlain(line: TokenLine, range: ForRange | null, grammar: Grammar): Statement {
  const { tokens, at } = line;
  const [first, second] = tokens;
  const equals = topLevel(tokens, (token) => token.text === '=');
  if (first?.text === 'conserved' && second?.kind === 'name') {
    if (tokens[2]?.text !== '=' || equals.length !== 1)
      throw new PlaceError(at, 'a conserved quantity is written: conserved E = x^2 + v^2');
    return { kind: 'conserved', name: second.text, value: parseAll(tokens.slice(3), at, grammar), at };
  }
  if (equals.length > 1) throw new PlaceError(tokens[equals[1]!]!.at, 'a statement has only one =');
  if (equals.length === 1) return readEquality(line, equals[0]!, range, grammar);
  const relations = topLevel(tokens, (token) => token.kind === 'relation');
  if (relations.length > 0) return readInterval(line, grammar, relations);
  parseAll(tokens, at, grammar);
  throw new PlaceError(at, "cannot read this line: an = is missing, as in y' = -y or k = 2");
}
