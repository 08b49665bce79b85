/** Files of sheets that calculate, for spreadsheets. */
export { studyWorkbook } from './publish/sheets/study-workbook.ts';
export type { Workbook } from './publish/sheets/workbook.ts';
export { workbookText } from './publish/sheets/workbook-text.ts';
export { xlsx } from './publish/sheets/xlsx.ts';
