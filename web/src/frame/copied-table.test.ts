/** @jest-environment jsdom */
import { copiedTable, copyCells, selectedCells } from './copied-table.ts';

const TABLE = `<p id="before">before</p><table><thead><tr><td colspan="2"></td><th colspan="2">Euler &amp; co</th></tr>
<tr><th>h</th><th>N</th><th>error</th><th>order</th></tr></thead><tbody>
<tr><th><span data-full="0.5">0.5</span></th><td>16</td><td><span data-full="0.07281234">7.28<sub>×10</sub><sup>−2</sup></span></td><td>−1.02</td></tr>
<tr><th>0.25</th><td>32</td><td>0.0364</td><td>1.00</td></tr></tbody></table><p id="after">after</p>`;

function select(from: string, to: string): Selection {
  const selection = document.getSelection()!;
  const range = document.createRange();
  const end = document.querySelector(to)!;
  range.setStart(document.querySelector(from)!, 0);
  range.setEnd(end, end.childNodes.length);
  selection.removeAllRanges();
  selection.addRange(range);
  return selection;
}

beforeEach(() => {
  document.body.innerHTML = TABLE;
});

test('selected cells are copied as plain numbers with all digits, under their headings', () => {
  const rows = selectedCells(select('thead tr:nth-child(2) th', 'tbody tr:last-child td:last-child'));
  expect(rows).toEqual([
    ['h', 'N', 'error', 'order'],
    ['0.5', '16', '0.07281234', '-1.02'],
    ['0.25', '32', '0.0364', '1.00'],
  ]);
  expect(copiedTable(rows!).text).toBe(
    'h\tN\terror\torder\n0.5\t16\t0.07281234\t-1.02\n0.25\t32\t0.0364\t1.00',
  );
  expect(copiedTable([['<b>', 'a & b']]).html).toBe(
    '<table><tr><td>&lt;b&gt;</td><td>a &amp; b</td></tr></table>',
  );
});

test('a heading over several columns keeps the others under it', () => {
  expect(selectedCells(select('thead tr:first-child td', 'thead tr:nth-child(2) th:last-child'))![0]).toEqual(
    ['', '', 'Euler & co', ''],
  );
});

test('what is no part of a table, or one cell alone, is copied as usual', () => {
  expect(selectedCells(select('#before', '#after'))).toBeNull();
  expect(selectedCells(select('tbody td', 'tbody td'))).toBeNull();
  const [setData, preventDefault] = [jest.fn(), jest.fn()];
  const event = { clipboardData: { setData }, preventDefault };
  copyCells(event);
  expect(preventDefault).not.toHaveBeenCalled();
  select('thead tr:nth-child(2) th', 'tbody tr:last-child td:last-child');
  copyCells(event);
  expect(setData).toHaveBeenCalledWith('text/plain', expect.stringContaining('\t0.07281234\t'));
  expect(setData).toHaveBeenCalledWith('text/html', expect.stringContaining('<td>0.07281234</td>'));
});
