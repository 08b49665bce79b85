import { attempt } from '../../text/refusal.ts';
import { hasExact } from '../../problem/problem.ts';
import { seconds } from '../../run/clock.ts';
import { compileWithStart, type StartChoice } from '../../compile/compile-with-start.ts';
import type { CompiledRun } from '../../compile/compile.ts';
import { type ConservedQuantity, conservedQuantities, drift } from '../../run/conserved.ts';
import { decimalText } from '../../decimal/decimal-text.ts';
import { decimalDigits } from '../../compile/precision.ts';
import { conservedInDecimals } from '../../run/decimal-conserved.ts';
import { type DecimalState, decimalTime, onGrid } from '../../run/decimal-state.ts';
import { type Grid, timeAt } from '../../run/grid.ts';
import { begin, copyOf, goTo, newtonWork, outcomeOf, type RunState } from '../../run/integrate.ts';
import { travel } from '../../run/long-run.ts';
import type { Stop } from '../../run/non-finite.ts';
import { type Cost, costOf } from './cost.ts';
import { type Errors, errorOfRun, errorsOf, pointDigits, type RunError } from './error-measure.ts';
import type { Rung } from './ladder.ts';
import { type Leap, leapFinder } from './leap.ts';
import { measuredRounding, type Rounding, type RoundingCase } from './measured-rounding.ts';
import { expectedOrder } from '../trial/trial-order.ts';
import { precisionOf, startOf, startsFromSolution, type Study, type StudyMethod } from './study.ts';
import { decimalTruthOf, placesOf, truthOf, wrongPlace } from './truth.ts';

/** What came of one method at one step size, before it is compared with other rungs. */
export interface RungRun {
  /** Which rung of the ladder this is, from 0. */
  readonly rung: number;
  readonly h: number;
  /** The step size that was asked for. */
  readonly wished: number;
  readonly steps: number;
  readonly divides: boolean;
  /** Size of a last step that is shorter; null where all are alike. */
  readonly shorter: number | null;
  /** The time that was reached. */
  readonly t: number;
  readonly values: readonly number[];
  /** The same with all digits, of a run in decimals; null of another. */
  readonly decimals: readonly string[] | null;
  /** The error, where and how it was taken; null where there is none. */
  readonly taken: RunError | null;
  /** What rounding is known to have done to that error; null where nothing is. */
  readonly rounding: Rounding | null;
  /** The error at the end of the interval, where the run went past it and the error was taken there. */
  readonly errorAtEnd: number | null;
  /** How far each conserved quantity is from its value at the start, by name. */
  readonly drift: Readonly<Record<string, number>>;
  readonly stopped: Stop | null;
  /** Times that Newton's method failed by itself and converged damped. */
  readonly damped: number;
  /** The first step found that Newton's method solved otherwise than by what grows out of the values before. */
  readonly leap: Leap | null;
  readonly cost: Cost;
}

/** What came of one method over the whole ladder. */
export interface MethodRun {
  readonly title: string;
  readonly rungs: readonly RungRun[];
  /** Why the method cannot be used for this problem; null where it can. */
  readonly refused: string | null;
}

/** A progress report of a method under way: steps that were done since the last one, and a rung when it is finished. */
export interface MethodProgress {
  readonly steps: number;
  readonly finished: RungRun | null;
}

/** The last time that any rung of a study reaches. */
export function latestTime(study: Study, rungs: readonly Rung[]): number {
  return rungs.reduce(
    (latest, rung) => (rung.ok ? Math.max(latest, timeAt(rung.grid, rung.grid.steps)) : latest),
    study.problem.end,
  );
}

/** What is said of a method in which the program itself failed; the other methods of a study go on. */
export function programFault(thrown: unknown): string {
  return `internal error: ${thrown instanceof Error ? thrown.message : String(thrown)}`;
}

/** The runs of a method that could not be run at all. */
export function refusedRun(title: string, rungs: readonly Rung[], why: string): MethodRun {
  const laid = rungs.flatMap((rung, i) => (rung.ok ? [notRun(i, rung.grid, why)] : []));
  return { title, rungs: laid, refused: why };
}

/** A rung on which a method cannot be run at all. */
function notRun(rung: number, grid: Grid, why: string): RungRun {
  const { h, wished, steps, divides, start, shorter } = grid;
  return {
    rung,
    h,
    wished,
    steps,
    divides,
    shorter,
    t: start,
    values: [],
    decimals: null,
    taken: null,
    rounding: null,
    errorAtEnd: null,
    drift: {},
    stopped: { step: 0, t: start, stage: 'start', why },
    damped: 0,
    leap: null,
    cost: { f: 0, derivatives: [], newton: 0, seconds: 0 },
  };
}

