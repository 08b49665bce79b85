import { zipSync } from 'fflate';

/** A file of an archive. */
export interface ArchiveFile {
  /** With its folders. */
  readonly name: string;
  /** Its bytes in base 64. */
  readonly content: string;
}

/** Bytes, or those of a text in UTF-8, in base 64. */
export function base64(content: Uint8Array | string): string {
  return Buffer.from(content).toString('base64');
}

/** The time that all files of an archive have: the same files give the same bytes. */
const TIME = new Date(2000, 0, 1);

/** The bytes of an archive, in base 64. */
export function archiveOf(files: readonly ArchiveFile[]): string {
  const entries = files.map(({ name, content }) => [name, Buffer.from(content, 'base64')] as const);
  return base64(zipSync(Object.fromEntries(entries), { mtime: TIME }));
}
