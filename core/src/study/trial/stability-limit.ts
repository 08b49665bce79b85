import { attempt } from '../../text/refusal.ts';
import { inspectMethod } from '../../inspect/inspect-method.ts';
import { type Method, typesDerivatives } from '../../method/method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import { compileWithStart } from '../../compile/compile-with-start.ts';
import type { CompiledRun } from '../../compile/compile.ts';
import { begin, goTo } from '../../run/integrate.ts';
import { memoize } from '../../text/memoize.ts';

/** y' = -y: with step z a run shows what the method does to a decay of rate z/h. */
const DECAY = "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)";
/** Steps after which a growing mode of a method is seen. */
const STEPS = 400;
const MAX = 200;

function staysSmall(run: CompiledRun, z: number): boolean {
  const at = begin(run, { start: 0, h: z, steps: STEPS, shorter: null, wished: z, divides: true });
  goTo(at, STEPS / 2);
  const half = Math.abs(at.state[0]!);
  goTo(at, STEPS);
  return at.stopped === null && (Math.abs(at.state[0]!) <= half || Math.abs(at.state[0]!) < 1e-3);
}

const known = memoize<number | null>(500);

/**
 * The end of the stretch of the negative real axis on which a method is stable: from the roots of its characteristic
 * polynomial where its form is known; else the largest z for which its runs on y' = -y with all steps up to z do not
 * grow, found by trial.
 *
 * @returns null where there is no such limit up to 200, or none could be found
 */
export function realStabilityLimit(method: Method): number | null {
  const { stability } = inspectMethod(method);
  if (stability !== null) return stability.real === Infinity ? null : stability.real;
  return known(method.text, () => findLimit(method));
}

function findLimit(method: Method): number | null {
  const decay = parseProblem(DECAY);
  if (!decay.ok || method.form !== 'first order' || typesDerivatives(method)) return null;
  const compiled = attempt(() =>
    compileWithStart(decay.value, method, { find: () => null, instead: 'exact' }),
  );
  if (!compiled.ok) return null;
  const run = compiled.value;
  let low = 0;
  let high = 0.02;
  if (!staysSmall(run, high)) return null;
  while (staysSmall(run, high)) {
    low = high;
    high += Math.max(0.05, high / 20);
    if (high > MAX) return null;
  }
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if (staysSmall(run, middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
