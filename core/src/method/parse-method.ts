import { depths } from '../text/brackets.ts';
import { CONSTANTS, FUNCTIONS } from '../formula/functions.ts';
import { type Expression, walk } from '../formula/expression.ts';
import type { Grammar } from '../formula/grammar.ts';
import { Parser } from '../formula/parse.ts';
import { Complaints, PlaceError, type Reading, type Span, spanning, tooLong } from '../text/place.ts';
import type { Line, Token } from '../text/token.ts';
import { methodWriting } from '../writing/method-writing.ts';
import { writtenLines } from '../writing/written-lines.ts';
import {
  type Given,
  givenBy,
  givenText,
  type Method,
  type MethodStatement,
  type Shape,
  stepsBack,
  valuesOf,
  type Variable,
} from './method.ts';
import { type MethodNames, shapeOf } from './shape.ts';

const ALWAYS_RESERVED: ReadonlySet<string> = new Set([
  't',
  'h',
  'n',
  'f',
  'a',
  'if',
  'log',
  'solve',
  'start',
  'for',
]);
const VARIABLES: Readonly<Record<Method['form'], readonly Variable[]>> = {
  'first order': ['y'],
  'second order': ['x', 'v'],
};
/** Most values that one `solve` finds together. */
const MOST_SOLVED = 8;

interface RawStatement {
  readonly kind: 'let' | 'solve';
  readonly given: readonly { readonly given: Given; readonly at: Span }[];
  readonly values: readonly Expression[];
  readonly line: Line;
}

/** Names that stand for a number or a value: what a product by a space may be made of. */
function factorsOf(lines: readonly Line[]): Grammar['multiplies'] {
  const given = new Set(['h', 't', ...CONSTANTS.keys()]);
  for (const { tokens } of lines) {
    const equals = tokens.findIndex(({ text }) => text === '=');
    for (const { kind, text } of tokens.slice(0, Math.max(0, equals))) if (kind === 'name') given.add(text);
  }
  const isValue = (name: string): boolean => ['y', 'x', 'v'].includes(name);
  return (name, isBeforeBracket) =>
    (given.has(name) && !isValue(name)) || (isValue(name) && !isBeforeBracket);
}

function refuseName(name: string, form: Method['form']): string | null {
  if (VARIABLES[form].some((variable) => variable === name))
    return `the new value is written ${name}[n+1] = ...`;
  if (ALWAYS_RESERVED.has(name)) return `${name} has a meaning of its own in a method; take another name`;
  if (FUNCTIONS.has(name)) return `${name} is a function of the notation; take another name`;
  if (CONSTANTS.has(name)) return `${name} is a constant of the notation; take another name`;
  return null;
}

/** Splits tokens at commas that stand in no bracket. */
function atCommas(tokens: readonly Token[]): readonly (readonly Token[])[] {
  const parts: Token[][] = [[]];
  const depth = depths(tokens);
  for (const [i, token] of tokens.entries())
    if (token.kind === 'comma' && depth[i] === 0) parts.push([]);
    else parts.at(-1)?.push(token);
  return parts;
}

function readGiven(
  tokens: readonly Token[],
  around: Span,
  form: Method['form'],
): { readonly given: Given; readonly at: Span } {
  const [first] = tokens;
  const last = tokens.at(-1);
  if (first === undefined || last === undefined)
    throw new PlaceError(around, 'a name is missing on the left side');
  const at = spanning(first.at, last.at);
  const text = tokens.map((token) => token.text).join('');
  const next = /^([yxv])\[n\+1\]$/.exec(text)?.[1];
  if (next === 'y' || next === 'x' || next === 'v') {
    if (VARIABLES[form].includes(next)) return { given: { kind: 'next', variable: next }, at };
    throw new PlaceError(at, 'a method gives y[n+1], or x[n+1] and v[n+1], not both');
  }
  if (tokens.length !== 1 || first.kind !== 'name')
    throw new PlaceError(at, 'on the left stands a name such as k1, or y[n+1]');
  const refusal = refuseName(first.text, form);
  if (refusal !== null) throw new PlaceError(at, refusal);
  return { given: { kind: 'name', name: first.text }, at };
}

