import { CONSTANTS } from '../formula/functions.ts';
import { walk } from '../formula/expression.ts';
import type { Grammar } from '../formula/grammar.ts';
import { Complaints, type Reading, tooLong, writing } from '../text/place.ts';
import type { TokenLine, Report } from '../text/token.ts';
import { methodWriting } from '../writing/method-writing.ts';
import { withOperands } from '../formula/with-operands.ts';
import { writtenLines } from '../writing/written-lines.ts';
import { embeddedText, embeddedValue } from './embedded.ts';
import { refuseLargeMethod } from './method-size.ts';
import {
  type Embedded,
  givenBy,
  type Method,
  type MethodStatement,
  partialOf,
  stepsBack,
  valuesOf,
} from './method.ts';
import { functionOf, type RawStatement, readLine, readStart, VARIABLES } from './read-line.ts';
import { hasDerivatives, type ReadLines, understand, type Understood } from './understand.ts';

/** Whether a line of the text gives a name itself, which then means that. */
function isGiven(lines: readonly TokenLine[], name: string): boolean {
  return lines.some(({ tokens }) => tokens[0]?.text === name && tokens[1]?.text === '=');
}

/** Names on the left side of a line, whatever else it holds. */
function namesAtLeft({ tokens }: TokenLine): readonly string[] {
  const relation = tokens.findIndex(({ kind }) => kind === 'relation');
  const left = tokens.slice(0, relation < 0 ? 2 : relation);
  return left.flatMap(({ kind, text }) => (kind === 'name' && !/^[ythnxvfa]$/.test(text) ? [text] : []));
}

/** Names that represent a number or a value: what a product by a space may be made of. */
function factorsOf(lines: readonly TokenLine[]): Grammar['multiplies'] {
  const given = new Set(['h', 't', ...CONSTANTS.keys()]);
  for (const { tokens } of lines) {
    const equals = tokens.findIndex(({ text }) => text === '=');
    for (const { kind, text } of tokens.slice(0, Math.max(0, equals))) if (kind === 'name') given.add(text);
  }
  for (const line of lines) given.delete(functionOf(line) ?? '');
  const isValue = (name: string): boolean => ['y', 'x', 'v'].includes(name);
  return (name, isBeforeBracket) =>
    (given.has(name) && !isValue(name)) || (isValue(name) && !isBeforeBracket);
}

