import { newtonCost, rhsSeconds } from '../../compile/rhs-cost.ts';
import type { CompiledRun } from '../../compile/compile.ts';
import { componentName } from '../../problem/problem.ts';
import { branchesOf } from '../../reference/switches.ts';
import { type Grid, timeAt } from '../../run/grid.ts';
import { begin, goTo, type RunState } from '../../run/integrate.ts';

/**
 * A step whose equations Newton's method solved, but not by the solution that grows out of the values before: as the
 * step size of that step alone grows from zero to what it is, the new value jumps.
 */
export interface Leap {
  /** The number of the step, from 1, and the time at its start. */
  readonly step: number;
  readonly t: number;
  /** The step size at which the new value of a component jumps, from one value to another. */
  readonly h: number;
  readonly component: string;
  readonly from: number;
  readonly to: number;
}

/** Step sizes of one step that are looked at before the largest change is followed. */
const LOOKS = 12;
/** A change that stays larger than this part of the values, over a part 2^-40 of the step, is a jump. */
const LEAPS = 0.02;
const HALVINGS = 40;
/** A change at so small a part of the step is a steep slope. */
const MIN = 1e-6;
/** Steps of one run that are looked at, and the work of a run, in component steps, beyond which none is. */
const MAX_STEPS = 40;
const MAX_WORK = 20_000;
/** Evaluations of the right-hand side that the looks at one run take, about, and seconds that they may take. */
const EVALUATIONS = 15_000;
/** Systems of linear equations that these looks solve, about. */
const SOLUTIONS = 8_000;
const MAX_SECONDS = 0.1;

/** The largest size of every component among states. */
function sizesOf(states: readonly Float64Array[], size: number): readonly number[] {
  return Array.from({ length: size }, (_, j) =>
    states.reduce((most, s) => Math.max(most, Math.abs(s[j]!)), 0),
  );
}

/** The component that changes most between two states beside its size, and by which part of that. */
function change(
  a: Float64Array,
  b: Float64Array,
  sizes: readonly number[],
): { readonly part: number; readonly place: number } {
  let [part, place] = [0, 0];
  for (let j = 0; j < sizes.length; j += 1) {
    const own = a[j] === b[j] ? 0 : Math.abs(a[j]! - b[j]!) / sizes[j]!;
    if (!(own <= part)) [part, place] = [own, j];
  }
  return { part, place };
}

/** The jump of one step; null where there is none, or where a smaller step cannot be done. */
function leapOf(at: RunState): Leap | null {
  const { run, grid, state, n } = at;
  const { size } = run.shape;
  const t = timeAt(grid, n);
  const full = grid.shorter !== null && n === grid.steps - 1 ? grid.shorter : grid.h;
  const after = (part: number): Float64Array => {
    const copy = state.slice();
    run.advance(copy, t, part * full, 0, 1);
    return copy;
  };
  const made = Array.from({ length: LOOKS }, (_, i) => after((i + 1) / LOOKS));
  const values = [state, ...made];
  const sizes = sizesOf(values, size);
  const changeOf = (one: Float64Array, other: Float64Array): number => change(one, other, sizes).part;
  const changes = values.slice(1).map((value, i) => changeOf(values[i]!, value));
  if (!changes.every((part) => Number.isFinite(part))) return null;
  // a multistep method need not begin at the present value
  const first = run.program.depth > 0 ? 1 : 0;
  const largest = changes.indexOf(Math.max(...changes.slice(first)), first);
  let [low, high] = [largest / LOOKS, (largest + 1) / LOOKS];
  let [before, behind] = [values[largest]!, values[largest + 1]!];
  for (let i = 0; i < HALVINGS; i += 1) {
    if (changeOf(before, behind) < LEAPS) return null;
    const middle = (low + high) / 2;
    const value = after(middle);
    const [left, right] = [changeOf(before, value), changeOf(value, behind)];
    if (!Number.isFinite(left) || !Number.isFinite(right)) return null;
    if (left > right) [high, behind] = [middle, value];
    else [low, before] = [middle, value];
  }
  const { part, place } = change(before, behind, sizes);
  if (part < LEAPS || low < MIN) return null;
  const component = componentName(run.problem, place);
  return { step: n + 1, t, h: high * full, component, from: before[place]!, to: behind[place]! };
}

/** Seconds that one elimination of the equations of a step takes, about. */
function solutionSeconds({ program, problem }: CompiledRun): number {
  const most = program.instructions.reduce(
    (most, one) => (one.kind === 'solve' ? Math.max(most, one.unknowns.length) : most),
    0,
  );
  return newtonCost(problem, most).elimination;
}

/** The first jump among the examined steps of a run. */
function firstLeap(run: CompiledRun, grid: Grid): Leap | null {
  const at = begin(run, grid);
  const every = Math.ceil(grid.steps / MAX_STEPS);
  for (let n = run.program.depth; n < grid.steps; n += every) {
    goTo(at, n);
    if (at.stopped !== null) return null;
    const found = leapOf(at);
    if (found !== null) return found;
  }
  return null;
}

/**
 * Finds the first jump of runs of a method; null where none is found, where the formula solves no equations, where
 * right-hand sides have kinks or jumps, which make a step jump by themselves, and for long runs.
 */
export function leapFinder(run: CompiledRun): (grid: Grid) => Leap | null {
  const solves = run.program.instructions.some(({ kind }) => kind === 'solve');
  const seconds = EVALUATIONS * rhsSeconds(run.problem) + SOLUTIONS * solutionSeconds(run);
  if (!solves || seconds > MAX_SECONDS || branchesOf(run.problem) !== null) return () => null;
  return (grid) => (grid.steps * run.shape.size > MAX_WORK ? null : firstLeap(run, grid));
}
