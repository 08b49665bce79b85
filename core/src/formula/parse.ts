import { FUNCTIONS } from './functions.ts';
import type { Comparison, Expression, IndexedLeaf, NameLeaf, Operator } from './expression.ts';
import { DEEPEST_TREE, refuseDeep } from './measure.ts';
import { multipliesBySpace, refuseTwoReadings } from './product-by-space.ts';
import type { Grammar } from './grammar.ts';
import { isRefusedCall, refuseBare, refuseCall } from './refusals.ts';
import { missingOperator, refuseLog, relationOf, unexpected } from './parse-words.ts';
import { PlaceError, spanning, type Span, writing } from '../text/place.ts';
import type { Token } from '../text/token.ts';

/** Brackets, powers and calls inside one another, at most. */
const DEEPEST_NESTING = 200;
/** Most primes behind a name. */
const HIGHEST_DERIVATIVE = 30;

/** Stands in for what was reported as wrong. */
const ONE: Expression = { kind: 'number', value: 1, at: { from: 0, to: 0 } };

/** Significant digits that every double keeps: a number of no more of them is known by its double. */
const KEPT_DIGITS = 15;

/** A number of the text; its digits are kept where a double has fewer. */
function numberTyped({ text, at }: Token): Expression {
  const value = Number(text);
  const [mantissa = ''] = text.toLowerCase().split('e');
  const significant = mantissa.replace('.', '').replace(/^0+/, '');
  const isLong =
    significant.length > KEPT_DIGITS || !Number.isFinite(value) || (value === 0 && significant !== '');
  return isLong ? { kind: 'number', value, digits: text, at } : { kind: 'number', value, at };
}

/** A parser over the tokens of one statement. `end` is where to point when something is missing. */
export class Parser {
  readonly #tokens: readonly Token[];
  readonly #grammar: Grammar;
  readonly #end: Span;
  #next = 0;
  #nesting = 0;
  #insideCall = 0;

  constructor(tokens: readonly Token[], end: Span, grammar: Grammar) {
    this.#tokens = tokens;
    this.#grammar = grammar;
    this.#end = end;
  }

