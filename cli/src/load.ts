import { readFileSync } from 'node:fs';
import { type SchrittDocument, openStudy, type StudyDocument } from '@schritt/core/document';
import { readDocumentText } from '@schritt/core/format';
import type { TextError } from '@schritt/core/notation';
import type { Study } from '@schritt/core/study';
import { Failure } from './failure.ts';

/** The name by which standard input is asked for. */
const STANDARD_INPUT = '-';

/** The text of a file, or of standard input. */
export function textOf(file: string): string {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(file === STANDARD_INPUT ? process.stdin.fd : file);
  } catch (thrown) {
    throw new Failure([
      `${file}: cannot be read (${thrown instanceof Error ? thrown.message : String(thrown)})`,
    ]);
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Failure([`${file}: is not UTF-8; save it in this encoding`]);
  }
}

/** Reads a file of the open format, or standard input for `-`; faults come with their places. */
export function loadDocument(file: string): SchrittDocument {
  const text = textOf(file);
  const reading = readDocumentText(text);
  if (!reading.ok) throw new Failure(reading.errors.map((e) => `${file}: ${e.place}: ${e.message}`));
  return reading.document;
}

/** The errors of a text as lines `file: title: line:column: message`. */
export function errorLines(file: string, title: string, errors: readonly TextError[]): readonly string[] {
  return errors.map((e) => `${file}: ${title}: line ${e.line}, column ${e.column}: ${e.message}`);
}

/** Reads a study and all its texts. */
export function loadStudy(file: string): { readonly document: StudyDocument; readonly study: Study } {
  const document = loadDocument(file);
  if (document.kind !== 'study')
    throw new Failure([`${file}: kind: expected a study, found a ${document.kind}`]);
  const opened = openStudy(document);
  if (!opened.ok) throw new Failure(opened.errors.flatMap((t) => errorLines(file, t.title, t.errors)));
  return { document, study: opened.study };
}
