import { componentNames, type Problem } from '../problem/problem.ts';
import type { Comparison } from '../study/judge/comparison.ts';
import { evaluations } from '../study/runs/cost.ts';
import type { Fact } from '../study/findings/facts.ts';
import { leftOutText } from '../study/judge/left-out-text.ts';
import { knownRounding } from '../study/runs/measured-rounding.ts';
import type { OrderRange } from '../study/judge/order-range.ts';
import type { MethodResult, RungResult } from '../study/judge/method-result.ts';
import type { StudyResult } from '../study/study-result.ts';
import type { OrderFit } from '../study/judge/window.ts';

/** The numbers of a study as plain JSON, full doubles: what the terminal prints and other programs read. */
export interface StudyReport {
  readonly title: string;
  readonly methods: readonly MethodReport[];
  /** What errors are taken against, and how exact that is; null where nothing is known. */
  readonly reference: { readonly kind: string; readonly error: number } | null;
  readonly findings: readonly FindingReport[];
  readonly comparison: ComparisonReport | null;
}

/** A finding with the title of its method; null for the study as a whole. */
export type FindingReport = Fact & { readonly method: string | null; readonly sentence: string };

export interface MethodReport {
  readonly title: string;
  readonly rungs: readonly RungReport[];
  /** The slope of ln e over ln h by least squares, with its standard error. */
  readonly fit: Omit<OrderFit, 'constant'> | null;
  /** The order, as a range in which it lies, from the expansion of the error. */
  readonly order: OrderRange | null;
  /** The order that the formula has on a test system; null where none could be told. */
  readonly promised: number | null;
  /** Whether that was proved from the text, or found by trial. */
  readonly promisedBy: 'proof' | 'trial' | null;
  /** The leading term of the error, constant * h^order, where theory says it. */
  readonly predicted: { readonly order: number; readonly constant: number } | null;
}

export interface RungReport {
  readonly h: number;
  readonly steps: number;
  readonly divides: boolean;
  readonly t: number;
  /** Numbers, of runs in decimals texts with all digits. */
  readonly values: Readonly<Record<string, number | string>>;
  readonly error: number | null;
  readonly ratio: number | null;
  readonly order: number | null;
  readonly digits: number | null;
  readonly places: number | null;
  /** The time at which the error is taken; null for a maximum or mean over the grid. */
  readonly errorAt: number | null;
  /** Size of rounding in the error, as runs with other rounding show it; null where it was not measured. */
  readonly rounding: number | null;
  /** Why the rung does not count for the slope; null where it does. */
  readonly leftOut: string | null;
  readonly remark: string | null;
  /** Order, values and estimated error from this rung and the two before it, without any exact solution. */
  readonly extrapolated: {
    readonly order: number;
    readonly values: Readonly<Record<string, number>>;
    readonly error: number;
  } | null;
  readonly cost: {
    readonly evaluations: number;
    readonly f: number;
    readonly derivatives: readonly number[];
    readonly newton: number;
    readonly seconds: number;
  };
  /** How far each conserved quantity has moved from its value at the start. */
  readonly drift: Readonly<Record<string, number>>;
  readonly stopped: {
    readonly step: number;
    readonly t: number;
    readonly stage: string;
    readonly why: string;
  } | null;
}

export interface ComparisonReport {
  readonly wished: number;
  readonly needs: readonly {
    readonly method: string;
    readonly h: number;
    readonly steps: number;
    readonly evaluations: number;
    /** Its coarsest rung is as good already: it needs no more than that costs. */
    readonly atMost: boolean;
  }[];
  readonly short: readonly string[];
  readonly equalStep: { readonly h: number; readonly errors: readonly MethodError[] } | null;
  readonly equalCost: { readonly evaluations: number; readonly errors: readonly MethodError[] } | null;
}

interface MethodError {
  readonly method: string;
  readonly error: number;
}

function rungReport(rung: RungResult, names: readonly string[]): RungReport {
  const { h, steps, divides, t, error, ratio, order, stopped, drift, digits, places, remark, cost } = rung;
  const named = <V extends number | string>(list: readonly V[]): Readonly<Record<string, V>> =>
    Object.fromEntries(list.map((value, j) => [names[j] ?? '', value]));
  const { extrapolated, leftOut, taken, rounding } = rung;
  return {
    h,
    steps,
    divides,
    t,
    values: rung.decimals === null ? named(rung.values) : named(rung.decimals),
    error,
    ratio,
    order,
    digits,
    places,
    errorAt: taken?.t ?? null,
    rounding: knownRounding(rounding),
    leftOut: leftOut && leftOutText(leftOut),
    remark,
    extrapolated: extrapolated && { ...extrapolated, values: named(extrapolated.values) },
    cost: { evaluations: evaluations(cost), ...cost },
    drift,
    stopped,
  };
}

function methodReport(method: MethodResult, names: readonly string[]): MethodReport {
  const { title, rungs, fit, promised, predicted, order } = method;
  return {
    title,
    rungs: rungs.map((rung) => rungReport(rung, names)),
    fit: fit && {
      order: fit.order,
      standardError: fit.standardError,
      from: fit.from,
      to: fit.to,
      rungs: fit.rungs,
      by: fit.by,
    },
    order,
    promised: promised.kind === 'order' ? promised.order : null,
    promisedBy: promised.kind === 'order' ? promised.by : null,
    predicted: predicted && { order: predicted.order, constant: predicted.constant },
  };
}

function comparisonReport(
  { wished, needs, short, equalStep, equalCost }: Comparison,
  title: (method: number) => string,
): ComparisonReport {
  const named = (errors: readonly { readonly method: number; readonly error: number }[]): MethodError[] =>
    errors.map(({ method, error }) => ({ method: title(method), error }));
  return {
    wished,
    needs: needs.map((need) => ({ ...need, method: title(need.method) })),
    short: short.map(title),
    equalStep: equalStep && { h: equalStep.h, errors: named(equalStep.errors) },
    equalCost: equalCost && { evaluations: equalCost.evaluations, errors: named(equalCost.errors) },
  };
}

/**
 * The numbers of a study as plain JSON: components by name, methods by title, everything else as the study has it.
 *
 * @example studyReport('Sluice', problem, result).title // 'Sluice'
 */
export function studyReport(title: string, problem: Problem, result: StudyResult): StudyReport {
  const names = componentNames(problem);
  const titleOf = (method: number): string => result.methods[method]?.title ?? '';
  return {
    title,
    methods: result.methods.map((method) => methodReport(method, names)),
    reference: result.truth && { kind: result.truth.kind, error: result.truth.error },
    findings: result.findings.map((finding) => ({
      ...finding,
      method: finding.method === null ? null : titleOf(finding.method),
    })),
    comparison: result.comparison && comparisonReport(result.comparison, titleOf),
  };
}
