import type { TextError } from '../text/place.ts';

/** Measured values of one component: pairs of time and value. */
export interface MeasuredSeries {
  readonly component: string;
  readonly points: readonly { readonly t: number; readonly value: number }[];
}

export type MeasuredReading =
  | {
      readonly ok: true;
      readonly series: readonly MeasuredSeries[];
      /** The distance of the times that were given to a single column of values; null where times were typed. */
      readonly spacing: number | null;
    }
  | { readonly ok: false; readonly errors: readonly TextError[] };

/** What measured points belong to: the components of a problem, and its interval. */
export interface MeasuredOf {
  readonly components: readonly string[];
  readonly start: number;
  readonly end: number;
}

/** Longest text of measured points, and most points. */
export const LONGEST_MEASURED = 200_000;
const MAX_POINTS = 5_000;
/** Most errors that are reported. */
const MAX_ERRORS = 20;

interface Field {
  readonly text: string;
  readonly column: number;
}

/** What is between columns: a tab or a semicolon where there is one, else a comma, else spaces. */
function separatorOf(line: string): RegExp {
  if (line.includes('\t')) return /\t/g;
  if (line.includes(';')) return /;/g;
  return line.includes(',') ? /,/g : /[ ]+/g;
}

function fieldsOf(line: string, separator: RegExp): readonly Field[] {
  const fields: Field[] = [];
  let from = 0;
  const add = (to: number): void => {
    const raw = line.slice(from, to);
    const lead = raw.length - raw.trimStart().length;
    fields.push({ text: raw.trim().replace(/^"(.*)"$/, '$1'), column: from + lead + 1 });
  };
  for (const found of line.matchAll(separator)) {
    add(found.index);
    from = found.index + found[0].length;
  }
  add(line.length);
  return fields;
}