  /** Reads the tokens as one whole expression. */
  whole(): Expression {
    const expression = this.sum();
    this.expectEnd();
    // fewer tokens make no deeper tree
    if (this.#tokens.length > DEEPEST_TREE) refuseDeep(expression);
    return expression;
  }

  expectEnd(): void {
    const token = this.#tokens[this.#next];
    if (token !== undefined) throw new PlaceError(token.at, unexpected(token));
  }

  get peek(): Token | undefined {
    return this.#tokens[this.#next];
  }

  sum(): Expression {
    let left = this.#product();
    for (;;) {
      const token = this.#take('+', '-');
      if (token === null) return left;
      left = this.#join(token.text === '+' ? '+' : '-', left, this.#product());
    }
  }

  comparison(): Comparison<NameLeaf | IndexedLeaf> {
    const left = this.sum();
    const token = this.peek;
    if (token?.kind !== 'relation' || token.text === '=')
      throw new PlaceError(
        token?.at ?? this.#end,
        token?.text === '=' ? 'equality is written ==' : 'a comparison is missing here, such as a < b',
      );
    this.#next += 1;
    const right = this.sum();
    return { relation: relationOf(token), left, right, at: spanning(left.at, right.at) };
  }

  #product(): Expression {
    let left = this.#signed();
    for (;;) {
      const token = this.#take('*', '/');
      if (token !== null) {
        left = this.#join(token.text === '*' ? '*' : '/', left, this.#signed());
        continue;
      }
      const previous = this.#tokens[this.#next - 1];
      const here = this.peek;
      if (previous === undefined || here === undefined) return left;
      const starts = here.kind === 'name' || here.kind === 'number' || here.text === '(';
      if (!starts) return left;
      if (multipliesBySpace(this.#grammar, previous, here, this.#tokens[this.#next + 1]))
        refuseTwoReadings(this.#grammar, left, [previous, here, this.#tokens[this.#next + 1]]);
      else if (
        (previous.kind !== 'number' || here.kind === 'number') &&
        !isRefusedCall(here, this.#tokens[this.#next + 1], this.#grammar)
      )
        this.#grammar.report(here.at, missingOperator(previous, here), [
          { from: previous.at.to, to: here.at.from, text: '*' },
        ]);
      left = this.#join('*', left, this.#power());
    }
  }

  #signed(): Expression {
    const token = this.#take('-', '+');
    if (token === null) return this.#power();
    const of = this.#nested(token.at, () => this.#signed());
    if (token.text === '+') return of;
    return { kind: 'negate', of, at: spanning(token.at, of.at) };
  }

  #power(): Expression {
    const base = this.#primary();
    const token = this.#take('^');
    if (token === null) return base;
    return this.#join(
      '^',
      base,
      this.#nested(token.at, () => this.#signed()),
    );
  }

  #primary(): Expression {
    const token = this.peek;
    if (token === undefined)
      throw new PlaceError(this.#end, 'the formula is incomplete: a number, a name or ( is missing');
    if (token.kind === 'number') {
      this.#next += 1;
      const after = this.#tokens[this.#next];
      const digits = this.#tokens[this.#next + 1];
      if (after?.kind === 'comma' && digits?.kind === 'number' && this.#insideCall === 0)
        this.#skipDecimals(token, digits);
      return numberTyped(token);
    }
    if (token.text === '(') {
      this.#next += 1;
      const callsAround = this.#insideCall;
      this.#insideCall = 0;
      const inner = this.#nested(token.at, () => this.sum());
      this.#insideCall = callsAround;
      const close = this.#expect(')', token);
      return { ...inner, at: spanning(token.at, close.at) };
    }
    if (token.kind === 'name') return this.#named(token);
    throw new PlaceError(token.at, unexpected(token));
  }

  #named(token: Token): Expression {
    this.#next += 1;
    let primes = this.#primes();
    const open = this.peek;
    if (open?.text === '[') {
      this.#next += 1;
      const index = this.#nested(open.at, () => this.sum());
      const close = this.#expect(']', open);
      if (primes === 0) primes = this.#primes();
      const at = { from: token.at.from, to: Math.max(close.at.to, this.#tokens[this.#next - 1]!.at.to) };
      if (this.peek?.text === '(')
        throw new PlaceError(this.peek.at, 'an operator is missing before this bracket; to multiply write *');
      return { kind: 'indexed', name: token.text, primes, index, at };
    }
    if (token.text === 'if' && open?.text === '(') return this.#condition(token, open);
    const isApart =
      open !== undefined && open.at.from > token.at.to && this.#grammar.multiplies(token.text, true);
    if (open?.text === '(' && !isApart && (primes > 0 || this.#callable(token)))
      return this.#call(token, primes, open);
    const last = this.#tokens[this.#next - 1]!;
    if (FUNCTIONS.has(token.text) && primes === 0 && !this.#grammar.calls(token.text)) {
      refuseBare(token, this.#tokens, this.#next, this.#grammar);
      return this.#operand(token);
    }
    if (token.text === 'log') {
      this.#grammar.report(token.at, refuseLog('x'));
      return this.#operand(token);
    }
    return { kind: 'name', name: token.text, primes, at: spanning(token.at, last.at) };
  }

  /** Whether a name in front of a bracket is called; what is not a function is reported and read as if it were one. */
  #callable(token: Token): boolean {
    if (!this.#grammar.calls(token.text) && !FUNCTIONS.has(token.text))
      refuseCall(token, this.#tokens, this.#next, this.#grammar);
    return true;
  }

  /** What follows a function without brackets, which was reported, is read as if it was in them. */
  #operand({ at }: Token): Expression {
    const isThere = this.peek?.kind === 'name' || this.peek?.kind === 'number';
    return isThere ? this.#nested(at, () => this.#signed()) : ONE;
  }

  #skipDecimals(token: Token, digits: Token): void {
    const at = spanning(token.at, digits.at);
    const written = `${token.text.replace('.', '')}.${digits.text}`;
    this.#grammar.report(at, `use a decimal point, not a comma: write ${written}`, writing(at, written));
    this.#next += 2;
  }

  #call(token: Token, primes: number, open: Token): Expression {
    this.#next += 1;
    const inputs: Expression[] = [];
    this.#insideCall += 1;
    if (this.peek?.text !== ')') {
      inputs.push(this.#nested(open.at, () => this.sum()));
      while (this.#takeKind('comma')) inputs.push(this.#nested(open.at, () => this.sum()));
    }
    this.#insideCall -= 1;
    const close = this.#expect(')', open);
    const at = spanning(token.at, close.at);
    const known = this.#grammar.calls(token.text) || primes > 0 ? undefined : FUNCTIONS.get(token.text);
    if (known !== undefined && (inputs.length < known.fewest || inputs.length > known.most)) {
      const expected = known.fewest === known.most ? `${known.fewest}` : `${known.fewest} or more`;
      throw new PlaceError(
        at,
        `${token.text} takes ${expected} ${expected === '1' ? 'argument' : 'arguments'}, not ${inputs.length}`,
      );
    }
    if (!FUNCTIONS.has(token.text) && !this.#grammar.calls(token.text) && primes === 0) {
      const small = token.text.toLowerCase();
      if (small !== token.text && this.#grammar.calls(small))
        return { kind: 'call', name: small, primes, inputs, at, nameAt: token.at };
      const [only, ...more] = inputs;
      const isProduct = only !== undefined && more.length === 0 && this.#grammar.multiplies(token.text, true);
      return isProduct
        ? this.#join('*', { kind: 'name', name: token.text, primes: 0, at: token.at }, only)
        : { ...ONE, at };
    }
    return { kind: 'call', name: token.text, primes, inputs, at, nameAt: token.at };
  }

  #condition(token: Token, open: Token): Expression {
    this.#next += 1;
    this.#insideCall += 1;
    const test = this.#nested(open.at, () => this.comparison());
    const yes = this.#branch(token, open);
    const no = this.#branch(token, open);
    this.#insideCall -= 1;
    return { kind: 'if', test, yes, no, at: spanning(token.at, this.#expect(')', open).at) };
  }

  #branch(token: Token, open: Token): Expression {
    if (!this.#takeKind('comma'))
      throw new PlaceError(
        this.peek?.at ?? token.at,
        this.peek?.kind === 'relation'
          ? 'a condition is a single comparison; nest another if: if(a < b, if(b < c, x, y), y)'
          : 'if takes three arguments: if(a < b, then, otherwise)',
      );
    return this.#nested(open.at, () => this.sum());
  }

  #primes(): number {
    let count = 0;
    while (this.#takeKind('prime')) count += 1;
    if (count > HIGHEST_DERIVATIVE)
      throw new PlaceError(
        this.#tokens[this.#next - 1]?.at ?? this.#end,
        `derivatives are supported up to order ${HIGHEST_DERIVATIVE}`,
      );
    return count;
  }

  #take(...texts: readonly string[]): Token | null {
    const token = this.peek;
    if (token?.kind !== 'operator' || !texts.includes(token.text)) return null;
    this.#next += 1;
    return token;
  }

  #takeKind(kind: Token['kind']): boolean {
    if (this.peek?.kind !== kind) return false;
    this.#next += 1;
    return true;
  }

  #expect(text: ')' | ']', open: Token): Token {
    const token = this.peek;
    if (token?.text === text) {
      this.#next += 1;
      return token;
    }
    if (token === undefined)
      throw new PlaceError(open.at, `this bracket is not closed: a ${text} is missing`);
    throw new PlaceError(
      token.at,
      token.kind === 'comma'
        ? 'a comma is allowed only between the arguments of a function'
        : `${unexpected(token)}; ${text} is expected`,
    );
  }

  #join(operator: Operator, left: Expression, right: Expression): Expression {
    return { kind: 'binary', operator, left, right, at: spanning(left.at, right.at) };
  }

  #nested<T>(at: Span, work: () => T): T {
    this.#nesting += 1;
    if (this.#nesting > DEEPEST_NESTING)
      throw new PlaceError(at, `formulas can be nested at most ${DEEPEST_NESTING} levels deep`);
    const done = work();
    this.#nesting -= 1;
    return done;
  }
}
