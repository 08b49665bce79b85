import type { CompiledRun } from './compile.ts';
import { type Grid, stepSizeAt, timeAt } from './grid.ts';
import { findTrouble, type Stop } from './trouble.ts';

/** Steps between two looks at whether the run is still within the numbers. */
const LOOK_EVERY = 64;

/** How a run ended: the values at the last grid point reached. */
export interface Outcome {
  readonly values: Float64Array;
  readonly t: number;
  /** Steps that were done. */
  readonly steps: number;
  /** Null where the run came to its end; otherwise where and why it left the numbers. */
  readonly stopped: Stop | null;
}

/** A run under way: its state at grid point n. */
export interface RunState {
  readonly run: CompiledRun;
  readonly grid: Grid;
  readonly state: Float64Array;
  n: number;
  stopped: Stop | null;
}

/** A run at its initial values. */
export function begin(run: CompiledRun, grid: Grid): RunState {
  return { run, grid, state: Float64Array.from(run.problem.initial), n: 0, stopped: null };
}

function finite(state: Float64Array): boolean {
  for (let j = 0; j < state.length; j += 1) if (!Number.isFinite(state[j]!)) return false;
  return true;
}

/** Steps on the grid; the caller sees to it that a shorter last step comes alone. */
function advance(at: RunState, count: number): void {
  const { run, grid, state, n } = at;
  if (grid.shorter !== null && n === grid.steps - 1) run.advance(state, timeAt(grid, n), grid.shorter, 0, 1);
  else run.advance(state, grid.start, grid.h, n, count);
}

/** Goes on to grid point `until`, or to where the run leaves the numbers; then `stopped` says why. */
export function goTo(at: RunState, until: number): void {
  const { grid, state } = at;
  const before = new Float64Array(state.length);
  const alike = grid.shorter === null ? grid.steps : grid.steps - 1;
  while (at.n < until && at.stopped === null) {
    const count = Math.min(LOOK_EVERY, until - at.n, at.n < alike ? alike - at.n : 1);
    before.set(state);
    advance(at, count);
    if (finite(state)) {
      at.n += count;
      continue;
    }
    state.set(before);
    stepUntilTrouble(at);
  }
}

/** One step after another up to the one that leaves the numbers; the state stays at the last good point. */
function stepUntilTrouble(at: RunState): void {
  const { run, grid, state } = at;
  const before = new Float64Array(state.length);
  for (;;) {
    before.set(state);
    advance(at, 1);
    if (!finite(state)) break;
    at.n += 1;
  }
  state.set(before);
  const t = timeAt(grid, at.n);
  const found = findTrouble(run, state, t, stepSizeAt(grid, at.n));
  at.stopped = {
    step: at.n + 1,
    t,
    stage: found?.stage ?? 'y[n+1]',
    why: found?.why ?? 'the new value is not a finite number',
  };
}

/** A whole run at once. */
export function integrate(run: CompiledRun, grid: Grid): Outcome {
  const at = begin(run, grid);
  goTo(at, grid.steps);
  return outcomeOf(at);
}

/** What a run has come to so far. */
export function outcomeOf(at: RunState): Outcome {
  return { values: at.state.slice(), t: timeAt(at.grid, at.n), steps: at.n, stopped: at.stopped };
}
