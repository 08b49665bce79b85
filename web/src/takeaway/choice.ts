import type { LanguageName, StudyTable, TableFormat } from '@schritt/core/document';

/** What can be taken away: of the study, or of the chosen run. */
export type What = StudyTable | 'rows' | 'program';

/** What is to be taken away, and how. */
export interface Choice {
  readonly what: What;
  readonly table: TableFormat;
  readonly language: LanguageName;
  /** Significant digits of tables; null for whole doubles. */
  readonly digits: number | null;
  readonly mark: boolean;
  readonly part: boolean;
}

export const FIRST: Choice = {
  what: 'rungs',
  table: 'csv',
  language: 'py',
  digits: null,
  mark: false,
  part: false,
};

export const WHATS: readonly { readonly value: What; readonly label: string }[] = [
  { value: 'rungs', label: 'Errors and orders' },
  { value: 'cost', label: 'Cost' },
  { value: 'comparison', label: 'Comparison' },
  { value: 'rows', label: 'Rows of a run' },
  { value: 'program', label: 'Program of a run' },
];

export const TABLES: readonly { readonly value: TableFormat; readonly label: string }[] = [
  { value: 'csv', label: 'CSV' },
  { value: 'md', label: 'Markdown' },
  { value: 'tex', label: 'LaTeX' },
  { value: 'html', label: 'HTML' },
  { value: 'txt', label: 'Text' },
];

export const PROGRAMS: readonly { readonly value: LanguageName; readonly label: string }[] = [
  { value: 'py', label: 'Python' },
  { value: 'c', label: 'C' },
  { value: 'js', label: 'JavaScript' },
  { value: 'f90', label: 'Fortran' },
];

/** The name of the file: the title in plain letters, what it is, and its format. */
export function takenName(title: string, { what, table, language }: Choice): string {
  const plain = title
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60);
  return `${plain || 'study'}-${what}.${what === 'program' ? language : table}`;
}

/** Lines of a text that a preview shows, and how many more there are. */
export function preview(text: string, most: number): { readonly shown: string; readonly more: number } {
  const lines = text.trimEnd().split(/\r?\n/);
  return { shown: lines.slice(0, most).join('\n'), more: Math.max(0, lines.length - most) };
}
