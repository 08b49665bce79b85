import {
  type HandoutFormat,
  LANGUAGE_LABELS,
  type LanguageName,
  type Paper,
  type DrawnAs,
  fileEnding,
  PLOT_LABELS,
  QUESTION_LABELS,
  type QuestionFormat,
  type QuestionKind,
  type RungColumn,
  USUAL_RUNG_COLUMNS,
  type PlotInk,
  type PlotName,
  type PlotSize,
  type StudyTable,
  TABLE_LABELS,
  type TableFormat,
  type ExportRequest,
} from '@schritt/core/document';
import { namesOf, plainName } from '@schritt/core/text';

/** What can be exported: of the study, or of the chosen run. */
export type ExportKind = StudyTable | ExportRequest['what'];

/** Formats of a plot. */
export type PlotFormat = 'svg' | 'png' | 'tikz';

/** Formats of a live spreadsheet. */
export type SheetFormat = 'xlsx' | 'ods';

/** What a sheet for students is like. */
export interface HandoutSettings {
  readonly of: 'rungs' | 'rows';
  readonly task: string;
  readonly blanks: string;
  readonly coefficients: boolean;
  readonly digits: number;
  readonly room: boolean;
  readonly variants: string;
  readonly sheets: number;
  readonly seed: number;
  readonly paper: Paper;
  readonly solved: boolean;
  readonly as: HandoutFormat;
}

/** The settings of an export. */
export interface ExportSettings {
  readonly what: ExportKind;
  readonly table: TableFormat;
  readonly language: LanguageName;
  /** Significant digits of tables; null for whole doubles. */
  readonly digits: number | null;
  /** Columns of the table of step sizes. */
  readonly rungColumns: readonly RungColumn[];
  /** Columns of rows by their names, with commas between them; '' for all. */
  readonly columns: string;
  /** every k-th grid point has a row. */
  readonly every: number;
  readonly mark: boolean;
  /** CSV with semicolons and decimal commas. */
  readonly comma: boolean;
  readonly part: boolean;
  readonly plot: PlotName;
  readonly size: PlotSize;
  readonly ink: PlotInk;
  readonly plotAs: PlotFormat;
  /** What of a solution is drawn, as on the page. */
  readonly component: number | 'all';
  readonly drawn: DrawnAs | null;
  readonly sheetAs: SheetFormat;
  /** How many times as large pixels are made. */
  readonly scale: number;
  /** Whether the chosen step is computed among the formulas. */
  readonly worked: boolean;
  /** What is asked for; the variants of their numbers are those of handouts. */
  readonly questions: { readonly as: QuestionFormat; readonly kinds: readonly QuestionKind[] };
  readonly handout: HandoutSettings;
}

export const FIRST: ExportSettings = {
  what: 'rungs',
  table: 'csv',
  language: 'py',
  digits: null,
  rungColumns: USUAL_RUNG_COLUMNS,
  columns: '',
  every: 1,
  mark: false,
  comma: false,
  part: false,
  plot: 'order',
  size: 'slide',
  ink: 'colour',
  plotAs: 'svg',
  component: 0,
  drawn: null,
  sheetAs: 'xlsx',
  scale: 2,
  worked: true,
  questions: { as: 'xml', kinds: ['value'] },
  handout: {
    of: 'rows',
    task: '',
    blanks: 'rows after 2',
    coefficients: false,
    digits: 6,
    room: true,
    variants: '',
    sheets: 20,
    seed: 1,
    paper: 'A4',
    solved: false,
    as: 'html',
  },
};

interface Labelled<V> {
  readonly value: V;
  readonly label: string;
}

export const EXPORT_KINDS: readonly Labelled<ExportKind>[] = [
  { value: 'rungs', label: 'Errors and orders' },
  { value: 'cost', label: 'Work' },
  { value: 'comparison', label: 'Efficiency' },
  { value: 'rows', label: 'Step table' },
  { value: 'program', label: 'Code' },
  { value: 'notebook', label: 'Notebook' },
  { value: 'sheet', label: 'Live spreadsheet' },
  { value: 'plot', label: 'Plot' },
  { value: 'formulas', label: 'Formulas' },
  { value: 'handout', label: 'Handout' },
  { value: 'questions', label: 'Questions' },
];

/** What is chosen from a registry of names and labels. */
function optionsOf<V extends string>(labels: Readonly<Record<V, string>>): readonly Labelled<V>[] {
  return namesOf(labels).map((value) => ({ value, label: labels[value] }));
}

