import type {
  HandoutFormat,
  LanguageName,
  Paper,
  PictureName,
  PlotInk,
  PlotSize,
  StudyTable,
  TableFormat,
  Wanted,
} from '@schritt/core/document';
import { plainName } from '../pictures/plain-name.ts';

/** What can be taken away: of the study, or of the chosen run. */
export type What = StudyTable | Wanted['what'];

/** Formats of a picture. */
export type PictureFormat = 'svg' | 'png';

/** What a sheet for students is like. */
export interface HandoutChoices {
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

/** What is to be taken away, and how. */
export interface Choice {
  readonly what: What;
  readonly table: TableFormat;
  readonly language: LanguageName;
  /** Significant digits of tables; null for whole doubles. */
  readonly digits: number | null;
  /** Columns of rows by their names, with commas between them; '' for all. */
  readonly columns: string;
  /** Every how manieth grid point has a row. */
  readonly every: number;
  readonly mark: boolean;
  readonly part: boolean;
  readonly picture: PictureName;
  readonly size: PlotSize;
  readonly ink: PlotInk;
  readonly pictureAs: PictureFormat;
  /** How many times as large pixels are made. */
  readonly scale: number;
  /** Whether the chosen step stands worked out among the formulas. */
  readonly worked: boolean;
  readonly handout: HandoutChoices;
}

export const FIRST: Choice = {
  what: 'rungs',
  table: 'csv',
  language: 'py',
  digits: null,
  columns: '',
  every: 1,
  mark: false,
  part: false,
  picture: 'order',
  size: 'slide',
  ink: 'colour',
  pictureAs: 'svg',
  scale: 2,
  worked: true,
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

interface Option<V> {
  readonly value: V;
  readonly label: string;
}

export const WHATS: readonly Option<What>[] = [
  { value: 'rungs', label: 'Errors and orders' },
  { value: 'cost', label: 'Work' },
  { value: 'comparison', label: 'Efficiency' },
  { value: 'rows', label: 'Step table' },
  { value: 'program', label: 'Code' },
  { value: 'sheet', label: 'Live spreadsheet' },
  { value: 'picture', label: 'Plot' },
  { value: 'formulas', label: 'Formulas' },
  { value: 'handout', label: 'Handout' },
];

export const TABLES: readonly Option<TableFormat>[] = [
  { value: 'csv', label: 'CSV' },
  { value: 'md', label: 'Markdown' },
  { value: 'tex', label: 'LaTeX' },
  { value: 'html', label: 'HTML' },
  { value: 'txt', label: 'Text' },
];

export const PROGRAMS: readonly Option<LanguageName>[] = [
  { value: 'py', label: 'Python' },
  { value: 'c', label: 'C' },
  { value: 'js', label: 'JavaScript' },
  { value: 'f90', label: 'Fortran' },
];

export const PICTURES_OF: readonly Option<PictureName>[] = [
  { value: 'order', label: 'Order' },
  { value: 'cost', label: 'Work' },
  { value: 'solution', label: 'Solution' },
  { value: 'error', label: 'Error over time' },
];

export const HANDOUTS_AS: readonly Option<HandoutFormat>[] = [
  { value: 'html', label: 'Page' },
  { value: 'tex', label: 'LaTeX' },
  { value: 'xlsx', label: 'Spreadsheet' },
];

export const SIZES: readonly Option<PlotSize>[] = [
  { value: 'slide', label: 'Slide' },
  { value: 'column', label: 'Paper' },
];

export const INKS: readonly Option<PlotInk>[] = [
  { value: 'colour', label: 'Colour' },
  { value: 'black', label: 'Black and white' },
];

export const PICTURES_AS: readonly Option<PictureFormat>[] = [
  { value: 'svg', label: 'SVG' },
  { value: 'png', label: 'PNG' },
];

export const HANDOUTS_OF: readonly Option<HandoutChoices['of']>[] = [
  { value: 'rows', label: 'Step table' },
  { value: 'rungs', label: 'Errors and orders' },
];

export const PAPERS: readonly Option<Paper>[] = [
  { value: 'A4', label: 'A4' },
  { value: 'Letter', label: 'Letter' },
];

/** Whether a choice is of one run, with its method. */
export function isOfMethod({ what, picture, handout }: Choice): boolean {
  if (what === 'picture') return picture === 'solution';
  if (what === 'handout') return handout.of === 'rows';
  return what === 'rows' || what === 'program' || what === 'sheet' || what === 'formulas';
}

/** Whether a choice is of one step size. */
export function isOfStep({ what, picture, handout, worked }: Choice): boolean {
  switch (what) {
    case 'rows':
    case 'program':
      return true;
    case 'picture':
      return picture === 'solution' || picture === 'error';
    case 'handout':
      return handout.of === 'rows';
    case 'formulas':
      return worked;
    default:
      return false;
  }
}

/** The ending of a file's name. */
export function formatOf({ what, table, language, pictureAs, handout }: Choice): string {
  switch (what) {
    case 'program':
      return language;
    case 'sheet':
      return 'xlsx';
    case 'picture':
      return pictureAs;
    case 'formulas':
      return 'tex';
    case 'handout':
      return handout.as;
    default:
      return table;
  }
}

/** The name of the file: the title in plain letters, what it is, and its format. */
export function takenName(title: string, choice: Choice): string {
  const { what, handout } = choice;
  const key = what === 'handout' && handout.solved ? '-solution' : '';
  return `${plainName(title, 'study')}-${what}${key}.${formatOf(choice)}`;
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
