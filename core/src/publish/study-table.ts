import type { StudyReport } from '../study/study-report.ts';
import { type Cell, csv } from './csv.ts';
import { significant, stepSizeText } from './number-text.ts';
import { plainTable } from './plain-table.ts';

/** A study as CSV: one line for each method and rung. */
export function studyCsv(report: StudyReport): string {
  const components = Object.keys(report.methods[0]?.rungs[0]?.values ?? {});
  const header: Cell[] = [
    'method',
    'h',
    'steps',
    'divides',
    't',
    ...components,
    'error',
    'ratio',
    'order',
    'stopped',
  ];
  const rows = report.methods.flatMap(({ title, rungs }) =>
    rungs.map((rung): Cell[] => [
      title,
      rung.h,
      rung.steps,
      rung.divides,
      rung.t,
      ...components.map((name) => rung.values[name] ?? null),
      rung.error,
      rung.ratio,
      rung.order,
      rung.stopped === null ? null : `step ${rung.stopped.step}: ${rung.stopped.why}`,
    ]),
  );
  return csv([header, ...rows]);
}

/** A study for a terminal: a table for each method. */
export function studyText(report: StudyReport): string {
  const tables = report.methods.map(({ title, rungs, fit }) => {
    const rows = rungs.map((rung) => [
      `${stepSizeText(rung.h)}${rung.divides ? '' : '*'}`,
      String(rung.steps),
      rung.stopped !== null ? 'stopped' : rung.error === null ? '' : significant(rung.error, 4),
      rung.ratio === null ? '' : significant(rung.ratio, 4),
      rung.order === null ? '' : rung.order.toFixed(3),
    ]);
    const notes = rungs.flatMap((rung) => [
      ...(rung.divides ? [] : [`* ${stepSizeText(rung.h)} did not divide the interval as it was asked for`]),
      ...(rung.stopped === null
        ? []
        : [
            `h = ${stepSizeText(rung.h)} stopped in step ${rung.stopped.step} at t = ${significant(rung.stopped.t, 6)}, ${rung.stopped.stage}: ${rung.stopped.why}`,
          ]),
    ]);
    const order =
      fit === null ? [] : [`order ${fit.order.toFixed(2)}, rungs ${fit.from + 1} to ${fit.to + 1}`];
    return [title, plainTable(['h', 'N', 'error', 'ratio', 'order'], rows), ...order, ...notes].join('\n');
  });
  return [report.title, ...tables].join('\n\n');
}