/** Whether a text is for x'' = a(t, x, v): it gives x[n+1] or v[n+1], or calls a. */
function formOf(lines: readonly TokenLine[]): Method['form'] {
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

/**
 * What the lines say: for systems where they can be read so. Where they hold partial derivatives and multiply values
 * they are for one equation.
 */
function meaningOf(text: string, lines: ReadLines, complaints: Complaints): Understood {
  const hasAny = hasDerivatives(lines.raw);
  if (!hasAny || complaints.any) return understand(lines, hasAny, complaints);
  const tried = new Complaints(text);
  const isTyped = lines.raw.some(({ kind }) => kind === 'function');
  const forSystems = understand(lines, isTyped, tried);
  return tried.any || isTyped ? understand(lines, true, complaints) : forSystems;
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

/** Tells of a last line such as `ynew = ...`, which means the new value; whether there was one. */
function sayNewValue(
  statements: readonly MethodStatement[],
  variable: string,
  complaints: Complaints,
): boolean {
  const last = statements.at(-1);
  if (last?.kind !== 'let' || last.given.kind !== 'name') return false;
  const { name } = last.given;
  if (!name.startsWith(variable) || !/^_?(?:new|next|n?p?1|n?plus1|n_?1)$/.test(name.slice(1))) return false;
  const at = { from: last.at.from, to: last.at.from + name.length };
  complaints.add(at, `the new value is written ${variable}[n+1]`, writing(at, `${variable}[n+1]`));
  return true;
}

/**
 * Reads the text of a method, in the notation described in docs/notation.md.
 *
 * @returns the method, or all errors of the text with their places
 * @example parseMethod('y[n+1] = y + h*f(t, y)').ok // true
 */
export function parseMethod(text: string): Reading<Method> {
  const long = tooLong(text);
  if (long !== null) return { ok: false, errors: long };
  const complaints = new Complaints(text);
  const report: Report = (at, message, repairs) => complaints.add(at, message, repairs);
  const { lines, called } = methodWriting(
    withOperands(writtenLines(text, 'method', complaints), complaints),
    complaints,
  );
  const form = formOf(lines);
  const functions = new Set(lines.map(functionOf).filter((name) => name !== null));
  const grammar: Grammar = {
    multiplies: factorsOf(lines),
    calls: (name) =>
      name === 'f' ||
      name === 'a' ||
      functions.has(name) ||
      (partialOf(name) !== null && !isGiven(lines, name)),
    refuseCall: (name, inside) =>
      ['y', 't', 'x', 'v'].includes(name)
        ? `${name} is written with its index in square brackets, as in ${name}[n]; to multiply write ${name}*(${inside})`
        : null,
    report,
  };
  const raw: RawStatement[] = [];
  let startWith: Method['startWith'] = null;
  const lost = new Set<string>();
  for (const line of lines) {
    const isRead = complaints.attempt(() => {
      const start = readStart(text, line);
      if (start === null) raw.push(readLine(line, grammar, form));
      else if (startWith === null) startWith = start;
      else complaints.add(line.at, 'start with is given twice');
      return true;
    });
    if (isRead === null) for (const name of namesAtLeft(line)) lost.add(name);
  }
  const { statements, nexts, shapes, oneEquation } = meaningOf(text, { raw, form, lost }, complaints);
  const end = text.trimEnd().length;
  if (!complaints.any)
    for (const variable of VARIABLES[form])
      if (!nexts.has(variable) && !sayNewValue(statements, variable, complaints))
        complaints.add(
          { from: end, to: end + 1 },
          `the new value is missing; add a line ${variable}[n+1] = ...`,
        );
  const lastNext = statements.findLastIndex((s) => givenBy(s).some((given) => given.kind === 'next'));
  const behind = statements.slice(lastNext + 1);
  const [first] = behind;
  const second = lines.find((line) => embeddedValue(line) !== null);
  const depth = depthOf(statements);
  if (!complaints.any && second !== undefined) checkEmbedded(second, behind, { depth, called }, complaints);
  if (!complaints.any && second === undefined && first !== undefined)
    complaints.add(first.at, 'no line may follow the new value');
  if (!complaints.any) complaints.attempt(() => refuseLargeMethod(statements));
  if (complaints.any) return { ok: false, errors: complaints.list() };
  const embedded = second === undefined ? null : embeddedIn(text, lines, behind, called);
  const own = statements.slice(0, lastNext + 1);
  return {
    ok: true,
    value: { text, form, statements: own, shapes, depth, startWith, oneEquation, called, embedded },
  };
}

/** That an embedded formula is the last line of a one-step method, for the value of the text, and no number. */
function checkEmbedded(
  line: TokenLine,
  behind: readonly MethodStatement[],
  { depth, called }: Pick<Method, 'depth' | 'called'>,
  complaints: Complaints,
): void {
  const written = `${called.value}hat[n+1]`;
  const last = behind.at(-1);
  if (embeddedValue(line) !== called.value)
    complaints.add(line.at, `the embedded formula of ${called.value}[n+1] is written ${written} = ...`);
  else if (last?.at.from !== line.at.from)
    complaints.add(line.at, `${written} is the last line, behind that of ${called.value}[n+1]`);
  else if (depth > 0) complaints.add(line.at, `${written} belongs to a one-step method`);
  else if (last.kind !== 'let' || last.shape !== 'vector')
    complaints.add(line.at, `${written} must depend on values of the solution`);
}

/** The embedded formula of a text that was found to be right. */
function embeddedIn(
  text: string,
  lines: readonly TokenLine[],
  behind: readonly MethodStatement[],
  called: Method['called'],
): Embedded | null {
  const { text: changed, advanced } = embeddedText(text, lines, called);
  const reading = parseMethod(changed);
  return reading.ok ? { lines: behind, method: reading.value, advanced } : null;
}
