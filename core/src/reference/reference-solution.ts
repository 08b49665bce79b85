import { parseMethod } from '../method/parse-method.ts';
import { hasKink } from '../problem/check-exact.ts';
import type { Problem } from '../problem/problem.ts';
import { compileRun } from '../run/compile.ts';
import { layGrid, timeAt } from '../run/grid.ts';
import { begin, goTo } from '../run/integrate.ts';
import { MOST_JET_COMPONENTS } from './jet-function.ts';
import { type DenseSolution, taylorSolution } from './taylor-solution.ts';

/** A solution to compare with where no exact one is known, and how it was made. */
export interface Reference {
  /** `taylor`: series of order 24. `fine steps`: a classical method with many small steps, good enough for a picture. */
  readonly kind: 'taylor' | 'fine steps';
  readonly solution: DenseSolution;
}

const RK4 = `k1 = f(t, y)
k2 = f(t + h/2, y + h/2*k1)
k3 = f(t + h/2, y + h/2*k2)
k4 = f(t + h, y + h*k3)
y[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)`;

/** Points that a solution by fine steps keeps; between them it is linear. */
const KEPT = 1_000;
/** Component steps that are worth a picture. */
const WORK = 2e7;

/** RK4 in many small steps, thinned to points; null where even that leaves the numbers at once. */
function fineSteps(problem: Problem): DenseSolution {
  const method = parseMethod(RK4);
  if (!method.ok) throw new Error('the built-in method cannot be read');
  const stride = Math.max(1, Math.min(100, Math.floor(WORK / (problem.size * KEPT))));
  const grid = layGrid(problem.start, problem.end, { steps: KEPT * stride });
  const at = begin(compileRun(problem, method.value), grid);
  const points = [Float64Array.from(problem.initial)];
  while (at.n < grid.steps) {
    const before = at.n;
    goTo(at, before + stride);
    if (at.n < before + stride) break;
    points.push(at.state.slice());
  }
  const width = (problem.end - problem.start) / KEPT;
  return {
    reached: timeAt(grid, at.n),
    steps: at.n,
    at: (t, out) => {
      const place = (t - problem.start) / width;
      const left = Math.min(points.length - 1, Math.max(0, Math.floor(place)));
      const right = Math.min(points.length - 1, left + 1);
      const part = Math.min(1, Math.max(0, place - left));
      const [a, b] = [points[left]!, points[right]!];
      for (let j = 0; j < out.length; j += 1) out[j] = a[j]! + part * (b[j]! - a[j]!);
    },
  };
}

/**
 * A solution for pictures and comparison: Taylor series where the rates are smooth and the system is not too
 * large, fine steps otherwise.
 */
export function referenceSolution(problem: Problem): Reference {
  if (hasKink(problem) || problem.size > MOST_JET_COMPONENTS)
    return { kind: 'fine steps', solution: fineSteps(problem) };
  return { kind: 'taylor', solution: taylorSolution(problem, 1e-18) };
}
