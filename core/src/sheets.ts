/** Files of sheets, for spreadsheets. */
export { workbookText } from './publish/sheets/workbook-text.ts';
export { xlsx } from './publish/sheets/xlsx.ts';
