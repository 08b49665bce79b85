import { primed } from '../text/primes.ts';
import { CONSTANTS, FUNCTIONS } from '../formula/functions.ts';
import { type Expression, name, walk } from '../formula/expression.ts';
import type { Grammar } from '../formula/grammar.ts';
import { withOperands } from '../formula/with-operands.ts';
import { Complaints, type Reading, tooLong, writing } from '../text/place.ts';
import type { TokenLine } from '../text/token.ts';
import { problemWriting } from '../writing/problem-writing.ts';
import { writtenLines } from '../writing/written-lines.ts';
import { checkNames } from './check-names.ts';
import { readExact } from './exact-solutions.ts';
import { constantValue } from './constant-value.ts';
import { buildUnknowns } from './equations.ts';
import { type ProblemReading, readInitialValues } from './initial-values.ts';
import type { Block, Conserved, Parameter, Problem, Unknown } from './problem.ts';
import { readStatement, type Statement } from './statement.ts';
import { partTyped, readTyped } from './typed-derivatives.ts';

/** Values of parameters that replace those of the text, by name: what a slider sets. */
export type ParameterValues = Readonly<Record<string, number>>;

/** Names that an unknown or a parameter cannot have. */
function refuseName(text: string): string | null {
  if (FUNCTIONS.has(text) || text === 'log' || text === 'if')
    return `${text} is a function of the notation; choose another name`;
  if (CONSTANTS.has(text)) return `${text} is a constant of the notation; choose another name`;
  if (text === 'for' || text === 'conserved')
    return `${text} is a keyword of the notation; choose another name`;
  return null;
}

/** Names that carry a prime somewhere in the text: the unknowns, before anything is parsed. */
function primedNames(lines: readonly TokenLine[]): ReadonlySet<string> {
  const names = new Set<string>();
  for (const { tokens } of lines) {
    let open: string | null = null;
    tokens.forEach((token, i) => {
      const previous = tokens[i - 1];
      if (token.text === '[' && previous?.kind === 'name') open = previous.text;
      if (token.kind !== 'prime' || previous === undefined) return;
      if (previous.kind === 'name') names.add(previous.text);
      if (previous.text === ']' && open !== null) names.add(open);
    });
  }
  return names;
}

/** Names that represent a number or an unknown: what a product by a space may be made of. */
function factorsOf(lines: readonly TokenLine[], unknowns: ReadonlySet<string>): Grammar['multiplies'] {
  const numbers = new Set(CONSTANTS.keys());
  for (const { tokens } of lines) {
    const [first, second] = tokens;
    if (first?.kind === 'name' && second?.text === '=') numbers.add(first.text);
    const middle = tokens.findIndex(({ text }) => text === '<=' || text === '<');
    const variable = middle < 0 ? undefined : tokens[middle + 1];
    if (variable?.kind === 'name') numbers.add(variable.text);
  }
  // y (t + 1) may be y at t + 1
  return (name, isBeforeBracket) => numbers.has(name) || (unknowns.has(name) && !isBeforeBracket);
}

function readStatements(text: string, complaints: Complaints): readonly Statement[] {
  const lines = problemWriting(withOperands(writtenLines(text, 'problem', complaints), complaints));
  const primed = primedNames(lines);
  const grammar: Grammar = {
    report: (at, message, repairs) => complaints.add(at, message, repairs),
    multiplies: factorsOf(lines, primed),
    calls: () => false,
    refuseCall: (called, inside) =>
      called === 'f'
        ? "f is the right-hand side in a method; in a problem, write the equation, as in y' = t - 2*y"
        : primed.has(called)
          ? `inside a formula write ${called}, not ${called}(${inside}); to multiply write ${called}*(${inside})`
          : null,
  };
  const statements: Statement[] = [];
  for (const line of lines) {
    const statement = complaints.attempt(() => readStatement(line, grammar));
    if (statement === null) complaints.lose();
    else statements.push(statement);
  }
  return statements;
}

/**
 * What to say of a parameter that is no number because something else is meant: `f = -y`, `Dy = -y`, `u_t = -u` as a
 * right-hand side, and `exact = exp(-t)` as a solution; null for any other.
 */
