import { parseMethod } from '../method/parse-method.ts';
import type { Problem } from '../problem/problem.ts';
import { compileRun, type CompiledRun } from './compile.ts';
import type { Precision } from './precision.ts';

/** The right-hand sides of a problem at a time and state, with the arithmetic of a run. */
export type RightHandSides = (t: number, state: ArrayLike<number>) => Float64Array;

type RhsForm = CompiledRun['program']['form'];

const known = new WeakMap<Problem, Map<string, RightHandSides>>();

/** A method of one stage: its trace is the right-hand side itself. */
const PROBE: Readonly<Record<RhsForm, string>> = {
  'first order': 'k = f(t, y)\ny[n+1] = y + h*k',
  'second order': 'k = a(t, x, v)\nx[n+1] = x + h*v\nv[n+1] = v + h*k',
};

function rightHandSides(problem: Problem, form: RhsForm, precision: Precision): RightHandSides {
  const made = known.get(problem) ?? new Map<string, RightHandSides>();
  known.set(problem, made);
  const key = `${precision}/${form}`;
  const ready = made.get(key);
  if (ready !== undefined) return ready;
  const probe = parseMethod(PROBE[form]);
  if (!probe.ok) throw new Error('the probe cannot be read');
  const one = compileRun(problem, probe.value, { precision });
  const answer: RightHandSides = (t, state) => {
    const out = new Float64Array(one.stageWidth);
    const copy = new Float64Array(one.shape.length);
    copy.set(Array.from(state).slice(0, problem.size));
    one.trace(copy, t, 0, 0, 1, out);
    return out;
  };
  made.set(key, answer);
  return answer;
}

/** f of a run's problem, or a for a method of second order, as a function; made once for each problem. */
export function rightHandSidesOf(run: CompiledRun): RightHandSides {
  return rightHandSides(run.problem, run.program.form, run.precision);
}

/**
 * f of the first-order system of a problem; made once for each problem and precision.
 *
 * @example systemRightHandSides(problem)(0, [4]) // new Float64Array([-0.7])
 */
export function systemRightHandSides(problem: Problem, precision: Precision = 'double'): RightHandSides {
  return rightHandSides(problem, 'first order', precision);
}
