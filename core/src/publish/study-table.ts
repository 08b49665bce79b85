import type { ErrorChoice } from '../study/runs/error-choice.ts';
import type { MethodReport, RungReport, StudyReport } from './study-report.ts';
import { type CsvCell, csv } from './csv.ts';
import { fixed, rangeText, significant, stepSizeText } from '../text/number-text.ts';
import { valueCell } from './tables/study-tables.ts';
import { plainTable } from './plain-table.ts';

/**
 * A study as CSV: one line for each method and rung.
 *
 * @example studyCsv(report).startsWith('method') // true
 */
export function studyCsv(report: StudyReport): string {
  const components = Object.keys(report.methods[0]?.rungs[0]?.values ?? {});
  const header: CsvCell[] = [
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
    'digits',
    'places',
    'excluded',
    'rounding',
    'order from three',
    'extrapolated error',
    'evaluations',
    'Newton iterations',
    'seconds',
    'remark',
  ];
  const rows = report.methods.flatMap(({ title, rungs }) =>
    rungs.map((rung): CsvCell[] => [
      title,
      rung.h,
      rung.steps,
      rung.divides,
      rung.t,
      ...components.map((name) => valueCell(rung.values[name])),
      rung.error,
      rung.ratio,
      rung.order,
      rung.stopped === null ? null : `step ${rung.stopped.step}: ${rung.stopped.why}`,
      rung.digits,
      rung.places,
      rung.leftOut,
      rung.rounding,
      rung.extrapolated?.order ?? null,
      rung.extrapolated?.error ?? null,
      rung.cost.evaluations,
      rung.cost.newton,
      rung.cost.seconds,
      rung.remark,
    ]),
  );
  return csv([header, ...rows]);
}

/** An error as the study tells it: itself, digits that agree, or correct decimal places. */
function errorText(
  { error, digits, places }: Pick<RungReport, 'error' | 'digits' | 'places'>,
  scale: ErrorChoice['scale'],
): string {
  if (scale === 'digits') return digits === null ? '' : fixed(digits, 1);
  if (scale === 'places') return places === null ? '' : String(places);
  return error === null ? '' : significant(error, 4);
}

/** One method of a study: its rungs, its order and slope, and what is to be said of single rungs. */
function methodTable(
  { title, rungs, fit, order, promised }: MethodReport,
  scale: ErrorChoice['scale'],
  most: number,
): string {
  const head = scale === 'digits' ? 'digits' : scale === 'places' ? 'places' : 'error';
  const hasNewton = rungs.some(({ cost }) => cost.newton > 0);
  const rows = rungs.map((rung) => [
    `${stepSizeText(rung.h)}${rung.divides ? '' : '*'}`,
    String(rung.steps),
    rung.stopped !== null && rung.error === null ? 'stopped' : errorText(rung, scale),
    rung.ratio === null ? '' : significant(rung.ratio, 4),
    rung.order === null ? '' : fixed(rung.order, 3),
    rung.extrapolated === null ? '' : fixed(rung.extrapolated.order, 3),
    rung.extrapolated === null ? '' : significant(rung.extrapolated.error, 3),
    String(rung.cost.evaluations),
    ...(hasNewton ? [String(rung.cost.newton)] : []),
    rung.leftOut ?? '',
  ]);
  const columns = ['h', 'N', head, 'ratio', 'order', 'of three', 'estimate', 'evaluations'];
  const table = plainTable([...columns, ...(hasNewton ? ['Newton'] : []), 'excluded'], rows, most);
  const promise = promised === null ? '' : `; expected ${promised}`;
  const orderText = order === null ? [] : [`order ${rangeText(order)}${promise}`];
  const slope =
    fit === null
      ? []
      : [
          `slope ${fixed(fit.order, 3)}${fit.standardError === null ? '' : ` ± ${significant(fit.standardError, 2)}`} over ${fit.rungs.length} step sizes${fit.by === 'person' ? ', fit range set manually' : ''}${order === null ? promise : ''}`,
        ];
  const notes = rungs.flatMap((rung) => (rung.remark === null ? [] : [`* ${rung.remark}`]));
  return [title, table, ...orderText, ...slope, ...notes].join('\n');
}

function comparisonText({ comparison }: StudyReport): readonly string[] {
  if (comparison === null) return [];
  const { needs, short, wished, equalStep, equalCost } = comparison;
  const list = (errors: readonly { readonly method: string; readonly error: number }[]): string =>
    errors.map(({ method, error }) => `${method} ${significant(error, 3)}`).join(', ');
  return [
    [
      `For an error of ${significant(wished, 3)}`,
      plainTable(
        ['method', 'evaluations', 'N', 'h'],
        [
          ...needs.map((need) => [
            need.method,
            `${need.atMost ? 'at most ' : ''}${need.evaluations}`,
            String(need.steps),
            significant(need.h, 4),
          ]),
          ...short.map((method) => [method, 'not reached', '', '']),
        ],
      ),
      ...(equalStep === null ? [] : [`at h = ${stepSizeText(equalStep.h)}: ${list(equalStep.errors)}`]),
      ...(equalCost === null ? [] : [`with ${equalCost.evaluations} evaluations: ${list(equalCost.errors)}`]),
    ].join('\n'),
  ];
}

/**
 * A study for a terminal: a table for each method, what the numbers mean, and the methods beside one another.
 *
 * @param most characters of a line of its tables
 * @example studyText(report, 'absolute').includes('Heun') // true
 */
export function studyText(report: StudyReport, scale: ErrorChoice['scale'], most = Infinity): string {
  const findings = report.findings
    .filter(({ kind }) => kind !== 'comparison')
    .map(({ method, sentence }) => `- ${method === null ? '' : `${method}: `}${sentence}`);
  return [
    report.title,
    ...report.methods.map((method) => methodTable(method, scale, most)),
    ...(findings.length === 0 ? [] : [`Findings\n${findings.join('\n')}`]),
    ...comparisonText(report),
  ].join('\n\n');
}