function rhsMeant(
  statement: Statement & { readonly kind: 'parameter' },
  unknowns: ReadonlySet<string>,
): { readonly message: string; readonly instead: string } | null {
  const text = statement.name;
  const names = new Set<string>();
  walk(statement.value, (node) => (node.kind === 'name' ? names.add(node.name) : null));
  const of = /^D_?([A-Za-z])$/.exec(text)?.[1] ?? /^([A-Za-z])_t$/.exec(text)?.[1];
  if (of !== undefined && (names.has(of) || names.has('t')))
    return { message: `an equation is written ${of}' = ...`, instead: `${of}'` };
  if (text === 'f' && (names.has('y') || names.has('t')))
    return { message: "the equation is written y' = ..., or f(t, y) = ...", instead: 'f(t, y)' };
  const [unknown] = unknowns;
  const isExact = /^(?:exact|solution|[A-Za-z]_?(?:exact|true|sol))$/.test(text);
  if (!isExact || unknown === undefined || !(names.has('t') || names.has('x'))) return null;
  const own = [...unknowns].find((name) => text.startsWith(name)) ?? unknown;
  const time = names.has('t') ? 't' : 'x';
  return {
    message: `an exact solution is written ${own}(${time}) = ...`,
    instead: `${own}(${time})`,
  };
}

function readParameters(
  statements: readonly Statement[],
  unknowns: ReadonlySet<string>,
  values: ParameterValues,
  complaints: Complaints,
): readonly Parameter[] {
  const known = new Map<string, number>();
  const parameters: Parameter[] = [];
  for (const statement of statements) {
    if (statement.kind !== 'parameter') continue;
    const { name: text, nameAt } = statement;
    const refusal = unknowns.has(text)
      ? `${text} is an unknown: its value at the start is written ${text}(0) = ..., its equation ${text}' = ..., its exact solution ${text}(t) = ...`
      : (refuseName(text) ?? (known.has(text) ? `${text} is given twice` : null));
    if (refusal !== null) {
      complaints.add(nameAt, refusal);
      continue;
    }
    const rhs = rhsMeant(statement, unknowns);
    if (rhs !== null) {
      complaints.only(nameAt, rhs.message, writing(nameAt, rhs.instead), statement.at);
      complaints.lose();
      continue;
    }
    const value = complaints.attempt(() => {
      const wished = Object.hasOwn(values, text) ? values[text] : undefined;
      return wished ?? constantValue(statement.value, known);
    });
    known.set(text, value ?? 1);
    parameters.push({ name: text, written: statement.value, value: value ?? 1, at: nameAt });
  }
  return parameters;
}

interface Interval {
  readonly independent: string;
  readonly start: number;
  readonly end: number;
}

function readInterval(
  { statements, known, textEnd, complaints }: ProblemReading,
  unknowns: ReadonlySet<string>,
): Interval {
  const intervals = statements.filter((statement) => statement.kind === 'interval');
  const [first, second] = intervals;
  if (first === undefined) {
    if (!complaints.any)
      complaints.missing(textEnd, 'the interval is missing; add a line such as 0 <= t <= 1');
    return { independent: 't', start: 0, end: 1 };
  }
  if (second !== undefined) complaints.add(second.at, 'the interval is given twice');
  const { variable } = first;
  const refusal =
    refuseName(variable) ??
    (unknowns.has(variable) ? `${variable} is an unknown, so it cannot be the independent variable` : null) ??
    (known.has(variable) ? `${variable} is a parameter, so it cannot be the independent variable` : null);
  if (refusal !== null) complaints.add(first.at, refusal);
  const start = complaints.attempt(() => constantValue(first.low, known)) ?? 0;
  const end = complaints.attempt(() => constantValue(first.high, known)) ?? start + 1;
  if (!(start < end))
    complaints.add(
      first.at,
      `the start of the interval must be less than its end; ${start} is not less than ${end}`,
    );
  return { independent: variable, start, end };
}

