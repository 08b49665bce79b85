import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import { compileWithStart, type StartChoice } from '../run/compile-with-start.ts';
import type { CompiledRun } from '../run/compile.ts';
import { type ConservedQuantity, conservedQuantities, drift } from '../run/conserved.ts';
import type { Grid, LastStep } from '../run/grid.ts';
import { begin, outcomeOf, type RunState } from '../run/integrate.ts';
import type { Stop } from '../run/trouble.ts';
import { type ErrorChoice, errorOfRun, pointError } from './error-measure.ts';
import { fitOrder, type OrderFit } from './fit.ts';
import { type Ladder, layLadder, type Rung } from './ladder.ts';
import { errorRatio, observedOrder } from './order.ts';

/** A study with all texts read: one problem, some methods, one ladder, one way to measure the error. */
export interface Study {
  readonly problem: Problem;
  readonly methods: readonly { readonly title: string; readonly method: Method }[];
  readonly ladder: Ladder;
  readonly lastStep: LastStep;
  readonly error: ErrorChoice;
  readonly start: StartChoice;
}

/** What came of one method at one step size. */
export interface RungResult {
  readonly h: number;
  /** The step size that was asked for. */
  readonly wished: number;
  readonly steps: number;
  readonly divides: boolean;
  /** The time that was reached. */
  readonly t: number;
  readonly values: readonly number[];
  readonly error: number | null;
  readonly ratio: number | null;
  readonly order: number | null;
  /** How far each conserved quantity is from its value at the start, by name. */
  readonly drift: Readonly<Record<string, number>>;
  readonly stopped: Stop | null;
}

export interface MethodResult {
  readonly title: string;
  readonly rungs: readonly RungResult[];
  readonly fit: OrderFit | null;
  /** Why the method cannot be used for this problem; null where it can. */
  readonly refused: string | null;
}

export interface StudyResult {
  readonly rungs: readonly Rung[];
  readonly methods: readonly MethodResult[];
  /** Things that could not be done, in words: a rung with no step size, a component that is not there. */
  readonly problems: readonly string[];
}

/** A sign of life of a study under way: which method it is at, and the part of all steps that is done. */
export interface Progress {
  readonly method: number;
  readonly part: number;
}

/** Runs one method over all rungs of a ladder; yields the steps that were done. */
function* runMethod(
  study: Study,
  rungs: readonly Rung[],
  title: string,
  method: Method,
  error: ReturnType<typeof pointError>,
): Generator<number, MethodResult> {
  let run: CompiledRun;
  try {
    run = compileWithStart(study.problem, method, study.start);
  } catch (thrown) {
    if (!(thrown instanceof RangeError)) throw thrown;
    return {
      title,
      rungs: rungs.flatMap((rung) => (rung.ok ? [notRun(rung.grid, thrown.message)] : [])),
      fit: null,
      refused: thrown.message,
    };
  }
  const quantities = conservedQuantities(study.problem);
  const results: RungResult[] = [];
  for (const rung of rungs) {
    if (!rung.ok) continue;
    const result = yield* runRung(study, run, rung.grid, error, quantities);
    const before = results.at(-1);
    results.push({
      ...result,
      ratio: before === undefined ? null : errorRatio(before.error, result.error),
      order: before === undefined ? null : observedOrder(before.h, before.error, result.h, result.error),
    });
  }
  const scale =
    study.error.scale === 'relative' ? () => 1 : (r: RungResult) => Math.hypot(...r.values.slice(0, 1000));
  const fit = fitOrder(results.map((r) => ({ h: r.h, error: r.error, scale: scale(r) })));
  return { title, rungs: results, fit, refused: null };
}

/** A rung on which a method cannot be run at all. */
function notRun(grid: Grid, why: string): RungResult {
  const { h, wished, steps, divides, start } = grid;
  const stopped = { step: 0, t: start, stage: 'start', why };
  return {
    h,
    wished,
    steps,
    divides,
    t: start,
    values: [],
    error: null,
    ratio: null,
    order: null,
    drift: {},
    stopped,
  };
}

function* runRung(
  study: Study,
  run: CompiledRun,
  grid: Grid,
  error: ReturnType<typeof pointError>,
  quantities: readonly ConservedQuantity[],
): Generator<number, RungResult> {
  let at: RunState;
  try {
    at = begin(run, grid);
  } catch (thrown) {
    if (thrown instanceof RangeError) return notRun(grid, thrown.message);
    throw thrown;
  }
  const e = yield* errorOfRun(at, 'message' in error ? () => null : error, study.error);
  const { values, t, stopped } = outcomeOf(at);
  return {
    h: grid.h,
    wished: grid.wished,
    steps: grid.steps,
    divides: grid.divides,
    t,
    values: Array.from(values),
    error: e,
    ratio: null,
    order: null,
    drift: drift(study.problem, quantities, t, values),
    stopped,
  };
}

/** Runs a whole study, one method after another; whoever pulls may stop at every sign of life. */
export function* studySteps(study: Study): Generator<Progress, StudyResult> {
  const { problem, ladder, lastStep } = study;
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  const error = pointError(problem, study.error);
  const steps = rungs.reduce((sum, rung) => sum + (rung.ok ? rung.grid.steps : 0), 0);
  const all = Math.max(1, steps * study.methods.length);
  const methods: MethodResult[] = [];
  for (const [i, { title, method }] of study.methods.entries()) {
    const work = runMethod(study, rungs, title, method, error);
    let done = 0;
    let next = work.next();
    while (next.done !== true) {
      done += next.value;
      yield { method: i, part: Math.min(1, (i * steps + done) / all) };
      next = work.next();
    }
    methods.push(next.value);
  }
  const problems = [
    ...rungs.flatMap((rung) => (rung.ok ? [] : [`${rung.written}: ${rung.message}`])),
    ...('message' in error ? [error.message] : []),
  ];
  return { rungs, methods, problems };
}

/** Pulls a piece of work to its end. */
export function finish<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done === true) return value;
  }
}

/** Runs a whole study at once. */
export function runStudy(study: Study): StudyResult {
  return finish(studySteps(study));
}
