import type { Expression } from '../formula/expression.ts';
import { CONSTANTS, FUNCTIONS } from '../formula/functions.ts';
import type { Grammar } from '../formula/grammar.ts';
import { Parser } from '../formula/parse.ts';
import { atCommas } from '../text/brackets.ts';
import { PlaceError, type Span, spanning, writing } from '../text/place.ts';
import type { TokenLine, Token } from '../text/token.ts';
import { letterBelowHat } from './embedded.ts';
import { type Given, type Method, partialOf, type Variable } from './method.ts';

/** A line of a method, its formulas read and their names not yet looked up. */
export type RawStatement =
  | {
      readonly kind: 'let' | 'solve';
      readonly given: readonly { readonly given: Given; readonly at: Span }[];
      readonly values: readonly Expression[];
      readonly line: TokenLine;
    }
  | {
      readonly kind: 'function';
      readonly name: string;
      readonly inputs: readonly [string, string];
      readonly value: Expression;
      readonly line: TokenLine;
    };

export const VARIABLES: Readonly<Record<Method['form'], readonly Variable[]>> = {
  'first order': ['y'],
  'second order': ['x', 'v'],
};

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
/** Most values that one `solve` finds together. */
const MAX_SOLVED = 8;

function refuseName(name: string, form: Method['form']): string | null {
  if (VARIABLES[form].some((variable) => variable === name))
    return `the new value is written ${name}[n+1] = ...`;
  if (ALWAYS_RESERVED.has(name)) return `${name} is reserved in a method; choose another name`;
  if (FUNCTIONS.has(name)) return `${name} is a function of the notation; choose another name`;
  if (CONSTANTS.has(name)) return `${name} is a constant of the notation; choose another name`;
  return null;
}

function readGiven(
  tokens: readonly Token[],
  around: Span,
  form: Method['form'],
): { readonly given: Given; readonly at: Span } {
  const [first] = tokens;
  const last = tokens.at(-1);
  if (first === undefined || last === undefined)
    throw new PlaceError(around, 'a name is missing on the left-hand side');
  const at = spanning(first.at, last.at);
  const text = tokens.map((token) => token.text).join('');
  const next = /^([yxv])\[n\+1\]$/.exec(text)?.[1];
  const other = /^([A-Za-z]\w*)\[n\+1\]$/.exec(text)?.[1];
  if (next === undefined && VARIABLES[form].some((variable) => variable === other?.toLowerCase()))
    throw new PlaceError(
      at,
      `${other ?? ''} is not known, but ${other?.toLowerCase() ?? ''} is; names are case-sensitive`,
      writing(at, text.toLowerCase()),
    );
  if (form === 'first order' && other !== undefined && letterBelowHat(other) !== null)
    return { given: { kind: 'name', name: other }, at };
  if (next === undefined && other !== undefined)
    throw new PlaceError(
      at,
      `${other} is a value of this step; write it without an index`,
      writing(at, other),
    );
  if (next === 'y' || next === 'x' || next === 'v') {
    if (VARIABLES[form].includes(next)) return { given: { kind: 'next', variable: next }, at };
    throw new PlaceError(at, 'a method gives y[n+1], or x[n+1] and v[n+1], not both');
  }
  if (tokens.length !== 1 || first.kind !== 'name')
    throw new PlaceError(at, 'the left-hand side must be a name such as k1, or y[n+1]');
  const refusal = refuseName(first.text, form);
  const isVariable = VARIABLES[form].some((variable) => variable === first.text);
  if (refusal !== null)
    throw new PlaceError(at, refusal, isVariable ? writing(at, `${first.text}[n+1]`) : []);
  return { given: { kind: 'name', name: first.text }, at };
}

/** The name of a line `d2(t, y) = ...`, a derivative typed out; null for any other. */
export function functionOf({ tokens }: TokenLine): string | null {
  const [name, open, time, comma, value, close, equals] = tokens;
  const isFunction =
    name?.kind === 'name' &&
    open?.text === '(' &&
    time?.kind === 'name' &&
    comma?.kind === 'comma' &&
    value?.kind === 'name' &&
    close?.text === ')' &&
    equals?.text === '=';
  return isFunction ? name.text : null;
}

