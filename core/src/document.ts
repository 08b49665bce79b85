// What others use of files: documents in and out, studies opened from them, and tables of what they come to.
export type {
  Document,
  DocumentError,
  MethodDocument,
  MethodInStudy,
  ProblemDocument,
  StudyDocument,
} from './document/document.ts';
export { LONGEST_NOTE, LONGEST_TITLE } from './document/document.ts';
export { openStudy, type TextErrors } from './document/open-study.ts';
export { readDocument, readDocumentText } from './document/read-document.ts';
export { runKey, studyKey } from './document/run-key.ts';
export { documentSchema } from './document/schema.ts';
export { type Cell, csv } from './publish/csv.ts';
export { plainTable } from './publish/plain-table.ts';
export { rowsTable, stageComponents, vectorNames } from './publish/rows-table.ts';
export { type StudyReport, studyReport } from './publish/study-report.ts';
export { studyCsv, studyText } from './publish/study-table.ts';
