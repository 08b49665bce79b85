/** Files of sheets, for spreadsheets, and files that were handed in. */
export { sheetText } from './publish/sheets/sheet-text.ts';
export {
  type SubmittedBytes,
  submittedTexts,
  type SubmittedTexts,
} from './publish/sheets/submitted-texts.ts';
export { workbookText } from './publish/sheets/workbook-text.ts';
export { ods } from './publish/sheets/ods.ts';
export { xlsx } from './publish/sheets/xlsx.ts';
