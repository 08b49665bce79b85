/**
 * Columns of text lined up at the right, under a header and a rule, for a terminal.
 *
 * @example plainTable(['h'], [['0.5']])
 */
export function plainTable(header: readonly string[], rows: readonly (readonly string[])[]): string {
  const widths = header.map((title, i) => Math.max(title.length, ...rows.map((row) => row[i]?.length ?? 0)));
  const line = (cells: readonly string[]): string =>
    cells
      .map((cell, i) => cell.padStart(widths[i] ?? 0))
      .join('  ')
      .trimEnd();
  return [line(header), widths.map((w) => '-'.repeat(w)).join('  '), ...rows.map(line)].join('\n');
}