function readLine(line: Line, grammar: Grammar, form: Method['form']): RawStatement {
  const isSolve = line.tokens[0]?.text === 'solve';
  const tokens = isSolve ? line.tokens.slice(1) : line.tokens;
  const { at } = line;
  const end = { from: at.to, to: at.to + 1 };
  const equals = tokens.findIndex((token) => token.text === '=');
  if (equals < 0) throw new PlaceError(at, 'an = is missing: a line is written k1 = ... or y[n+1] = ...');
  if (equals === 0) throw new PlaceError(tokens[0]!.at, 'the left side of this line is missing');
  const right = tokens.slice(equals + 1);
  if (right.length === 0) throw new PlaceError(end, 'the right side of this line is missing');
  const left = atCommas(tokens.slice(0, equals));
  const parts = isSolve ? atCommas(right) : [right];
  if (!isSolve && left.length > 1)
    throw new PlaceError(at, 'several values at once are found by solve: write solve k1, k2 = ..., ...');
  const given = left.map((part) => readGiven(part, at, form));
  if (given.length !== parts.length)
    throw new PlaceError(
      at,
      `${given.length} names stand on the left and ${parts.length} formulas on the right`,
    );
  if (given.length > MOST_SOLVED)
    throw new PlaceError(at, `solve finds at most ${MOST_SOLVED} values together`);
  const values = parts.map((part) => new Parser(part, end, grammar).whole());
  return { kind: isSolve ? 'solve' : 'let', given, values, line };
}

/** `start with NAME`: the name is all that follows. */
function readStart(text: string, line: Line): { readonly name: string; readonly at: Span } | null {
  const [first, second, third] = line.tokens;
  if (first?.text !== 'start' || second?.text !== 'with') return null;
  const end = text.indexOf('\n', line.at.from);
  const rest = text.slice(second.at.to, end < 0 ? text.length : end).replace(/#.*/, '');
  const name = rest.trim();
  if (third === undefined || name === '') throw new PlaceError(line.at, 'name a method: start with RK4');
  return { name, at: { from: third.at.from, to: second.at.to + rest.trimEnd().length } };
}

/** Whether a text is for x'' = a(t, x, v): it gives x[n+1] or v[n+1], or calls a. */
function formOf(lines: readonly Line[]): Method['form'] {
  const second = lines.some(({ tokens }) =>
    tokens.some(
      (token, i) =>
        (token.text === 'a' && tokens[i + 1]?.text === '(') ||
        ((token.text === 'x' || token.text === 'v') &&
          tokens[i + 1]?.text === '[' &&
          tokens[i + 2]?.text === 'n'),
    ),
  );
  const first = lines.some(({ tokens }) =>
    tokens.some(
      (token, i) => token.text === 'y' && tokens[i + 1]?.text === '[' && tokens[i + 3]?.text === '+',
    ),
  );
  return second && !first ? 'second order' : 'first order';
}

/** Gives every statement its shape, in the order of the text. */
class Understanding {
  readonly statements: MethodStatement[] = [];
  readonly nexts = new Set<Variable>();
  readonly #lets = new Map<string, Shape>();
  readonly #form: Method['form'];
  readonly #complaints: Complaints;

  constructor(form: Method['form'], complaints: Complaints) {
    this.#form = form;
    this.#complaints = complaints;
  }

  read(raw: RawStatement, isLater: MethodNames['isLater']): void {
    for (const { given, at } of raw.given) {
      const twice =
        given.kind === 'name' ? this.#lets.has(given.name) : [...this.nexts].includes(given.variable);
      if (twice) this.#complaints.add(at, `${givenText(given)} is given twice`);
    }
    if (raw.kind === 'solve') this.#solve(raw, isLater);
    else this.#let(raw, isLater);
  }

  #shape(value: Expression, isLater: MethodNames['isLater'], own: string | null): Shape | null {
    const names = { form: this.#form, lets: this.#lets, nexts: this.nexts, isLater, own };
    return this.#complaints.attempt(() => shapeOf(value, names));
  }

  #let(raw: RawStatement, isLater: MethodNames['isLater']): void {
    const [target] = raw.given;
    const [value] = raw.values;
    if (target === undefined || value === undefined) return;
    const { given } = target;
    const shape = this.#shape(value, isLater, given.kind === 'name' ? given.name : null) ?? 'vector';
    if (given.kind === 'next' && shape === 'scalar')
      this.#complaints.add(
        value.at,
        `${givenText(given)} must be made from values of the solution; this is a plain number`,
      );
    this.#take(given, shape);
    this.statements.push({ kind: 'let', given, shape, value, at: raw.line.at });
  }

  #solve(raw: RawStatement, isLater: MethodNames['isLater']): void {
    for (const { given } of raw.given) this.#take(given, 'vector');
    for (const value of raw.values)
      if (this.#shape(value, isLater, null) === 'scalar')
        this.#complaints.add(
          value.at,
          'solve finds values of the solution or slopes; this is a plain number',
        );
    for (const value of raw.values)
      walk(value, (node) => {
        if (node.kind === 'call' && node.primes > 0)
          this.#complaints.add(
            node.at,
            'derivatives of f cannot stand inside solve; give them on a line above',
          );
      });
    const given = raw.given.map((target) => target.given);
    this.statements.push({ kind: 'solve', given, values: raw.values, at: raw.line.at });
  }

  #take(given: Given, shape: Shape): void {
    if (given.kind === 'name') this.#lets.set(given.name, shape);
    else this.nexts.add(given.variable);
  }
}

