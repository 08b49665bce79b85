import { CONSTANTS, FUNCTIONS } from '../formula/functions.ts';
import type { Expression } from '../formula/expression.ts';
import { type Grammar, Parser } from '../formula/parse.ts';
import { Complaints, PlaceError, type Reading, spanning, tooLong } from '../formula/place.ts';
import { type Line, readLines } from '../formula/token.ts';
import type { Method, MethodStatement, Shape } from './method.ts';
import { shapeOf } from './shape.ts';

const RESERVED: ReadonlySet<string> = new Set([
  't',
  'y',
  'h',
  'f',
  'n',
  'x',
  'v',
  'a',
  'if',
  'log',
  'solve',
  'start',
]);

interface RawStatement {
  /** Null for the line that gives y[n+1]. */
  readonly name: string | null;
  readonly value: Expression;
  readonly line: Line;
}

function refuseName(name: string): string | null {
  if (name === 'y') return 'the new value is written y[n+1] = ...';
  if (RESERVED.has(name)) return `${name} has a meaning of its own in a method; take another name`;
  if (FUNCTIONS.has(name)) return `${name} is a function of the notation; take another name`;
  if (CONSTANTS.has(name)) return `${name} is a constant of the notation; take another name`;
  return null;
}

/** Whether the tokens say `y[n+1]`. */
function isNext(line: Line, equals: number): boolean {
  return (
    line.tokens
      .slice(0, equals)
      .map((token) => token.text)
      .join('') === 'y[n+1]'
  );
}

function readLine(line: Line, grammar: Grammar): RawStatement {
  const { tokens, at } = line;
  const equals = tokens.findIndex((token) => token.text === '=');
  const end = { from: at.to, to: at.to + 1 };
  if (equals < 0) throw new PlaceError(at, 'an = is missing: a line is written k1 = ... or y[n+1] = ...');
  if (equals === 0) throw new PlaceError(tokens[0]!.at, 'the left side of this line is missing');
  const left = tokens.slice(0, equals);
  const leftAt = spanning(left[0]!.at, left.at(-1)!.at);
  const right = tokens.slice(equals + 1);
  if (right.length === 0) throw new PlaceError(end, 'the right side of this line is missing');
  const value = new Parser(right, end, grammar).whole();
  if (isNext(line, equals)) return { name: null, value, line };
  const [first] = left;
  if (left.length !== 1 || first?.kind !== 'name')
    throw new PlaceError(leftAt, 'on the left stands a name such as k1, or y[n+1]');
  const refusal = refuseName(first.text);
  if (refusal !== null) throw new PlaceError(leftAt, refusal);
  return { name: first.text, value, line };
}

/** Gives every statement its shape, in the order of the text. */
function understand(raw: readonly RawStatement[], complaints: Complaints): readonly MethodStatement[] {
  const statements: MethodStatement[] = [];
  const lets = new Map<string, Shape>();
  for (const [i, { name, value, line }] of raw.entries()) {
    const later = new Set(raw.slice(i + 1).flatMap((other) => (other.name === null ? [] : [other.name])));
    const shape = complaints.attempt(() => shapeOf(value, { lets, later, own: name }));
    if (name === null) {
      if (shape === 'scalar')
        complaints.add(value.at, 'y[n+1] must be made from y and f(t, y); this is a plain number');
      if (i < raw.length - 1)
        complaints.add(raw[i + 1]!.line.at, 'y[n+1] = ... is the last line of a method');
      statements.push({ kind: 'next', value, at: line.at });
      continue;
    }
    if (lets.has(name)) complaints.add(line.tokens[0]!.at, `${name} is given twice`);
    lets.set(name, shape ?? 'vector');
    statements.push({ kind: 'let', name, shape: shape ?? 'vector', value, at: line.at });
  }
  return statements;
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
  const grammar: Grammar = {
    calls: (name) => name === 'f',
    refuseCall: (name, inside) =>
      name === 'y' || name === 't'
        ? `${name} is written with its index in square brackets, as in ${name}[n]; to multiply write ${name}*(${inside})`
        : null,
    report: (at, message) => complaints.add(at, message),
  };
  const raw: RawStatement[] = [];
  for (const line of readLines(text, complaints)) {
    const statement = complaints.attempt(() => readLine(line, grammar));
    if (statement !== null) raw.push(statement);
  }
  const statements = understand(raw, complaints);
  if (!complaints.any && !statements.some((statement) => statement.kind === 'next')) {
    const end = text.trimEnd().length;
    complaints.add({ from: end, to: end + 1 }, 'the new value is missing; add a line y[n+1] = ...');
  }
  if (complaints.any) return { ok: false, errors: complaints.list() };
  return { ok: true, value: { text, statements } };
}
