import { MOST_DIGITS } from '../decimal/decimal-precision.ts';
import type { GridRequest } from '../run/grid.ts';
import { amountValue } from '../study/runs/ladder.ts';
import type { Study } from '../study/runs/study.ts';
import { Refusal } from '../text/refusal.ts';
import type { Paper } from './handouts/handout-html.ts';
import type { DrawnAs, PlotInk, PlotName, PlotSize } from './plot-data.ts';
import { componentNames } from '../problem/problem.ts';
import { LANGUAGES, type LanguageName } from './programs/language.ts';
import type { StudyTable } from './tables/study-tables.ts';
import { isTableFormat, TABLE_FORMATS } from './tables/table.ts';
import {
  type ExportRequest,
  HANDOUT_FORMATS,
  type HandoutFormat,
  QUESTION_FORMATS,
  type QuestionFormat,
} from './export-study.ts';
import { QUESTION_KINDS, type QuestionKind } from './questions/question.ts';

/** What can be exported beside the tables of a study. */
export const RUN_EXPORTS = [
  'rows',
  'program',
  'notebook',
  'sheet',
  'plot',
  'formulas',
  'handout',
  'questions',
] as const;
export type RunExport = (typeof RUN_EXPORTS)[number];

export const HANDOUTS_OF = ['rungs', 'rows'] as const;

/** The formats of each kind, the first where none is asked for. */
export const FORMATS_OF = {
  rows: TABLE_FORMATS,
  program: LANGUAGES,
  notebook: ['ipynb'],
  sheet: ['xlsx', 'ods'],
  plot: ['svg', 'png', 'pdf', 'tikz'],
  formulas: ['tex'],
  handout: HANDOUT_FORMATS,
  questions: QUESTION_FORMATS,
} as const satisfies Readonly<Record<RunExport, readonly string[]>>;

/** What is asked for, in texts: the options of a command or the query of an address. */
export interface ExportQuery {
  readonly what: RunExport;
  readonly as?: string;
  /** Title of a method. */
  readonly method?: string;
  readonly h?: string;
  readonly steps?: string;
  readonly digits?: string;
  /** With commas between them. */
  readonly columns?: string;
  /** every k-th grid point has a row. */
  readonly every?: string;
  readonly bom?: boolean;
  /** CSV with semicolons between cells and commas in numbers. */
  readonly comma?: boolean;
  readonly part?: boolean;
  readonly step?: string;
  readonly plot?: PlotName;
  readonly size?: PlotSize;
  readonly ink?: PlotInk;
  /** Several step sizes of one method, with commas between them. */
  readonly sizes?: string;
  /** The name of a component, or all. */
  readonly component?: string;
  readonly draw?: DrawnAs;
  readonly of?: (typeof HANDOUTS_OF)[number];
  readonly task?: string;
  readonly blanks?: string;
  readonly room?: boolean;
  readonly variants?: string;
  readonly sheets?: string;
  readonly seed?: string;
  readonly key?: boolean;
  readonly paper?: Paper;
  /** Kinds of questions, with commas between them. */
  readonly kinds?: string;
}

/** Options of a run of a method, and those of tables. */
const OF_RUN = ['method', 'h', 'steps'] as const;
const OF_TABLE = ['digits', 'bom', 'comma', 'part'] as const;

/** The options that each kind of export has. */
const OPTIONS_OF: Readonly<Record<RunExport | StudyTable, readonly (keyof ExportQuery)[]>> = {
  rungs: [...OF_TABLE, 'columns'],
  cost: OF_TABLE,
  comparison: OF_TABLE,
  rows: [...OF_TABLE, ...OF_RUN, 'columns', 'every'],
  program: OF_RUN,
  notebook: OF_RUN,
  sheet: OF_RUN,
  plot: [...OF_RUN, 'plot', 'size', 'ink', 'part', 'sizes', 'component', 'draw'],
  formulas: [...OF_RUN, 'step', 'part'],
  handout: [
    ...OF_RUN,
    'of',
    'columns',
    'digits',
    'task',
    'blanks',
    'room',
    'variants',
    'sheets',
    'seed',
    'key',
    'paper',
  ],
  questions: [...OF_RUN, 'digits', 'variants', 'sheets', 'seed', 'kinds'],
};

/** The formats that an option is for, where it is not for all. */
const FORMATS_WITH: Partial<Readonly<Record<keyof ExportQuery, readonly string[]>>> = {
  bom: ['csv'],
  comma: ['csv'],
  part: ['tex', 'html', 'tikz'],
};

/**
 * Refuses options that have no effect on an export.
 *
 * @param as the format
 * @throws Refusal with the options that it has
 * @example checkOptions('rungs', 'csv', { digits: '4' })
 */
