import { componentNames, type Problem } from '../problem/problem.ts';
import type { RungResult, StudyResult } from './study.ts';

/** The numbers of a study as plain JSON, full doubles: what the terminal prints and other programs read. */
export interface StudyReport {
  readonly title: string;
  readonly methods: readonly MethodReport[];
}

export interface MethodReport {
  readonly title: string;
  readonly rungs: readonly RungReport[];
  readonly fit: { readonly order: number; readonly from: number; readonly to: number } | null;
}

export interface RungReport {
  readonly h: number;
  readonly steps: number;
  readonly divides: boolean;
  readonly t: number;
  readonly values: Readonly<Record<string, number>>;
  readonly error: number | null;
  readonly ratio: number | null;
  readonly order: number | null;
  /** How far each conserved quantity has moved from its value at the start. */
  readonly drift: Readonly<Record<string, number>>;
  readonly stopped: {
    readonly step: number;
    readonly t: number;
    readonly stage: string;
    readonly why: string;
  } | null;
}

function rungReport(rung: RungResult, names: readonly string[]): RungReport {
  const { h, steps, divides, t, error, ratio, order, stopped, drift } = rung;
  const values = Object.fromEntries(names.map((name, j) => [name, rung.values[j] ?? NaN]));
  return { h, steps, divides, t, values, error, ratio, order, drift, stopped };
}

export function studyReport(title: string, problem: Problem, result: StudyResult): StudyReport {
  const names = componentNames(problem);
  return {
    title,
    methods: result.methods.map((method) => ({
      title: method.title,
      rungs: method.rungs.map((rung) => rungReport(rung, names)),
      fit: method.fit && { order: method.fit.order, from: method.fit.from, to: method.fit.to },
    })),
  };
}
