import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import { generatedFunction } from './generated.ts';
import type { Precision } from './precision.ts';
import { lower, type Program } from './program.ts';
import { type LoopSource, straightLine } from './straight-line.ts';

/**
 * Does `count` steps from step number `first` on: the state changes in place, and the time of step n
 * is origin + n*h, never a running sum.
 */
export type Advance = (state: Float64Array, origin: number, h: number, first: number, count: number) => void;

/** The same, and writes the stages of every step to `out`, one row after another. */
export type Trace = (
  state: Float64Array,
  origin: number,
  h: number,
  first: number,
  count: number,
  out: Float64Array,
) => void;

/** A problem and a method as one generated loop. */
export interface CompiledRun {
  readonly problem: Problem;
  readonly program: Program;
  readonly precision: Precision;
  readonly advance: Advance;
  readonly trace: Trace;
  /** Stage values of one step, all components one after another. */
  readonly stageWidth: number;
}

function loopSource(loop: LoopSource, size: number, single: boolean, traced: boolean): string {
  const components = Array.from({ length: size }, (_, j) => j);
  return [
    `function (S, origin, h${single ? '64' : ''}, first, count${traced ? ', OUT' : ''}) {`,
    ...(single ? ['const h = F(h64);'] : []),
    ...loop.before,
    ...components.map((j) => `let y${j} = ${single ? `F(S[${j}])` : `S[${j}]`};`),
    'const last = first + count;',
    ...(traced ? ['let at = 0;'] : []),
    'for (let n = first; n < last; n++) {',
    single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
    ...loop.body,
    ...(traced ? loop.stages.map((code) => `OUT[at++] = ${code};`) : []),
    ...components.map((j) => `const w${j} = ${loop.next[j] ?? 'NaN'};`),
    ...components.map((j) => `y${j} = w${j};`),
    '}',
    ...components.map((j) => `S[${j}] = y${j};`),
    '}',
  ].join('\n');
}

/**
 * Compiles a problem and a method to a loop in the text's own order of operations.
 * Nothing that a user typed stands in the generated source: names are made here, numbers are printed
 * from their values, and functions come from a fixed table.
 */
export function compileRun(problem: Problem, method: Method, precision: Precision = 'double'): CompiledRun {
  const program = lower(method);
  const loop = straightLine(problem, program, precision);
  const source = (traced: boolean): string => loopSource(loop, problem.size, precision === 'single', traced);
  const advance: Advance = generatedFunction(source(false));
  const trace: Trace = generatedFunction(source(true));
  return { problem, program, precision, advance, trace, stageWidth: loop.stages.length };
}
