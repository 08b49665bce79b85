import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import { compileRun } from '../run/compile.ts';
import { conservedQuantities, drift } from '../run/conserved.ts';
import type { LastStep } from '../run/grid.ts';
import { begin, outcomeOf } from '../run/integrate.ts';
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
}

export interface StudyResult {
  readonly rungs: readonly Rung[];
  readonly methods: readonly MethodResult[];
  /** Things that could not be done, in words: a rung with no step size, a component that is not there. */
  readonly problems: readonly string[];
}

/** Runs one method over all rungs of a ladder. */
function runMethod(
  study: Study,
  rungs: readonly Rung[],
  title: string,
  method: Method,
  error: ReturnType<typeof pointError>,
): MethodResult {
  const run = compileRun(study.problem, method);
  const quantities = conservedQuantities(study.problem);
  const results: RungResult[] = [];
  for (const rung of rungs) {
    if (!rung.ok) continue;
    const { grid } = rung;
    const at = begin(run, grid);
    const e = errorOfRun(at, 'message' in error ? () => null : error, study.error);
    const { values, t, stopped } = outcomeOf(at);
    const before = results.at(-1);
    results.push({
      h: grid.h,
      wished: grid.wished,
      steps: grid.steps,
      divides: grid.divides,
      t,
      values: Array.from(values),
      error: e,
      ratio: before === undefined ? null : errorRatio(before.error, e),
      order: before === undefined ? null : observedOrder(before.h, before.error, grid.h, e),
      drift: drift(study.problem, quantities, t, values),
      stopped,
    });
  }
  const scale = study.error.scale === 'relative' ? () => 1 : (r: RungResult) => Math.hypot(...r.values);
  const fit = fitOrder(results.map((r) => ({ h: r.h, error: r.error, scale: scale(r) })));
  return { title, rungs: results, fit };
}

/** Runs a whole study, one method after another; between methods the caller may stop pulling. */
export function* studyByMethod(study: Study): Generator<MethodResult, StudyResult> {
  const { problem, ladder, lastStep } = study;
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  const error = pointError(problem, study.error);
  const methods: MethodResult[] = [];
  for (const { title, method } of study.methods) {
    const result = runMethod(study, rungs, title, method, error);
    methods.push(result);
    yield result;
  }
  const problems = [
    ...rungs.flatMap((rung) => (rung.ok ? [] : [`${rung.written}: ${rung.message}`])),
    ...('message' in error ? [error.message] : []),
  ];
  return { rungs, methods, problems };
}

/** Runs a whole study at once. */
export function runStudy(study: Study): StudyResult {
  const work = studyByMethod(study);
  for (;;) {
    const { done, value } = work.next();
    if (done === true) return value;
  }
}
