/** Files of sheets, for spreadsheets. */
export type { Workbook } from './publish/sheets/workbook.ts';
export { workbookText } from './publish/sheets/workbook-text.ts';
export { xlsx } from './publish/sheets/xlsx.ts';
