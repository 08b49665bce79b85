import { inspectionReport, type InspectionReport, type LeadingTermReport } from '@schritt/core/inspect';
import { parseMethod } from '@schritt/core/notation';
import { counted, exponential, fixed, significant } from '@schritt/core/text';
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

function embeddedText({ order, weights }: NonNullable<InspectionReport['embedded']>): string {
  const known = order === null ? 'no order can be proved' : `order ${order}`;
  return `  embedded formula: ${known}${weights.length === 0 ? '' : `, weights ${weights.join('  ')}`}`;
}

function orderText(report: InspectionReport): string {
  const { order, orderIsAtLeast, orderWithinDigits, defect, orderWithoutVelocity, errorConstant } = report;
  if (order === null) return '  no order can be proved';
  const orMore = orderIsAtLeast ? ' or more' : '';
  const exactly = order < 1 ? 'not consistent' : `order ${order}${orMore}`;
  const own =
    defect === null
      ? `order ${order}${orMore}`
      : `order ${orderWithinDigits ?? order} within the digits of its coefficients (defect ${exponential(defect, 2)}); taken exactly ${exactly}`;
  const free =
    orderWithoutVelocity !== null && orderWithoutVelocity !== order
      ? `, and ${orderWithoutVelocity} where a does not depend on the velocity`
      : '';
  return `  ${own}${free}${errorConstant === null ? '' : `, error constant ${errorConstant}`}`;
}

/** Orders on kinds of problems where they differ, and what is known beside the order. */
function propertyTexts(report: InspectionReport): readonly string[] {
  const { order, orderWithinDigits, stageOrder, principalError, symplectic, symmetric, ssp } = report;
  const general = orderWithinDigits ?? order;
  const on = [
    [report.orderAutonomous, "y' = f(y)"],
    [report.orderLinear, "y' = A*y"],
    [report.orderAnyJacobian, 'any matrix in place of the Jacobian'],
  ].flatMap(([found, problems]) =>
    found !== null && found !== general ? [`order ${found} for ${problems}`] : [],
  );
  const all = [
    ...on,
    ...(stageOrder === null ? [] : [`stage order ${stageOrder}`]),
    ...(principalError === null ? [] : [`principal error ${significant(principalError, 4)}`]),
    ...(symplectic === true ? ['symplectic'] : []),
    ...(symmetric === true ? ['symmetric'] : []),
    ...(report.oscillation === null
      ? []
      : [`stable on x'' = -w^2*x for h*w up to ${significant(report.oscillation, 6)}`]),
    ...(report.sspUnlimited
      ? ['SSP for every h']
      : ssp !== null && ssp > 0
        ? [`SSP coefficient ${significant(ssp, 4)}`]
        : []),
  ];
  return all.length === 0 ? [] : [`  ${all.join(', ')}`];
}

/** `-1/120*x^5`. */
function termText({ coefficient, power }: LeadingTermReport): string {
  return `${coefficient}*x^${power}`;
}

function stabilityText({
  real,
  imaginary,
  lStable,
  aStable,
  alpha,
  pade,
  dissipation,
  dispersion,
}: NonNullable<InspectionReport['stability']>): string {
  const kind = lStable
    ? '; L-stable'
    : aStable
      ? '; A-stable'
      : alpha !== null
        ? `; A(alpha)-stable with alpha = ${fixed(alpha, 2)} degrees`
        : '';
  const approximant = pade === null ? '' : `; R(z) is the Pade approximant ${pade} of exp(z)`;
  const phase = [
    ...(dissipation === null ? [] : [`; |R(ix)| - 1 = ${termText(dissipation)} + ...`]),
    ...(dispersion === null ? [] : [`; arg R(ix) - x = ${termText(dispersion)} + ...`]),
  ].join('');
  return `  stable on the real axis ${limit(real)}, on the imaginary axis ${limit(imaginary)}${kind}${approximant}${phase}`;
}

function words(report: InspectionReport): readonly string[] {
  const { title, kind, why, stages, evaluations } = report;
  if (kind === null)
    return [`method "${title}": not in a recognised form (${why ?? ''}); its order can only be observed`];
  const { tableau, embedded, stability, zeroStable, conditions, slips, nearMisses } = report;
  return [
    `method "${title}": ${kind}, ${counted(stages ?? 0, 'stage')}, ${counted(evaluations, 'evaluation')} of f per step`,
    orderText(report),
    ...propertyTexts(report),
    ...conditions.map((text) => `  first unsatisfied condition: ${text}`),
    ...(zeroStable === false ? ['  not zero-stable: it does not converge'] : []),
    ...(tableau === null ? [] : table(tableau)),
    ...(embedded === null ? [] : [embeddedText(embedded)]),
    ...(stability === null ? [] : [stabilityText(stability)]),
    ...slips.map(({ line, column, message }) => `  line ${line}, column ${column}: ${message}`),
    ...nearMisses.map(({ message }) => `  possible typo: ${message}`),
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
