import { strFromU8, type UnzipFileInfo, type Unzipped, unzipSync } from 'fflate';
import type { SubmittedText } from '../../marking/submission.ts';
import { Refusal } from '../../text/refusal.ts';
import { sheetText } from './sheet-text.ts';

/** A file as it was handed in. */
export interface SubmittedBytes {
  /** With its folders, as in an archive. */
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What was handed in, as texts, and what of it cannot be read. */
export interface SubmittedTexts {
  readonly texts: readonly SubmittedText[];
  readonly unread: readonly { readonly name: string; readonly why: string }[];
}

/** Most files, and bytes of all files of an archive. */
const MAX_FILES = 1_000;
const MAX_BYTES = 50_000_000;

/** Files that systems put beside those of a person. */
function isHidden(name: string): boolean {
  return name.endsWith('/') || name.split('/').some((part) => part.startsWith('.') || part === '__MACOSX');
}

function unzipped({ name, bytes }: SubmittedBytes): readonly SubmittedBytes[] {
  let [files, size] = [0, 0];
  const filter = (entry: UnzipFileInfo): boolean => {
    if (isHidden(entry.name)) return false;
    files += 1;
    size += entry.originalSize;
    return files <= MAX_FILES && size <= MAX_BYTES;
  };
  let entries: Unzipped;
  try {
    entries = unzipSync(bytes, { filter });
  } catch {
    throw new Refusal('form', `${name} is not an archive that can be read`);
  }
  if (files > MAX_FILES || size > MAX_BYTES)
    throw new Refusal('size', `${name} has more than ${MAX_FILES} files or ${MAX_BYTES / 1e6} megabytes`);
  return Object.entries(entries).map(([entry, content]) => ({ name: entry, bytes: content }));
}

/** A text in UTF-16, by pairs of bytes behind their mark. */
function fromPairs(bytes: Uint8Array, isLittle: boolean): string {
  let text = '';
  for (let i = 2; i + 1 < bytes.length; i += 2) {
    const [first = 0, second = 0] = [bytes[i], bytes[i + 1]];
    text += String.fromCharCode(isLittle ? first | (second << 8) : (first << 8) | second);
  }
  return text;
}

/** A text in UTF-8, in UTF-16 with its mark, or with one byte a letter as older programs write it. */
function decoded(bytes: Uint8Array): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return fromPairs(bytes, true);
  if (first === 0xfe && second === 0xff) return fromPairs(bytes, false);
  const text = strFromU8(bytes).replace(/^\ufeff/, '');
  return text.includes('\ufffd') ? strFromU8(bytes, true) : text;
}

async function textsOf(file: SubmittedBytes): Promise<readonly SubmittedText[]> {
  const { name, bytes } = file;
  const [, ending = ''] = /\.([^./]+)$/.exec(name.toLowerCase()) ?? [];
  if (ending === 'xlsx' || ending === 'ods') return [{ name, text: await sheetText(bytes, ending) }];
  const text = decoded(bytes);
  if (text.includes('\0')) throw new Refusal('form', 'this is not a table; use CSV, text, .xlsx or .ods');
  return [{ name, text }];
}

/**
 * The texts of files that were handed in: CSV and text as they are, the first sheet with numbers of a spreadsheet, and all files
 * of an archive, with the folders of their names.
 *
 * @example await submittedTexts([{ name: 'Anna.csv', bytes: new Uint8Array() }])
 */
export async function submittedTexts(files: readonly SubmittedBytes[]): Promise<SubmittedTexts> {
  const texts: SubmittedText[] = [];
  const unread: { readonly name: string; readonly why: string }[] = [];
  const take = async (file: SubmittedBytes): Promise<void> => {
    try {
      if (!/\.zip$/i.test(file.name)) texts.push(...(await textsOf(file)));
      else for (const entry of unzipped(file)) await take(entry);
    } catch (thrown) {
      if (!(thrown instanceof Refusal)) throw thrown;
      unread.push({ name: file.name, why: thrown.message });
    }
  };
  for (const file of files.filter(({ name }) => !isHidden(name))) await take(file);
  return { texts, unread };
}
