// What others use of documents: studies opened from them, and tables of what they come to.
export type {
  SchrittDocument,
  MethodDocument,
  MethodInStudy,
  ProblemDocument,
  StudyDocument,
} from './document/document.ts';
export {
  type ArithmeticFields,
  arithmeticFields,
  precisionInFile,
  precisionOfMethod,
} from './document/document-precision.ts';
export { FEWEST_DIGITS, MOST_DIGITS } from './decimal/decimal-precision.ts';
export { LONGEST_NOTE, LONGEST_TITLE, MAX_METHODS } from './document/document-limits.ts';
export { LONGEST_MEASURED, type MeasuredOf, type MeasuredSeries, readMeasured } from './document/measured.ts';
export { openStudy, studyOrRefusal, type TextErrors } from './document/open-study.ts';
export { NUMBERS_VERSION, runKey, studyKey } from './document/run-key.ts';
export {
  type ExportQuery,
  columnsOf,
  digitsOf,
  checkOptions,
  everyOf,
  FORMATS_OF,
  HANDOUTS_OF,
  RUN_EXPORTS,
  type RunExport,
  exportRequest,
  wholeOf,
  gridRequestOf,
  methodAt,
} from './publish/export-query.ts';
export { type CsvCell, csv, isNumberCell, jsonCell, numberText } from './publish/csv.ts';
export { drawnPage, type PagePart, type Paper, PAPERS } from './publish/handouts/handout-html.ts';
export { parseChoices, repeatedSheets } from './publish/handouts/variants.ts';
export {
  PLOT_INKS,
  PLOT_SIZES,
  type PlotData,
  type PlotInk,
  type PlotName,
  DRAWN_AS,
  type DrawnAs,
  PLOT_LABELS,
  PLOTS,
  type PlotSize,
} from './publish/plot-data.ts';
export type { PackageFile } from './publish/questions/qti.ts';
export { QUESTION_KINDS, QUESTION_LABELS, type QuestionKind } from './publish/questions/question.ts';
export { fileEnding, mediaType } from './publish/media-types.ts';
export { plainTable } from './publish/plain-table.ts';
export { LANGUAGE_LABELS, LANGUAGES, type LanguageName } from './publish/programs/language.ts';
export { scalarName, stageComponents, vectorNames } from './program/stage-names.ts';
export { rowsTable } from './publish/rows-table.ts';
export { type StudyReport, studyReport } from './publish/study-report.ts';
export { studyCsv, studyText } from './publish/study-table.ts';
export {
  type HandoutFormat,
  type QuestionFormat,
  type Exported,
  exportStudy,
  type ExportRequest,
} from './publish/export-study.ts';
export { rowTable } from './publish/tables/row-table.ts';
export {
  RUNG_COLUMN_LABELS,
  RUNG_COLUMNS,
  type RungColumn,
  rungColumnsOf,
  STUDY_TABLES,
  type StudyTable,
  studyTable,
  USUAL_RUNG_COLUMNS,
} from './publish/tables/study-tables.ts';
export { isTableFormat, TABLE_FORMATS, TABLE_LABELS, type TableFormat } from './publish/tables/table.ts';
export { writeTable } from './publish/tables/table-formats.ts';
export { texDocument, texText } from './publish/tables/tex-text.ts';
