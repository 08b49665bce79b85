import { Refusal } from '../text/refusal.ts';
import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import { compileRun, type CompiledRun, type DecimalSolution, type Solution, type Start } from './compile.ts';
import type { Precision } from './precision.ts';

/** Finds a method by the name that `start with` says; null where there is none. */
export type FindMethod = (name: string) => Method | null;

export interface StartChoice {
  readonly find: FindMethod;
  /** The starting method instead of the one named by the text: a method by name, or `exact`. */
  readonly instead: string | null;
  readonly precision?: Precision;
  /** Exact starting values, where the problem gives no exact solution. */
  readonly solution?: Solution;
  /** The same for a run in decimals. */
  readonly inDecimals?: DecimalSolution;
}

/**
 * Compiles a method together with its starting method, and that with its own if it is a multistep method too.
 *
 * @throws Refusal as compileRun, and where a name is not known or names go round in a circle
 * @example compileWithStart(problem, heun, { find: () => null, instead: null }).start // null
 */
export function compileWithStart(problem: Problem, method: Method, choice: StartChoice): CompiledRun {
  return compile(problem, method, choice, []);
}

function compile(
  problem: Problem,
  method: Method,
  choice: StartChoice,
  path: readonly string[],
): CompiledRun {
  const precision = choice.precision === undefined ? {} : { precision: choice.precision };
  if (method.depth === 0) return compileRun(problem, method, precision);
  const name = choice.instead ?? method.startWith?.name ?? null;
  if (name === null) return compileRun(problem, method, precision);
  if (name === 'exact') {
    const start: Start = {
      kind: 'exact',
      solution: choice.solution ?? null,
      inDecimals: choice.inDecimals ?? null,
    };
    return compileRun(problem, method, { ...precision, start });
  }
  if (path.includes(name))
    throw new Refusal('start', `${[...path, name].join(' starts with ')}, which goes round in a circle`);
  const first = choice.find(name);
  if (first === null) throw new Refusal('missing', `there is no method ${name} to start with`);
  if (first.form !== method.form)
    throw new Refusal('form', `${name} cannot do the first steps: it is of another form`);
  const start: Start = {
    kind: 'method',
    run: compile(problem, first, { ...choice, instead: null }, [...path, name]),
  };
  return compileRun(problem, method, { ...precision, start });
}
