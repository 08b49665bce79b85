import type { Expression } from '../formula/expression.ts';
import { texSymbol } from '../formula/tex-names.ts';
import { plainText } from '../formula/plain-text.ts';
import { type EqualsSign, indexTex, texOf } from '../formula/tex.ts';
import { elementName, type Problem } from './problem.ts';
import { type ForRange, isExactSolution, type Statement, type Target } from './statement.ts';

function range(of: ForRange | null): string {
  return of === null ? '' : `\\qquad ${texSymbol(of.variable)} = ${texOf(of.from)}, \\dots, ${texOf(of.to)}`;
}

function target(of: Target, argument: Expression): string {
  const index = of.index === null ? null : indexTex(of.index);
  return `${texSymbol(of.name, of.primes, index)}(${texOf(argument)})`;
}

function statementTex(statement: Statement, equals: EqualsSign): string {
  switch (statement.kind) {
    case 'equation':
      return `${texOf(statement.left)} ${equals} ${texOf(statement.right)}${range(statement.range)}`;
    case 'value':
      return `${target(statement.target, statement.argument)} ${equals} ${texOf(statement.value)}${range(statement.range)}`;
    case 'interval':
      return `${texOf(statement.low)} \\le ${texSymbol(statement.variable)} \\le ${texOf(statement.high)}`;
    case 'parameter':
      return `${texSymbol(statement.name)} ${equals} ${texOf(statement.value)}`;
    case 'given':
      return `${texSymbol(statement.target.name, 0, indexTex(statement.index))} ${equals} ${texOf(statement.value)}`;
    case 'conserved':
      return `${texSymbol(statement.name)} ${equals} ${texOf(statement.value)} = \\text{const}`;
  }
}

/** The parts of a problem in TeX, each statement a line of its own, as it was written. */
export interface ProblemTex {
  readonly equations: readonly string[];
  readonly initial: readonly string[];
  readonly interval: string;
  readonly exact: readonly string[];
  readonly parameters: readonly string[];
  readonly conserved: readonly string[];
  readonly given: readonly string[];
}

/** The lines that state a problem: its equations, what is given, initial values and interval, without exact solutions. */
export function statementLines({
  equations,
  given,
  parameters,
  initial,
  interval,
}: ProblemTex): readonly string[] {
  return [...equations, ...given, ...parameters, ...initial, interval].filter((line) => line !== '');
}

/**
 * The statements of a problem in TeX, sorted by what they say.
 *
 * @example problemTex(problem).equations // ["\\mathit{level}' = -k\\,\\sqrt{\\mathit{level}}"]
 */
export function problemTex(problem: Problem, equals: EqualsSign = '='): ProblemTex {
  const { statements, independent } = problem;
  const lines = (is: (statement: Statement) => boolean): readonly string[] =>
    statements.filter(is).map((statement) => statementTex(statement, equals));
  const isExact = (statement: Statement): boolean => isExactSolution(statement, independent);
  return {
    equations: lines((s) => s.kind === 'equation'),
    initial: lines((s) => s.kind === 'value' && !isExact(s)),
    interval: lines((s) => s.kind === 'interval')[0] ?? '',
    exact: lines(isExact),
    parameters: lines((s) => s.kind === 'parameter'),
    conserved: lines((s) => s.kind === 'conserved'),
    given: lines((s) => s.kind === 'given'),
  };
}

/**
 * Where the statement of each line of `problemTex` begins in the text of the problem.
 *
 * @example problemPlaces(problem).get('k = 0.35') // 24
 */
export function problemPlaces({ statements }: Problem): ReadonlyMap<string, number> {
  return new Map(statements.map((statement) => [statementTex(statement, '='), statement.at.from]));
}

/**
 * The reduced first-order system in TeX, one line a block.
 *
 * @example systemTex(problem).length // 1
 */
export function systemTex(problem: Problem, equals: EqualsSign = '='): readonly string[] {
  return problem.blocks.map((block) => {
    const { name, range: over } = block.unknown;
    const index = over === null ? null : texSymbol(over.variable);
    const symbol = texSymbol(name, block.derivative, index);
    const left =
      block.unknown.order > 1
        ? `\\frac{d}{d${texSymbol(problem.independent)}}\\,${symbol}`
        : texSymbol(name, 1, index);
    return `${left} ${equals} ${texOf(block.rhs)}`;
  });
}

/**
 * Lines of TeX below each other, aligned at their `&=`.
 *
 * @example aligned(['a &= b']) // '\\begin{aligned} a &= b \\end{aligned}'
 */
export function aligned(lines: readonly string[]): string {
  return `\\begin{aligned} ${lines.join(' \\\\[3pt] ')} \\end{aligned}`;
}

/**
 * The reduced first-order system in the notation, one line a block.
 *
 * @example systemText(problem) // ["level' = -k*sqrt(level)"]
 */
export function systemText(problem: Problem): readonly string[] {
  return problem.blocks.map((block) => {
    const { range: over } = block.unknown;
    const where = over === null ? '' : ` for ${over.variable} = ${over.from}..${over.to}`;
    const symbol = over === null ? block.name : elementName(block, over.variable);
    const left = block.unknown.order > 1 ? `d/d${problem.independent} ${symbol}` : `${symbol}'`;
    return `${left} = ${plainText(block.rhs)}${where}`;
  });
}

/**
 * A problem in two lines: its equations, aligned, then values given and the interval; an empty line where there are none.
 *
 * @example problemLinesTex(problem).length // 2
 */
export function problemLinesTex(problem: Problem): readonly string[] {
  const { initial, interval, given, parameters } = problemTex(problem);
  return [
    aligned(problemTex(problem, '&=').equations),
    [...parameters, ...given, ...initial, interval].filter((line) => line !== '').join(',\\quad '),
  ];
}