export function checkOptions(
  what: RunExport | StudyTable,
  as: string,
  query: Partial<Readonly<Record<string, unknown>>>,
): void {
  const known: readonly string[] = OPTIONS_OF[what];
  const all: readonly string[] = Object.values(OPTIONS_OF).flat();
  for (const [name, value] of Object.entries(query)) {
    if (value === undefined || value === false || !all.includes(name)) continue;
    if (!known.includes(name))
      throw new Refusal('form', `${name} does not apply to ${what}, which takes ${known.join(', ')}`);
    const formats = Object.entries(FORMATS_WITH).find(([key]) => key === name)?.[1];
    if (formats !== undefined && !formats.includes(as))
      throw new Refusal('form', `${name} applies to ${formats.join(', ')} only, not to ${as}`);
  }
}

/** Significant digits of rows, and those that a sheet for students asks for, where nothing is said. */
const [ROW_DIGITS, SHEET_DIGITS] = [10, 6];

function isLanguage(format: string): format is LanguageName {
  return LANGUAGES.some((known) => known === format);
}

function isQuestionFormat(format: string): format is QuestionFormat {
  return QUESTION_FORMATS.some((known) => known === format);
}

/** The kinds of questions that are asked for; values where nothing is said. */
function kindsOf({ kinds = 'value' }: ExportQuery): readonly QuestionKind[] {
  return kinds.split(',').map((text) => {
    const kind = QUESTION_KINDS.find((known) => known === text.trim());
    if (kind !== undefined) return kind;
    throw new Refusal('form', `kinds takes ${QUESTION_KINDS.join(', ')}, not ${text.trim()}`);
  });
}

function isHandoutFormat(format: string): format is HandoutFormat {
  return HANDOUT_FORMATS.some((known) => known === format);
}

/**
 * A whole number of an option; `otherwise` where it is not given.
 *
 * @throws Refusal for another one
 * @example wholeOf('scale', '2', [1, 4], 1) // 2
 */
export function wholeOf(
  name: string,
  text: string | undefined,
  [least, most]: readonly [number, number],
  otherwise: number,
): number {
  if (text === undefined || text === '') return otherwise;
  const value = Number(text);
  if (Number.isSafeInteger(value) && value >= least && value <= most) return value;
  throw new Refusal('form', `${name} takes an integer from ${least} to ${most}, not ${text}`);
}

/**
 * Significant digits; null where none are asked for.
 *
 * @example digitsOf({ digits: '6' }) // 6
 */
export function digitsOf({ digits }: Pick<ExportQuery, 'digits'>): number | null {
  return digits === undefined ? null : wholeOf('digits', digits, [1, MOST_DIGITS], 1);
}

/**
 * The names of columns that are asked for; null for all.
 *
 * @example columnsOf({ columns: 'level,k1' }) // ['level', 'k1']
 */
export function columnsOf({ columns }: Pick<ExportQuery, 'columns'>): readonly string[] | null {
  return columns?.split(',').map((name) => name.trim()) ?? null;
}

/**
 * Every k-th row is wanted; k is 1 by default.
 *
 * @example everyOf({ every: '2' }) // 2
 */
export function everyOf({ every }: Pick<ExportQuery, 'every'>): number {
  return wholeOf('every', every, [1, 1e8], 1);
}

const EITHER = 'give either h, a step size, or steps, a number of steps';

function givenGrid({ h, steps }: ExportQuery): GridRequest | null {
  if (h !== undefined && steps !== undefined) throw new Refusal('grid', EITHER);
  if (steps !== undefined) return { steps: Number(steps) };
  return h === undefined ? null : { h: amountValue(h) };
}

/**
 * The step size or number of steps that is asked for.
 *
 * @throws Refusal where neither or both of h and steps are given
 * @example gridRequestOf({ steps: '16' }) // { steps: 16 }
 */
export function gridRequestOf(query: Pick<ExportQuery, 'h' | 'steps'>): GridRequest {
  const gridRequest = givenGrid({ ...query, what: 'rows' });
  if (gridRequest === null) throw new Refusal('grid', EITHER);
  return gridRequest;
}

/** The step sizes of a plot: several of one method, or one. */
function gridRequestsOf(query: ExportQuery): readonly GridRequest[] {
  if (query.sizes === undefined) return [gridRequestOf(query)];
  if (query.h !== undefined || query.steps !== undefined)
    throw new Refusal('grid', 'give either sizes, several step sizes, or h or steps');
  return query.sizes.split(',').map((text) => ({ h: amountValue(text.trim()) }));
}