/** The blocks of the first-order system: x, x', ... for each unknown, in the order of the equations. */
function reduce(unknowns: readonly Unknown[], exact: ReadonlyMap<string, Expression>): readonly Block[] {
  const blocks: Block[] = [];
  let offset = 0;
  for (const unknown of unknowns) {
    const size = unknown.range === null ? 1 : unknown.range.to - unknown.range.from + 1;
    for (let d = 0; d < unknown.order; d += 1) {
      const lower: Expression =
        unknown.range === null
          ? name(unknown.name, d + 1)
          : {
              kind: 'indexed',
              name: unknown.name,
              primes: d + 1,
              index: name(unknown.range.variable),
              at: { from: 0, to: 0 },
            };
      blocks.push({
        name: primed(unknown.name, d),
        unknown,
        derivative: d,
        offset,
        size,
        rhs: d === unknown.order - 1 ? unknown.highest : lower,
        exact: exact.get(`${unknown.name}/${d}`) ?? null,
      });
      offset += size;
    }
  }
  return blocks;
}

function readConserved(
  statements: readonly Statement[],
  taken: ReadonlySet<string>,
  complaints: Complaints,
): readonly Conserved[] {
  const conserved: Conserved[] = [];
  for (const statement of statements) {
    if (statement.kind !== 'conserved') continue;
    const { name: text, value, at } = statement;
    const refusal =
      refuseName(text) ??
      (taken.has(text) || conserved.some((c) => c.name === text) ? `${text} is given twice` : null);
    if (refusal !== null) complaints.add(at, refusal);
    else conserved.push({ name: text, value, at });
  }
  return conserved;
}

/**
 * Reads the text of a problem, in the notation described in docs/notation.md.
 *
 * @param values values of parameters that replace those of the text
 * @returns the problem, reduced to a first-order system, or all errors of the text with their places
 * @example parseProblem("level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 6").ok // true
 */
export function parseProblem(text: string, values: ParameterValues = {}): Reading<Problem> {
  const long = tooLong(text);
  if (long !== null) return { ok: false, errors: long };
  const complaints = new Complaints(text);
  const statements = readStatements(text, complaints);
  const primed = new Set<string>();
  for (const statement of statements) {
    if (statement.kind !== 'equation') continue;
    collectPrimed(statement.left, primed);
    collectPrimed(statement.right, primed);
  }
  const textEnd = { from: text.trimEnd().length, to: text.trimEnd().length + 1 };
  const parameters = readParameters(statements, primed, values, complaints);
  const known = new Map(parameters.map((p) => [p.name, p.value]));
  const reading: ProblemReading = { statements, known, textEnd, complaints };
  const interval = readInterval(reading, primed);
  for (const text of primed) {
    const refusal = refuseName(text);
    const at = statements.find((s) => s.kind === 'equation')?.at ?? textEnd;
    if (refusal !== null) complaints.add(at, refusal);
  }
  if (primed.size === 0 && !complaints.any)
    complaints.missing(textEnd, "an equation is missing; add a line such as y' = -y");
  const { rightHandSides, typed: byHand } = partTyped(statements);
  const unknowns = buildUnknowns(rightHandSides, known, complaints);
  const typed = readTyped(byHand, unknowns, complaints);
  const exact = readExact(statements, unknowns, interval.independent, complaints);
  const blocks = reduce(unknowns, exact);
  const size = blocks.reduce((sum, block) => sum + block.size, 0);
  const taken = new Set([...known.keys(), ...primed, interval.independent]);
  const conserved = readConserved(statements, taken, complaints);
  const naming = { independent: interval.independent, parameters, blocks };
  const initial = readInitialValues(reading, naming, interval.start);
  checkNames({ ...naming, conserved, typed }, complaints);
  if (complaints.any) return { ok: false, errors: complaints.list() };
  return {
    ok: true,
    value: { text, ...interval, parameters, unknowns, blocks, size, initial, conserved, typed, statements },
  };
}

function collectPrimed(expression: Expression, into: Set<string>): void {
  walk(expression, (node) => {
    if ((node.kind === 'name' || node.kind === 'indexed' || node.kind === 'call') && node.primes > 0)
      into.add(node.name);
  });
}
