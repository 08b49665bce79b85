import type { Method } from '../../method/method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import type { Problem } from '../../problem/problem.ts';
import { compileWithStart } from '../../compile/compile-with-start.ts';
import type { CompiledRun } from '../../compile/compile.ts';
import { begin, goTo } from '../../run/integrate.ts';
import { systemRates } from '../../compile/rates.ts';
import { memo } from '../memo.ts';
import { norm } from '../../run/norm.ts';

/** y' = -y: with step z a run shows what the method does to a decay of rate z/h. */
const DECAY = "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)";
/** Steps after which a growing mode of a method is seen. */
const STEPS = 400;
const MOST = 200;

function staysSmall(run: CompiledRun, z: number): boolean {
  const at = begin(run, { start: 0, h: z, steps: STEPS, shorter: null, wished: z, divides: true });
  goTo(at, STEPS / 2);
  const half = Math.abs(at.state[0]!);
  goTo(at, STEPS);
  return at.stopped === null && (Math.abs(at.state[0]!) <= half || Math.abs(at.state[0]!) < 1e-3);
}

const remembered = memo<number | null>(500);

/**
 * The end of the stretch of the negative real axis on which a method is stable: the largest z for which its runs on
 * y' = -y with all steps up to z do not grow, found by trial.
 *
 * @returns null where there is no such limit up to 200, or none could be found
 */
export function realStabilityLimit(method: Method): number | null {
  return remembered(method.text, () => findLimit(method));
}

function findLimit(method: Method): number | null {
  const decay = parseProblem(DECAY);
  if (!decay.ok || method.form !== 'first order') return null;
  let run: CompiledRun;
  try {
    run = compileWithStart(decay.value, method, { find: () => null, instead: 'exact' });
  } catch (thrown) {
    if (thrown instanceof RangeError) return null;
    throw thrown;
  }
  let low = 0;
  let high = 0.02;
  if (!staysSmall(run, high)) return null;
  while (staysSmall(run, high)) {
    low = high;
    high += Math.max(0.05, high / 20);
    if (high > MOST) return null;
  }
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if (staysSmall(run, middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** How far the direction found may be from a true one, relative to the eigenvalue. */
const SURE = 0.02;
const ITERATIONS = 300;

/**
 * The fastest decay of a problem at a time and state: the eigenvalue of largest size of its Jacobian, by the power
 * method with differences of the rates, where that is real and negative.
 *
 * @returns its size; null where the fastest motion is no decay, or is not found for sure
 */
export function fastestDecay(problem: Problem, t: number, state: ArrayLike<number>): number | null {
  const rates = systemRates(problem);
  const { size } = problem;
  const base = Float64Array.from(rates(t, state));
  const scale = Math.max(1, norm(state));
  const step = 1e-6 * scale;
  let direction = Float64Array.from({ length: size }, (_, j) => 1 + ((j * 7919) % 13) / 13 - (j % 2) * 1.7);
  let value = 0;
  for (let i = 0; i < ITERATIONS; i += 1) {
    const length = norm(direction);
    if (!(length > 0) || !Number.isFinite(length)) return null;
    direction = direction.map((d) => d / length);
    const moved = rates(
      t,
      direction.map((d, j) => state[j]! + step * d),
    );
    const image = moved.map((f, j) => (f - base[j]!) / step);
    const quotient = image.reduce((sum, d, j) => sum + d * direction[j]!, 0);
    const rest = norm(image.map((d, j) => d - quotient * direction[j]!));
    const isSure = rest <= SURE * Math.abs(quotient);
    if (isSure && Math.abs(quotient - value) <= 1e-4 * Math.abs(quotient))
      return quotient < 0 ? -quotient : null;
    value = quotient;
    direction = image;
  }
  return null;
}