/** A component by its name. */
function componentOf({ problem }: Study, { component }: ExportQuery): number | 'all' | null {
  if (component === undefined || component === 'all') return component ?? null;
  const names = componentNames(problem);
  const place = names.indexOf(component);
  if (place >= 0) return place;
  throw new Refusal(
    'missing',
    `there is no component ${component}; there are ${names.slice(0, 12).join(', ')}`,
  );
}

/**
 * The place of a method in a study by its title; the first where none is named and one may be left out.
 *
 * @throws Refusal where there is no such method
 * @example methodAt(study, { method: 'Heun' }, true) // 1
 */
export function methodAt(
  { methods }: Study,
  { method }: Pick<ExportQuery, 'method'>,
  isNeeded: boolean,
): number {
  if (method === undefined && !isNeeded) return 0;
  const place = methods.findIndex(({ title }) => title === method);
  if (place >= 0) return place;
  const titles = methods.map(({ title }) => title).join(', ');
  throw new Refusal('missing', `there is no method "${method ?? ''}" in this study; there are ${titles}`);
}

/**
 * What texts ask for.
 *
 * @throws Refusal where something is missing, or is of another form
 * @example exportRequest('Sluice', study, { what: 'rows', as: 'md', method: 'Heun', steps: '16' }).what // 'rows'
 */
export function exportRequest(title: string, study: Study, query: ExportQuery): ExportRequest {
  const { what, part = false } = query;
  const formats: readonly string[] = FORMATS_OF[what];
  const format = query.as ?? formats[0] ?? '';
  checkOptions(what, format, { ...query });
  const wrong = new Refusal('form', `${what} can be written as ${formats.join(', ')}, not as ${format}`);
  if (!formats.includes(format)) throw wrong;
  switch (what) {
    case 'program':
      if (!isLanguage(format)) throw wrong;
      return { what, as: format, method: methodAt(study, query, true), gridRequest: gridRequestOf(query) };
    case 'notebook':
      if (format !== 'ipynb') throw wrong;
      return { what, method: methodAt(study, query, true), gridRequest: gridRequestOf(query) };
    case 'rows':
      if (!isTableFormat(format)) throw wrong;
      return {
        what,
        as: format,
        method: methodAt(study, query, true),
        gridRequest: gridRequestOf(query),
        digits: digitsOf(query) ?? ROW_DIGITS,
        columns: columnsOf(query),
        every: everyOf(query),
        options: { part, mark: query.bom ?? false, comma: query.comma ?? false },
      };
    case 'sheet':
      if (format !== 'xlsx' && format !== 'ods') throw wrong;
      return { what, as: format, method: methodAt(study, query, false), gridRequest: givenGrid(query) };
    case 'plot': {
      const { plot = 'order', size = 'slide', ink = 'colour' } = query;
      // errors and work are those of all step sizes
      const isOfRun = plot === 'solution' || plot === 'error';
      const gridRequests = isOfRun ? gridRequestsOf(query) : [{ steps: 1 }];
      const method = query.method === undefined ? null : methodAt(study, query, false);
      const component = componentOf(study, query);
      return { what, plot, size, ink, method, gridRequests, component, drawn: query.draw ?? null };
    }
    case 'formulas': {
      if (format !== 'tex') throw wrong;
      const n = query.step === undefined ? null : wholeOf('step', query.step, [0, 1e8], 0);
      const gridRequest = n === null ? { steps: 1 } : gridRequestOf(query);
      return { what, method: methodAt(study, query, false), gridRequest, n, part };
    }
    case 'questions':
      if (!isQuestionFormat(format)) throw wrong;
      return {
        what,
        as: format,
        request: {
          method: methodAt(study, query, true),
          gridRequest: gridRequestOf(query),
          kinds: kindsOf(query),
          choices: query.variants ?? '',
          sheets: wholeOf('sheets', query.sheets, [1, 500], 1),
          seed: wholeOf('seed', query.seed, [0, 2 ** 31], 1),
          digits: digitsOf(query) ?? SHEET_DIGITS,
        },
      };
    case 'handout':
      if (!isHandoutFormat(format)) throw wrong;
      return {
        what,
        as: format,
        solved: query.key ?? false,
        paper: query.paper ?? 'A4',
        request: {
          of:
            query.of === 'rows'
              ? {
                  kind: 'rows',
                  method: methodAt(study, query, false),
                  gridRequest: gridRequestOf(query),
                  columns: columnsOf(query),
                }
              : { kind: 'rungs' },
          title,
          task: query.task ?? '',
          blanks: query.blanks ?? 'rows after 2',
          digits: digitsOf(query) ?? SHEET_DIGITS,
          plot: query.room ?? false,
          choices: query.variants ?? '',
          sheets: wholeOf('sheets', query.sheets, [1, 500], 1),
          seed: wholeOf('seed', query.seed, [0, 2 ** 31], 1),
        },
      };
  }
}
