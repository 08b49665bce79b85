import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import { arrayLoop } from './array-loop.ts';
import { generatedFunction } from './generated.ts';
import type { Precision } from './precision.ts';
import { lower, type Program } from './program.ts';
import { straightLine } from './straight-line.ts';

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

/** Up to this many components every one of them is a local number; beyond it, arrays and inner loops. */
export const MOST_LOCAL = 16;

/**
 * Compiles a problem and a method to a loop in the text's own order of operations.
 * Nothing that a user typed stands in the generated source: names are made here, numbers are printed
 * from their values, and functions come from a fixed table.
 */
export function compileRun(problem: Problem, method: Method, precision: Precision = 'double'): CompiledRun {
  const program = lower(method);
  const generate = problem.size <= MOST_LOCAL ? straightLine : arrayLoop;
  const { advance, trace, stageWidth } = generate(problem, program, precision);
  return {
    problem,
    program,
    precision,
    advance: generatedFunction<Advance>(advance),
    trace: generatedFunction<Trace>(trace),
    stageWidth,
  };
}
