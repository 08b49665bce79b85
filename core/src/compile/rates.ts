import { parseMethod } from '../method/parse-method.ts';
import type { Problem } from '../problem/problem.ts';
import { compileRun, type CompiledRun } from './compile.ts';
import type { Precision } from './precision.ts';

/** The rates of a problem at a time and state, with the arithmetic of a run. */
export type Rates = (t: number, state: ArrayLike<number>) => Float64Array;

type RateForm = CompiledRun['program']['form'];

const known = new WeakMap<Problem, Map<string, Rates>>();

/** A method of one stage: its trace is the rate itself. */
const PROBE: Readonly<Record<RateForm, string>> = {
  'first order': 'k = f(t, y)\ny[n+1] = y + h*k',
  'second order': 'k = a(t, x, v)\nx[n+1] = x + h*v\nv[n+1] = v + h*k',
};

function rates(problem: Problem, form: RateForm, precision: Precision): Rates {
  const made = known.get(problem) ?? new Map<string, Rates>();
  known.set(problem, made);
  const key = `${precision}/${form}`;
  const ready = made.get(key);
  if (ready !== undefined) return ready;
  const probe = parseMethod(PROBE[form]);
  if (!probe.ok) throw new Error('the probe cannot be read');
  const one = compileRun(problem, probe.value, { precision });
  const answer: Rates = (t, state) => {
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
export function ratesOf(run: CompiledRun): Rates {
  return rates(run.problem, run.program.form, run.precision);
}

/**
 * f of the first-order system of a problem; made once for each problem and precision.
 *
 * @example systemRates(problem)(0, [4]) // new Float64Array([-0.7])
 */
export function systemRates(problem: Problem, precision: Precision = 'double'): Rates {
  return rates(problem, 'first order', precision);
}
