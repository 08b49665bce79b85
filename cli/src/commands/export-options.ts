import {
  type ExportQuery,
  FORMATS_OF,
  LANGUAGES,
  STUDY_TABLES,
  type StudyTable,
  TABLE_FORMATS,
  RUN_EXPORTS,
  type RunExport,
} from '@schritt/core/document';
import { Failure } from '../failure.ts';

export const EXPORT_KINDS = [...STUDY_TABLES, ...RUN_EXPORTS] as const;
type ExportKind = StudyTable | RunExport;
export const FORMATS = [
  ...TABLE_FORMATS,
  ...LANGUAGES,
  'xlsx',
  'ods',
  'svg',
  'png',
  'pdf',
  'tikz',
  'ipynb',
  'xml',
  'gift',
  'qti',
] as const;

export interface ExportOptions extends Omit<ExportQuery, 'what' | 'as'> {
  readonly what: ExportKind;
  readonly as?: (typeof FORMATS)[number];
  /** How many times as large pixels are made. */
  readonly scale?: string;
  readonly out?: string;
}

export function isStudyTable(what: ExportKind): what is StudyTable {
  return STUDY_TABLES.some((known) => known === what);
}

/** The format of what is written. */
export function formatOf({ what, as }: ExportOptions): string {
  const known: readonly string[] = isStudyTable(what) ? TABLE_FORMATS : FORMATS_OF[what];
  const format = as ?? known[0] ?? '';
  if (known.includes(format)) return format;
  throw new Failure([`${what} can be written as ${known.join(', ')}, not as ${format}`]);
}