/** The error at the end of the interval of a run that goes past it: its last step once more, made to end there. */
function errorAtEnd(beforeLast: RunState, study: Study, errors: Errors): number | null {
  const { grid } = beforeLast;
  const { end } = study.problem;
  const shorter = end - timeAt(grid, grid.steps - 1);
  const shortened = { ...grid, shorter };
  const copy = copyOf(beforeLast);
  const decimals = copy.decimals && onGrid(copy.decimals, shortened);
  const at: RunState = { ...copy, grid: shortened, decimals };
  goTo(at, grid.steps);
  return at.stopped === null ? errors.at(end, at.state, pointDigits(at)).error : null;
}

/** What the runs of one method at all step sizes have in common. */
interface MethodCase {
  readonly study: Study;
  readonly run: CompiledRun;
  /** Null where nothing is known to compare with. */
  readonly errors: Errors | null;
  /** The order of the method, where the error is taken at a time and it is known. */
  readonly order: number | null;
  readonly quantities: readonly ConservedQuantity[];
  readonly leapOf: (grid: Grid) => Leap | null;
}

function* runRung(
  { study, run, errors, order, quantities, leapOf }: MethodCase,
  { rung, grid }: { readonly rung: number; readonly grid: Grid },
): Generator<MethodProgress, RungRun> {
  const begun = attempt(() => begin(run, grid));
  if (!begun.ok) return notRun(rung, grid, begun.refusal.message);
  const at = begun.value;
  const from = seconds();
  let atEnd: number | null = null;
  if (errors !== null && study.error.at === 'end' && overruns(grid, study) && run.program.depth === 0) {
    yield* signs(travel(at, grid.steps - 1));
    if (at.stopped === null) atEnd = errorAtEnd(at, study, errors);
  }
  const taken = yield* signs(
    errors === null
      ? toTheEnd(at)
      : errorOfRun(at, { problem: study.problem, errors, choice: study.error, order }),
  );
  const cost = costOf(at, seconds() - from);
  const { values, t, stopped } = outcomeOf(at);
  return {
    rung,
    h: grid.h,
    wished: grid.wished,
    steps: grid.steps,
    divides: grid.divides,
    shorter: grid.shorter,
    t,
    values: Array.from(values),
    decimals: at.decimals === null ? null : at.decimals.values.slice(0, values.length).map(decimalText),
    taken,
    rounding: null,
    errorAtEnd: atEnd,
    drift:
      at.decimals === null ? drift(study.problem, quantities, t, values) : driftInDecimals(at, at.decimals),
    stopped,
    damped: newtonWork(at).damped,
    leap: leapOf(grid),
    cost,
  };
}

/** How far each conserved quantity of a run in decimals is from its value at the start, with more digits than it has. */
function driftInDecimals({ run: { problem, shape }, n }: RunState, own: DecimalState): RungRun['drift'] {
  const { decimals, numbers } = own.loop;
  const conserved = conservedInDecimals(problem, decimals);
  const last = conserved(decimalTime(own, decimals, n), own.values.slice(0, shape.size));
  const first = conserved(numbers.start, numbers.initial);
  return Object.fromEntries(
    problem.conserved.map(({ name }, i) => [name, last[i]!.minus(first[i]!).toNumber()]),
  );
}

/** Whether the last grid point lies past the end of the interval. */
function overruns(grid: Grid, { problem }: Study): boolean {
  return !grid.divides && timeAt(grid, grid.steps) > problem.end;
}

/** Steps that were done, as progress reports. */
function* signs<T>(work: Generator<number, T>): Generator<MethodProgress, T> {
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    yield { steps: next.value, finished: null };
  }
}

/** Work beside the steps that were asked for: progress reports that count none. */
function* quietly<T>(work: Generator<number, T>): Generator<number, T> {
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    yield 0;
  }
}

/** A run with nothing to compare it with. */
function* toTheEnd(at: RunState): Generator<number, null> {
  yield* travel(at, at.grid.steps);
  return null;
}

/** How starting values are computed; exact values come from the reference where no exact solution is given. */
function startingChoice(study: Study, method: StudyMethod, rungs: readonly Rung[]): StartChoice {
  const { problem } = study;
  const start = startOf(study, method);
  const isExact = startsFromSolution(study);
  if (!isExact || hasExact(problem)) return isExact ? { ...start, instead: 'exact' } : start;
  const places = Array.from({ length: problem.size }, (_, place) => place);
  const solution = (t: number, state: Float64Array): void => {
    const truth = truthOf(problem, places, latestTime(study, rungs));
    for (const place of places) state[place] = truth.value(place, t);
  };
  const digits = decimalDigits(precisionOf(study, method));
  const wide = digits === null ? null : decimalTruthOf(problem, places, latestTime(study, rungs), digits);
  return { ...start, instead: 'exact', solution, ...(wide === null ? {} : { inDecimals: wide.value }) };
}

