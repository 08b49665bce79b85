/** A cell as a spreadsheet takes it: a number with all its digits, or its text in one line. */
function cellText(cell: Element): string {
  const full = cell.querySelector('[data-full]')?.getAttribute('data-full');
  return (full ?? cell.textContent).replaceAll('\u2212', '-').replaceAll(/\s+/g, ' ').trim();
}

/** The selected cells of a table, row by row; null where the selection is not within one table, or in one cell alone. */
export function selectedCells(selection: Selection | null): readonly (readonly string[])[] | null {
  if (selection === null || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  const { commonAncestorContainer: around } = range;
  const element = around instanceof Element ? around : around.parentElement;
  const table = element?.closest('table') ?? null;
  if (table === null) return null;
  const rows = [...table.querySelectorAll('tr')].map((row) =>
    [...row.cells]
      .filter((cell) => range.intersectsNode(cell))
      .flatMap((cell) => [
        cellText(cell),
        // a cell over several columns leaves the others under it
        ...Array.from({ length: cell.colSpan - 1 }, () => ''),
      ]),
  );
  const selected = rows.filter((row) => row.length > 0);
  return selected.length === 1 && selected[0]?.length === 1 ? null : selected;
}

/** A text that is no markup. */
function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
}

/** Cells with tabs between them, and as a table. */
export function copiedTable(rows: readonly (readonly string[])[]): {
  readonly text: string;
  readonly html: string;
} {
  const line = (row: readonly string[]): string =>
    `<tr>${row.map((cell) => `<td>${escaped(cell)}</td>`).join('')}</tr>`;
  return {
    text: rows.map((row) => row.join('\t')).join('\n'),
    html: `<table>${rows.map(line).join('')}</table>`,
  };
}

/** What of an event of copying is needed here. */
interface CopyEvent {
  readonly clipboardData: Pick<DataTransfer, 'setData'> | null;
  preventDefault(): void;
}

/** Puts selected cells of a table on the clipboard as plain numbers; any other selection is copied as usual. */
export function copyCells(event: CopyEvent): void {
  const rows = selectedCells(document.getSelection());
  if (rows === null || event.clipboardData === null) return;
  const { text, html } = copiedTable(rows);
  event.clipboardData.setData('text/plain', text);
  event.clipboardData.setData('text/html', html);
  event.preventDefault();
}
