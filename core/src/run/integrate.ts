import { Refusal } from '../text/refusal.ts';
import type { CompiledRun } from '../compile/compile.ts';
import { exactSolution } from './exact-solution.ts';
import { type Grid, stepSizeAt, timeAt } from './grid.ts';
import { rightHandSidesOf } from '../compile/right-hand-sides.ts';
import { CHECK_EVERY } from '../compile/check-interval.ts';
import { NEWTON } from '../program/state.ts';
import { findNonFinite, type Stop } from './non-finite.ts';

/** How a run ended: the values at the last grid point reached. */
export interface Outcome {
  readonly values: Float64Array;
  readonly t: number;
  /** Steps that were done. */
  readonly steps: number;
  /** Null where the run came to its end; otherwise where and why it became non-finite. */
  readonly stopped: Stop | null;
}

/** A run under way: its state at grid point n. */
export interface RunState {
  readonly run: CompiledRun;
  readonly grid: Grid;
  /** The state of the problem in front, then what the run keeps. */
  readonly state: Float64Array;
  /** The starting method under way, while those are being done. */
  readonly starter: RunState | null;
  n: number;
  stopped: Stop | null;
}

/**
 * A run at its initial values.
 *
 * @throws Refusal where the grid does not suit the method: fewer steps than a multistep method needs, or a
 *   shorter last step for a multistep method
 * @example begin(run, grid).n // 0
 */
export function begin(run: CompiledRun, grid: Grid): RunState {
  const { depth } = run.program;
  if (depth > 0 && grid.steps < depth)
    throw new Refusal('grid', `this method uses ${depth} earlier steps, and the grid has ${grid.steps}`);
  if (depth > 0 && grid.shorter !== null)
    throw new Refusal(
      'grid',
      'a multistep method needs a constant step size; the last step cannot be shortened',
    );
  const state = new Float64Array(run.shape.length);
  state.set(run.problem.initial);
  const starter = run.start?.kind === 'method' ? begin(run.start.run, grid) : null;
  return { run, grid, state, starter, n: 0, stopped: null };
}

/** A copy of a run under way, to go on from the same point later. */
export function copyOf(at: RunState): RunState {
  return { ...at, state: at.state.slice(), starter: at.starter === null ? null : copyOf(at.starter) };
}

function finite(state: Float64Array, size: number): boolean {
  for (let j = 0; j < size; j += 1) if (!Number.isFinite(state[j]!)) return false;
  return true;
}

/** Steps on the grid; the caller sees to it that a shorter last step comes alone. */
function advance(at: RunState, count: number): void {
  const { run, grid, state, n } = at;
  if (grid.shorter !== null && n === grid.steps - 1) run.advance(state, timeAt(grid, n), grid.shorter, 0, 1);
  else run.advance(state, grid.start, grid.h, n, count);
}

/** Goes on to grid point `until`, or to where the run becomes non-finite; then `stopped` says why. */
export function goTo(at: RunState, until: number): void {
  const { run, grid, state } = at;
  const before = new Float64Array(state.length);
  const alike = grid.shorter === null ? grid.steps : grid.steps - 1;
  while (at.n < until && at.stopped === null) {
    if (at.n < run.program.depth) {
      startStep(at);
      continue;
    }
    const count = Math.min(run.atOnce, until - at.n, at.n < alike ? alike - at.n : 1);
    before.set(state);
    advance(at, count);
    if (finite(state, run.shape.size)) {
      at.n += count;
      continue;
    }
    state.set(before);
    stepUntilNonFinite(at);
  }
}

/** A value and the grid point at which it was taken. */
export interface Sample {
  readonly n: number;
  readonly value: number;
}

/**
 * Goes on to a grid point and tells, for each of the first components, the smallest and the largest value on the
 * way, in the order in which they were met; one sample where they are the same.
 */