/** A method made ready to run: what its runs have in common, and what their rounding is measured with. */
interface Prepared {
  readonly common: MethodCase;
  /** Null where there is no error whose rounding matters. */
  readonly rounding: RoundingCase | null;
}

/** @throws Refusal where the method cannot be used for the problem */
function prepare(study: Study, rungs: readonly Rung[], chosen: StudyMethod): Prepared {
  const { problem, error } = study;
  const { method } = chosen;
  const places = placesOf(problem, error.of);
  const truth =
    'message' in places || wrongPlace(problem, error) !== null
      ? null
      : truthOf(problem, places, latestTime(study, rungs));
  const start = startingChoice(study, chosen, rungs);
  const digits = decimalDigits(precisionOf(study, chosen));
  const run = compileWithStart(problem, method, start);
  const wide =
    truth === null || 'message' in places || digits === null
      ? null
      : decimalTruthOf(problem, places, latestTime(study, rungs), digits);
  const errors =
    truth === null || 'message' in places
      ? null
      : errorsOf(problem, truth, places, { choice: error, inDecimals: wide });
  // a jump is looked for in doubles, where trying a step again and again takes no time
  const twin = digits === null ? run : compileWithStart(problem, method, { ...start, precision: 'double' });
  const promised = typeof error.at === 'object' ? expectedOrder(method, problem) : null;
  const order = promised?.kind === 'order' ? promised.order : null;
  const quantities = conservedQuantities(problem);
  return {
    common: { study, run, errors, order, quantities, leapOf: leapFinder(twin) },
    rounding:
      errors === null || truth === null || 'message' in places
        ? null
        : { study, truth, method, start, errors, places, order, precision: precisionOf(study, chosen) },
  };
}

/** The rungs that have a grid, with their places in the ladder. */
function laidRungs(rungs: readonly Rung[]): readonly { readonly rung: number; readonly grid: Grid }[] {
  return rungs.flatMap((rung, i) => (rung.ok ? [{ rung: i, grid: rung.grid }] : []));
}

function* runsOf(
  { common }: Prepared,
  rungs: readonly Rung[],
  wanted: (rung: number) => boolean,
): Generator<MethodProgress, readonly RungRun[]> {
  const results: RungRun[] = [];
  for (const one of laidRungs(rungs)) {
    if (!wanted(one.rung)) continue;
    const result = yield* runRung(common, one);
    results.push(result);
    yield { steps: 0, finished: result };
  }
  return results;
}

function* withRounding(
  { rounding }: Prepared,
  rungs: readonly Rung[],
  results: readonly RungRun[],
): Generator<MethodProgress, readonly RungRun[]> {
  if (rounding === null) return results;
  const laid = new Map(laidRungs(rungs).map(({ rung, grid }) => [rung, grid]));
  const measured = results.flatMap((result) => {
    const grid = laid.get(result.rung);
    return grid === undefined ? [] : [{ ...result, grid }];
  });
  const found = yield* signs(quietly(measuredRounding(rounding, measured)));
  return results.map((result, i) => ({ ...result, rounding: found[i] ?? null }));
}

/**
 * Runs one method of a study at some rungs of its ladder, without the rounding of their errors, which is measured over all of
 * them; the caller may stop at every yield.
 *
 * @param wanted places of rungs in the ladder
 * @throws Refusal where the method cannot be used for the problem
 */
export function* rungSteps(
  study: Study,
  rungs: readonly Rung[],
  named: StudyMethod,
  wanted: readonly number[],
): Generator<MethodProgress, readonly RungRun[]> {
  const chosen = new Set(wanted);
  return yield* runsOf(prepare(study, rungs, named), rungs, (rung) => chosen.has(rung));
}

/**
 * Completes the runs of one method that `rungSteps` has made piece by piece: measures rounding in their errors.
 *
 * @param results at all rungs that have a grid, in the order of the ladder
 * @throws Refusal where the method cannot be used for the problem
 */
export function* roundingSteps(
  study: Study,
  rungs: readonly Rung[],
  named: StudyMethod,
  results: readonly RungRun[],
): Generator<MethodProgress, MethodRun> {
  const measured = yield* withRounding(prepare(study, rungs, named), rungs, results);
  return { title: named.title, rungs: measured, refused: null };
}

/**
 * Runs one method of a study over all rungs of its ladder; the caller may stop at every yield.
 *
 * @throws Refusal where the method cannot be used for the problem
 */
export function* methodSteps(
  study: Study,
  rungs: readonly Rung[],
  named: StudyMethod,
): Generator<MethodProgress, MethodRun> {
  const prepared = prepare(study, rungs, named);
  const results = yield* runsOf(prepared, rungs, () => true);
  return { title: named.title, rungs: yield* withRounding(prepared, rungs, results), refused: null };
}