function depthOf(statements: readonly MethodStatement[]): number {
  let depth = 0;
  for (const statement of statements)
    for (const value of valuesOf(statement))
      walk(value, (node) => {
        if (node.kind === 'indexed' && node.name !== 't') depth = Math.max(depth, stepsBack(node) ?? 0);
      });
  return depth;
}

/**
 * Reads the text of a method, in the notation of docs/notation.md.
 *
 * @returns the method, or all errors of the text with their places
 * @example parseMethod('k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)')
 */
export function parseMethod(text: string): Reading<Method> {
  const long = tooLong(text);
  if (long !== null) return { ok: false, errors: long };
  const complaints = new Complaints(text);
  const report = (at: Span, message: string): void => complaints.add(at, message);
  const lines = methodWriting(writtenLines(text, complaints), complaints);
  const form = formOf(lines);
  const grammar: Grammar = {
    multiplies: factorsOf(lines),
    calls: (name) => name === 'f' || name === 'a',
    refuseCall: (name, inside) =>
      ['y', 't', 'x', 'v'].includes(name)
        ? `${name} is written with its index in square brackets, as in ${name}[n]; to multiply write ${name}*(${inside})`
        : null,
    report,
  };
  const raw: RawStatement[] = [];
  let startWith: Method['startWith'] = null;
  for (const line of lines)
    complaints.attempt(() => {
      const start = readStart(text, line);
      if (start === null) raw.push(readLine(line, grammar, form));
      else if (startWith === null) startWith = start;
      else complaints.add(line.at, 'start with is said twice');
    });
  const understanding = new Understanding(form, complaints);
  const lastGiven = new Map<string, number>();
  raw.forEach(({ given }, i) =>
    given.forEach(({ given: of }) => (of.kind === 'name' ? lastGiven.set(of.name, i) : null)),
  );
  raw.forEach((statement, i) => understanding.read(statement, (name) => (lastGiven.get(name) ?? -1) > i));
  const { statements, nexts } = understanding;
  const end = text.trimEnd().length;
  if (!complaints.any)
    for (const variable of VARIABLES[form])
      if (!nexts.has(variable))
        complaints.add(
          { from: end, to: end + 1 },
          `the new value is missing; add a line ${variable}[n+1] = ...`,
        );
  const lastNext = statements.findLastIndex((s) => givenBy(s).some((given) => given.kind === 'next'));
  const behind = statements[lastNext + 1];
  if (!complaints.any && behind !== undefined)
    complaints.add(behind.at, 'nothing can follow the line that gives the new value');
  const depth = depthOf(statements);
  if (complaints.any) return { ok: false, errors: complaints.list() };
  return { ok: true, value: { text, form, statements, depth, startWith } };
}