function readFunction(line: TokenLine, grammar: Grammar, form: Method['form']): RawStatement {
  const [name, , time, , value] = line.tokens;
  if (name === undefined || time === undefined || value === undefined)
    throw new PlaceError(line.at, 'a typed derivative is written d2(t, y) = ...');
  if (name.text === 'f')
    throw new PlaceError(
      name.at,
      'f is the right-hand side of the problem and is typed there; a typed derivative needs another name, as in d2(t, y) = ...',
    );
  const refusal =
    partialOf(name.text) === null
      ? refuseName(name.text, form)
      : `${name.text} is a partial derivative of f , computed automatically; choose another name`;
  if (refusal !== null) throw new PlaceError(name.at, refusal);
  for (const input of [time, value])
    if (FUNCTIONS.has(input.text) || CONSTANTS.has(input.text) || ['h', 'f', 'n'].includes(input.text))
      throw new PlaceError(input.at, `${input.text} is reserved; name the arguments t and y`);
  if (time.text === value.text)
    throw new PlaceError(value.at, `${value.text} appears twice; name the arguments t and y`);
  const right = line.tokens.slice(7);
  const end = { from: line.at.to, to: line.at.to + 1 };
  if (right.length === 0) throw new PlaceError(end, 'the right-hand side of this line is missing');
  return {
    kind: 'function',
    name: name.text,
    inputs: [time.text, value.text],
    value: new Parser(right, end, grammar).whole(),
    line,
  };
}

/** Reads one line of a method. */
export function readLine(line: TokenLine, grammar: Grammar, form: Method['form']): RawStatement {
  if (functionOf(line) !== null) return readFunction(line, grammar, form);
  const isSolve = line.tokens[0]?.text === 'solve';
  const tokens = isSolve ? line.tokens.slice(1) : line.tokens;
  const { at } = line;
  const end = { from: at.to, to: at.to + 1 };
  const equals = tokens.findIndex((token) => token.text === '=');
  if (equals < 0) throw new PlaceError(at, 'an = is missing: a line is written k1 = ... or y[n+1] = ...');
  if (equals === 0) throw new PlaceError(tokens[0]!.at, 'the left-hand side of this line is missing');
  const right = tokens.slice(equals + 1);
  if (right.length === 0) throw new PlaceError(end, 'the right-hand side of this line is missing');
  const left = atCommas(tokens.slice(0, equals));
  const parts = isSolve ? atCommas(right) : [right];
  if (!isSolve && left.length > 1)
    throw new PlaceError(at, 'for several values at once write solve k1, k2 = ..., ...');
  const given = left.map((part) => readGiven(part, at, form));
  if (given.length !== parts.length)
    throw new PlaceError(
      at,
      `${given.length} names are on the left and ${parts.length} formulas on the right`,
    );
  if (given.length > MAX_SOLVED) throw new PlaceError(at, `solve finds at most ${MAX_SOLVED} values at once`);
  const values = parts.map((part) => new Parser(part, end, grammar).whole());
  return { kind: isSolve ? 'solve' : 'let', given, values, line };
}

/** `start with NAME`: the name is all that follows. */
export function readStart(
  text: string,
  line: TokenLine,
): { readonly name: string; readonly at: Span } | null {
  const [first, second, third] = line.tokens;
  if (first?.text !== 'start' || second?.text !== 'with') return null;
  const end = text.indexOf('\n', line.at.from);
  const rest = text.slice(second.at.to, end < 0 ? text.length : end).replace(/#.*/, '');
  const name = rest.trim();
  if (third === undefined || name === '') throw new PlaceError(line.at, 'name a method: start with RK4');
  return { name, at: { from: third.at.from, to: second.at.to + rest.trimEnd().length } };
}