/** A number as spreadsheets write it; with a comma for the point where a comma does not part columns. */
function numberOf(text: string, commaIsPoint: boolean): number {
  const plain = (commaIsPoint ? text.replace(',', '.') : text).replace('\u2212', '-');
  return /^[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?$/i.test(plain) ? Number(plain) : NaN;
}

/**
 * Reads measured points from columns, as a spreadsheet copies them or a file of CSV has them: the time, then one column a
 * component, in the order of the components or under their names. Empty cells are no points; lines with # in front say
 * nothing. A single column holds values of one component at equidistant times from the start to the end of the interval.
 *
 * @example readMeasured('t;level\n0;4\n1;3,3', { components: ['level'], start: 0, end: 8 }).ok // true
 */
export function readMeasured(text: string, of: MeasuredOf): MeasuredReading {
  const { components } = of;
  const errors: TextError[] = [];
  const complain = (line: number, column: number, length: number, message: string): void => {
    if (errors.length < MAX_ERRORS) errors.push({ line, column, length: Math.max(1, length), message });
  };
  const lines = text.split(/\r?\n/);
  const first = lines.findIndex(isRead);
  if (first < 0) return { ok: true, series: [], spacing: null };
  if (isOneColumn(lines)) return readColumn(lines, of);
  const separator = separatorOf(lines[first] ?? '');
  const commaIsPoint = separator.source !== ',';
  const head = fieldsOf(lines[first] ?? '', separator);
  const hasHead = head.some(({ text: field }) => field !== '' && Number.isNaN(numberOf(field, commaIsPoint)));
  const names = hasHead
    ? head.slice(1).map(({ text: field }) => componentIn(field, components))
    : components.slice(0, head.length - 1);
  if (hasHead)
    head.slice(1).forEach(({ text: field, column }) => {
      if (!components.includes(componentIn(field, components)))
        complain(
          first + 1,
          column,
          field.length,
          `there is no component ${field}; the columns after the time are named ${components.slice(0, 6).join(', ')}`,
        );
    });
  const points = names.map((): { t: number; value: number }[] => []);
  let count = 0;
  for (let i = hasHead ? first + 1 : first; i < lines.length; i += 1) {
    const line = lines[i] ?? '';
    if (!isRead(line)) continue;
    const [when, ...values] = fieldsOf(line, separator);
    const t = numberOf(when?.text ?? '', commaIsPoint);
    if (Number.isNaN(t)) {
      complain(
        i + 1,
        when?.column ?? 1,
        when?.text.length ?? 1,
        'a line starts with a time, such as 0.5, 3.2',
      );
      continue;
    }
    values.forEach(({ text: field, column }, j) => {
      if (field === '') return;
      const value = numberOf(field, commaIsPoint);
      if (Number.isNaN(value))
        complain(i + 1, column, field.length, `${field} is not a number; leave the cell empty`);
      else if (points[j] === undefined)
        complain(
          i + 1,
          column,
          field.length,
          `there ${names.length === 1 ? 'is one column' : `are ${names.length} columns`} of values, and this is one more`,
        );
      else {
        points[j].push({ t, value });
        count += 1;
        if (count === MAX_POINTS + 1)
          complain(i + 1, 1, line.length, `at most ${MAX_POINTS} points are drawn`);
      }
    });
  }
  if (errors.length > 0) return { ok: false, errors };
  return {
    ok: true,
    series: names.flatMap((component, j) => {
      const own = points[j] ?? [];
      return own.length === 0 ? [] : [{ component, points: own }];
    }),
    spacing: null,
  };
}

/** The component of a heading, which may have a unit behind it: `level (m)`, `level [m]`, `level / m`, `level in m`. */
function componentIn(heading: string, components: readonly string[]): string {
  if (components.includes(heading)) return heading;
  const plain = heading.replace(/\s*(?:\([^()]*\)|\[[^[\]]*\]|\/\s*\S+|\s+in\s+\S+)\s*$/, '');
  return components.includes(plain) ? plain : heading;
}

/** Whether a line holds something that is to be read. */
function isRead(line: string): boolean {
  return line.trim() !== '' && !line.trimStart().startsWith('#');
}

/** Whether no line has more than one field. */
function isOneColumn(lines: readonly string[]): boolean {
  return lines.filter(isRead).every((line) => fieldsOf(line.trim(), separatorOf(line.trim())).length === 1);
}

/** Reads values of one component, one a line, at equidistant times over the interval. */
function readColumn(lines: readonly string[], { components, start, end }: MeasuredOf): MeasuredReading {
  const used = lines.flatMap((line, i) => (isRead(line) ? [{ text: line.trim(), line: i + 1 }] : []));
  const [head] = used;
  const hasHead = head !== undefined && Number.isNaN(numberOf(head.text, true));
  const component = hasHead
    ? componentIn(head.text.replace(/^"(.*)"$/, '$1'), components)
    : (components[0] ?? '');
  const fault = (line: number, text: string, message: string): MeasuredReading => ({
    ok: false,
    errors: [{ line, column: 1, length: Math.max(1, text.length), message }],
  });
  if (head !== undefined && !components.includes(component))
    return fault(
      head.line,
      head.text,
      `there is no component ${component}; there are ${components.slice(0, 6).join(', ')}`,
    );
  const values = hasHead ? used.slice(1) : used;
  const wrong = values.find(({ text }) => Number.isNaN(numberOf(text, true)));
  if (wrong !== undefined) return fault(wrong.line, wrong.text, `${wrong.text} is not a number`);
  const [last] = values.slice(-1);
  if (values.length < 2)
    return fault(
      last?.line ?? 1,
      last?.text ?? '',
      'a single column needs two values or more: at the start, ..., at the end of the interval',
    );
  if (values.length > MAX_POINTS) return fault(MAX_POINTS + 1, '', `at most ${MAX_POINTS} points are drawn`);
  const spacing = (end - start) / (values.length - 1);
  const points = values.map(({ text }, k) => ({ t: start + k * spacing, value: numberOf(text, true) }));
  return { ok: true, series: [{ component, points }], spacing };
}
