/**
 * Columns of text lined up at the right, under a header and a rule, for a terminal.
 *
 * @param most characters of a line; a wider table is parted, and each part repeats the first column
 * @example plainTable(['h'], [['0.5']])
 */
export function plainTable(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  most = Infinity,
): string {
  const widths = header.map((title, i) => Math.max(title.length, ...rows.map((row) => row[i]?.length ?? 0)));
  const line = (cells: readonly string[], places: readonly number[]): string =>
    cells
      .map((cell, i) => cell.padStart(widths[places[i] ?? 0] ?? 0))
      .join('  ')
      .trimEnd();
  const parts = partsOf(widths, most);
  const only = (cells: readonly string[], part: readonly number[]): string =>
    line(
      part.map((i) => cells[i] ?? ''),
      part,
    );
  return parts
    .map((part) =>
      [
        only(header, part),
        part.map((i) => '-'.repeat(widths[i] ?? 0)).join('  '),
        ...rows.map((row) => only(row, part)),
      ].join('\n'),
    )
    .join('\n\n');
}

/** Columns by place, parted so that no line is longer than `most` where that is possible. */
function partsOf(widths: readonly number[], most: number): readonly (readonly number[])[] {
  const parts: number[][] = [];
  let room = 0;
  widths.forEach((width, i) => {
    const part = parts.at(-1);
    if (part === undefined || (width + 2 > room && part.length > 1)) {
      parts.push(i === 0 ? [0] : [0, i]);
      room = most - (widths[0] ?? 0) - (i === 0 ? 0 : width + 2);
    } else {
      part.push(i);
      room -= width + 2;
    }
  });
  return parts;
}
