/** Files of sheets, for spreadsheets. */
export { sheetText } from './publish/sheets/sheet-text.ts';
export { workbookText } from './publish/sheets/workbook-text.ts';
export { ods } from './publish/sheets/ods.ts';
export { xlsx } from './publish/sheets/xlsx.ts';
