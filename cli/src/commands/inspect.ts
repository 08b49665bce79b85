import { inspectionReport, type InspectionReport } from '@schritt/core/inspect';
import { parseMethod } from '@schritt/core/notation';
import { counted } from '@schritt/core/text';
import { Failure } from '../failure.ts';
import { errorLines, loadDocument } from '../load.ts';

function limit(value: number | null): string {
  return value === null ? 'without bound' : `up to ${value}`;
}

function table({ A, b, c }: NonNullable<InspectionReport['tableau']>): readonly string[] {
  const widths = Math.max(...[...A.flat(), ...b, ...c].map((text) => text.length));
  const row = (texts: readonly string[]): string => texts.map((text) => text.padStart(widths)).join('  ');
  return [
    ...A.map((line, i) => `    ${(c[i] ?? '').padStart(widths)} | ${row(line)}`),
    `    ${' '.repeat(widths)} | ${row(b)}`,
  ];
}

function words(report: InspectionReport): readonly string[] {
  const { title, kind, why, stages, evaluations, order, orderWithoutVelocity, errorConstant } = report;
  if (kind === null)
    return [`method "${title}": not in a recognised form (${why ?? ''}); its order can only be observed`];
  const { tableau, stability, zeroStable, conditions, slips, nearMisses } = report;
  return [
    `method "${title}": ${kind}, ${counted(stages ?? 0, 'stage')}, ${counted(evaluations, 'evaluation')} of f per step`,
    order === null
      ? '  no order can be proved'
      : `  order ${order}${orderWithoutVelocity !== null && orderWithoutVelocity !== order ? `, and ${orderWithoutVelocity} where a does not depend on the velocity` : ''}${errorConstant === null ? '' : `, error constant ${errorConstant}`}`,
    ...conditions.map((text) => `  first unsatisfied condition: ${text}`),
    ...(zeroStable === false ? ['  not zero-stable: it does not converge'] : []),
    ...(tableau === null ? [] : table(tableau)),
    ...(stability === null
      ? []
      : [
          `  stable on the real axis ${limit(stability.real)}, on the imaginary axis ${limit(stability.imaginary)}${stability.lStable ? '; L-stable' : stability.aStable ? '; A-stable' : ''}`,
        ]),
    ...slips.map(({ line, column, message }) => `  line ${line}, column ${column}: ${message}`),
    ...nearMisses.map(({ message }) => `  possible typo:  ${message}`),
  ];
}

/** Says what can be proved of the methods of a file: kind, order, stability, likely mistakes. */
export function inspectCommand(file: string, format: 'json' | 'table'): string {
  const document = loadDocument(file);
  if (document.kind === 'problem')
    throw new Failure([`${file}: kind: expected a method or a study, found a problem`]);
  const texts = document.kind === 'study' ? document.methods : [document];
  const errors: string[] = [];
  const reports = texts.flatMap(({ title, text }) => {
    const reading = parseMethod(text);
    if (reading.ok) return [inspectionReport(title, reading.value)];
    errors.push(...errorLines(file, title, reading.errors));
    return [];
  });
  if (errors.length > 0) throw new Failure(errors);
  return format === 'json'
    ? `${JSON.stringify(reports, null, 2)}\n`
    : `${reports.flatMap(words).join('\n')}\n`;
}
