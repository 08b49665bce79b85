import type { Decimal } from 'decimal.js';
import { parseMethod } from '../method/parse-method.ts';
import type { Problem } from '../problem/problem.ts';
import { memoizeFor } from '../text/memoize.ts';
import { compileRun, type CompiledRun } from './compile.ts';
import { type Precision, precisionKey } from './precision.ts';

/** The right-hand sides of a problem at a time and state, with the arithmetic of a run. */
export type RightHandSides = (t: number, state: ArrayLike<number>) => Float64Array;

type RhsForm = CompiledRun['program']['form'];

const known = memoizeFor<Problem, RightHandSides>();

/** A method of one stage: its trace is the right-hand side itself. */
const PROBE: Readonly<Record<RhsForm, string>> = {
  'first order': 'k = f(t, y)\ny[n+1] = y + h*k',
  'second order': 'k = a(t, x, v)\nx[n+1] = x + h*v\nv[n+1] = v + h*k',
};

/** The probe as a run, made ready. */
function probeRun(problem: Problem, form: RhsForm, precision: Precision): CompiledRun {
  const probe = parseMethod(PROBE[form]);
  if (!probe.ok) throw new Error('the probe cannot be read');
  return compileRun(problem, probe.value, { precision });
}

function rightHandSides(problem: Problem, form: RhsForm, precision: Precision): RightHandSides {
  return known(problem, `${precisionKey(precision)}/${form}`, () => {
    const one = probeRun(problem, form, precision);
    return (t, state) => {
      const out = new Float64Array(one.stageWidth);
      const copy = new Float64Array(one.shape.length);
      copy.set(Array.from(state).slice(0, problem.size));
      one.trace(copy, t, 0, 0, 1, out);
      return out;
    };
  });
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

/** The right-hand sides of a problem at a time and state, in an arithmetic of decimals. */
export type DecimalRightHandSides = (t: Decimal, state: readonly Decimal[]) => readonly Decimal[];

const knownInDecimals = memoizeFor<Problem, DecimalRightHandSides>();

/** f of a problem in decimals, or a for a method of second order; made once for each problem and arithmetic. */
export function rhsInDecimals(
  { problem, program, precision }: Pick<CompiledRun, 'problem' | 'program' | 'precision'>,
  form: RhsForm = program.form,
): DecimalRightHandSides {
  return knownInDecimals(problem, `${precisionKey(precision)}/${form}`, () => {
    const { decimal, shape } = probeRun(problem, form, precision);
    if (decimal === null) throw new Error('this run is not in decimals');
    const { zero } = decimal.decimals;
    return (t, state) =>
      decimal.trace({
        state: state.slice(0, problem.size),
        numbers: new Float64Array(shape.length),
        origin: t,
        h: zero,
        first: 0,
        count: 1,
      });
  });
}
