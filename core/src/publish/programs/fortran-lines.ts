/** Longest line that is written; the standard has 132. */
const LONGEST = 120;

/** A long line is gone on with in the next. */
export function broken(line: string): readonly string[] {
  if (line.length <= LONGEST || line.trimStart().startsWith('!')) return [line.slice(0, 132)];
  const indent = line.length - line.trimStart().length;
  const at = Math.max(line.lastIndexOf(' ', LONGEST), line.lastIndexOf('*', LONGEST), indent + 40);
  return [`${line.slice(0, at)}&`, ...broken(`${' '.repeat(indent + 2)}&${line.slice(at)}`)];
}