export function watchTo(at: RunState, until: number, count: number): readonly (readonly Sample[])[] {
  const { run, grid, state } = at;
  const low = Array.from({ length: count }, (): Sample => ({ n: at.n, value: Infinity }));
  const high = Array.from({ length: count }, (): Sample => ({ n: at.n, value: -Infinity }));
  const note = (j: number, n: number, value: number): void => {
    if (value < low[j]!.value) low[j] = { n, value };
    if (value > high[j]!.value) high[j] = { n, value };
  };
  const alike = grid.shorter === null ? grid.steps : grid.steps - 1;
  const before = new Float64Array(state.length);
  const out = new Float64Array(4 * run.shape.size);
  // a block that becomes non-finite is done again step by step, so that what it had seen before is not lost
  let isLeaving = false;
  while (at.n < until && at.stopped === null) {
    const block = Math.min(CHECK_EVERY, until - at.n, alike - at.n);
    if (isLeaving || run.watch === null || block < 2 || at.n < run.program.depth) {
      const n = at.n;
      goTo(at, n + 1);
      if (at.n > n) for (let j = 0; j < count; j += 1) note(j, at.n, state[j]!);
      continue;
    }
    before.set(state);
    run.watch(state, grid.start, grid.h, at.n, block, out);
    if (!finite(state, run.shape.size)) {
      state.set(before);
      isLeaving = true;
      continue;
    }
    at.n += block;
    for (let j = 0; j < count; j += 1) {
      note(j, out[4 * j + 1]!, out[4 * j]!);
      note(j, out[4 * j + 3]!, out[4 * j + 2]!);
    }
  }
  return low.map((least, j) => {
    const most = high[j]!;
    if (!Number.isFinite(least.value)) return [];
    if (least.n === most.n) return [least];
    return least.n < most.n ? [least, most] : [most, least];
  });
}

/** One of the starting steps of a multistep method: values and right-hand sides are kept for it. */
function startStep(at: RunState): void {
  const { run, grid, state, starter } = at;
  const { shape, program, layout } = run;
  const past = state.slice(0, shape.size);
  const t = timeAt(grid, at.n);
  if (starter === null) {
    const next = timeAt(grid, at.n + 1);
    const solution = run.start?.kind === 'exact' ? run.start.solution : null;
    if (solution === null) {
      const exact = exactSolution(run.problem);
      for (let j = 0; j < shape.size; j += 1) state[j] = exact.value(j, next);
    } else solution(next, state);
  } else {
    goTo(starter, at.n + 1);
    if (starter.stopped !== null) {
      at.stopped = starter.stopped;
      return;
    }
    state.set(starter.state.subarray(0, shape.size));
  }
  const rightHandSides = program.presentRhs === null ? null : rightHandSidesOf(run)(t, past);
  for (let k = program.kept.length - 1; k >= 0; k -= 1) {
    const { of, back } = program.kept[k]!;
    const to = shape.kept + k * shape.width;
    if (back > 1) state.copyWithin(to, to - shape.width, to);
    else if (of === 'f') state.set(rightHandSides ?? [], to);
    else (layout.places[of === 'v' ? 1 : 0] ?? []).forEach((place, j) => (state[to + j] = past[place]!));
  }
  if (!finite(state, shape.size)) {
    at.stopped = { step: at.n + 1, t, stage: 'start', why: 'the exact solution is not finite there' };
    return;
  }
  at.n += 1;
}

/** One step after another up to the first non-finite one; the state stays at the last good point. */
function stepUntilNonFinite(at: RunState): void {
  const { run, grid, state } = at;
  const before = new Float64Array(state.length);
  for (;;) {
    before.set(state);
    advance(at, 1);
    if (!finite(state, run.shape.size)) break;
    at.n += 1;
  }
  const t = timeAt(grid, at.n);
  const isShorter = stepSizeAt(grid, at.n) !== grid.h;
  const found = findNonFinite(run, before, state, {
    origin: isShorter ? t : grid.start,
    n: isShorter ? 0 : at.n,
    h: stepSizeAt(grid, at.n),
  });
  state.set(before);
  at.stopped = {
    step: at.n + 1,
    t,
    stage: found?.stage ?? 'y[n+1]',
    why: found?.why ?? 'the new value is not a finite number',
  };
}

/**
 * A whole run at once.
 *
 * @returns the values at the last grid point reached, one per component, and where the run became non-finite if it did
 * @throws Refusal as `begin`
 * @example integrate(compileRun(problem, method), layGrid(0, 6, { steps: 12 })).values
 */
export function integrate(run: CompiledRun, grid: Grid): Outcome {
  const at = begin(run, grid);
  goTo(at, grid.steps);
  return outcomeOf(at);
}

/** What a run has come to so far. */
export function outcomeOf(at: RunState): Outcome {
  return {
    values: at.state.slice(0, at.run.shape.size),
    t: timeAt(at.grid, at.n),
    steps: at.n,
    stopped: at.stopped,
  };
}

/** What Newton's method has needed so far, in the starting steps, too. */
export interface NewtonWork {
  readonly iterations: number;
  /** Times that its iterations failed and had to be begun again, damped. */
  readonly damped: number;
}

export function newtonWork({ state, run: { shape }, starter }: RunState): NewtonWork {
  const before = starter === null ? { iterations: 0, damped: 0 } : newtonWork(starter);
  return {
    iterations: before.iterations + (state[shape.newton + NEWTON.iterations] ?? 0),
    damped: before.damped + (state[shape.newton + NEWTON.damped] ?? 0),
  };
}