export const TABLES = optionsOf<TableFormat>(TABLE_LABELS);
export const PROGRAMS = optionsOf<LanguageName>(LANGUAGE_LABELS);
export const PLOTS_OF = optionsOf<PlotName>(PLOT_LABELS);

export const QUESTIONS_AS: readonly Labelled<QuestionFormat>[] = [
  { value: 'xml', label: 'Moodle XML' },
  { value: 'gift', label: 'GIFT' },
  { value: 'qti', label: 'QTI 2.1' },
];

export const KINDS_OF_QUESTIONS = optionsOf<QuestionKind>(QUESTION_LABELS);

export const HANDOUTS_AS: readonly Labelled<HandoutFormat>[] = [
  { value: 'html', label: 'Page' },
  { value: 'tex', label: 'LaTeX' },
  { value: 'xlsx', label: 'Spreadsheet' },
];

export const SIZES: readonly Labelled<PlotSize>[] = [
  { value: 'slide', label: 'Slide' },
  { value: 'column', label: 'Paper' },
];

export const INKS: readonly Labelled<PlotInk>[] = [
  { value: 'colour', label: 'Colour' },
  { value: 'black', label: 'Black and white' },
];

export const PLOTS_AS: readonly Labelled<PlotFormat>[] = [
  { value: 'svg', label: 'SVG' },
  { value: 'png', label: 'PNG' },
  { value: 'tikz', label: 'LaTeX' },
];

export const SHEETS_AS: readonly Labelled<SheetFormat>[] = [
  { value: 'xlsx', label: 'Excel (.xlsx)' },
  { value: 'ods', label: 'OpenDocument (.ods)' },
];

export const HANDOUTS_OF: readonly Labelled<HandoutSettings['of']>[] = [
  { value: 'rows', label: 'Step table' },
  { value: 'rungs', label: 'Errors and orders' },
];

export const PAPERS: readonly Labelled<Paper>[] = [
  { value: 'A4', label: 'A4' },
  { value: 'Letter', label: 'Letter' },
];

/** Whether a choice is of one run, with its method. */
export function isOfMethod({ what, plot, handout }: ExportSettings): boolean {
  if (what === 'plot') return plot === 'solution';
  if (what === 'handout') return handout.of === 'rows';
  return (
    what === 'rows' ||
    what === 'program' ||
    what === 'notebook' ||
    what === 'questions' ||
    what === 'sheet' ||
    what === 'formulas'
  );
}

/** Whether a choice is of one step size. */
export function isOfStep({ what, plot, handout, worked }: ExportSettings): boolean {
  switch (what) {
    case 'rows':
    case 'program':
    case 'notebook':
    case 'questions':
      return true;
    case 'plot':
      return plot === 'solution' || plot === 'error';
    case 'handout':
      return handout.of === 'rows';
    case 'formulas':
      return worked;
    default:
      return false;
  }
}

/** The ending of a file's name. */
export function formatOf({
  what,
  table,
  language,
  plotAs,
  sheetAs,
  questions,
  handout,
}: ExportSettings): string {
  switch (what) {
    case 'program':
      return language;
    case 'notebook':
      return 'ipynb';
    case 'sheet':
      return sheetAs;
    case 'plot':
      return plotAs;
    case 'formulas':
      return 'tex';
    case 'questions':
      return questions.as;
    case 'handout':
      return handout.as;
    default:
      return table;
  }
}

/** The name of the file: the title in plain letters, what it is, and its format. */
export function exportName(title: string, choice: ExportSettings): string {
  const { what, handout } = choice;
  // a function of MATLAB has the name of its file
  if (what === 'program' && choice.language === 'm') return 'program.m';
  const key = what === 'handout' && handout.solved ? '-solution' : '';
  return `${plainName(title, 'study')}-${what}${key}.${fileEnding(formatOf(choice))}`;
}

/** Lines of a text that a preview shows, and how many more there are; a text of any length is gone through once. */
export function preview(text: string, most: number): { readonly shown: string; readonly more: number } {
  let [lines, end] = [0, text.length];
  for (let at = 0; at < text.length;) {
    const next = text.indexOf('\n', at);
    lines += 1;
    if (lines === most) end = next < 0 ? text.length : next;
    if (next < 0) break;
    at = next + 1;
  }
  const shown = text.slice(0, end).replaceAll('\r', '').trimEnd();
  return { shown, more: Math.max(0, lines - most) };
}
