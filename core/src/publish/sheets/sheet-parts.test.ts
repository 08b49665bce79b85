import { cellAt, fromBelow, writerOf } from './cell-formula.ts';
import { CellNames } from './sheet-names.ts';
import { sheetWriting, shortNumber } from './sheet-writing.ts';
import { cell, cellAddress, columnLetters, type Workbook } from './workbook.ts';
import { workbookText } from './workbook-text.ts';

test('columns have letters, cells addresses', () => {
  expect([0, 25, 26, 51, 52, 701, 702].map(columnLetters)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA', 'ZZ', 'AAA']);
  expect(cellAddress(0, 0)).toBe('A1');
  expect(cellAddress(41, 27)).toBe('AB42');
});

test('a formula is written for every row, and seen from another one', () => {
  const formula = `${cellAt(2)}+h*${cellAt(27, -1)}`;
  expect(writerOf(formula)(4)).toBe('C5+h*AB4');
  expect(writerOf(fromBelow(formula, 1))(5)).toBe('C5+h*AB4');
});

test('numbers keep all their digits: as they are, as a quotient, or in a cell of their own', () => {
  expect(shortNumber(0.35)).toBe('0.35');
  expect(shortNumber(1 / 3)).toBe('(1/3)');
  expect(shortNumber(251 / 720)).toBe('(251/720)');
  expect(shortNumber(Math.SQRT2)).toBeNull();
  // not every spreadsheet reads a power of ten
  expect(shortNumber(1e-9)).toBeNull();
  const asked: number[] = [];
  const writing = sheetWriting((value) => {
    asked.push(value);
    return 'number';
  });
  expect(writing.number(Math.SQRT2)).toBe('number');
  expect(asked).toEqual([Math.SQRT2]);
});

test('functions have the names and the order of a spreadsheet', () => {
  const { call, power, choice } = sheetWriting(() => 'number');
  expect(power('x', '0.5').text).toBe('POWER(x,0.5)');
  expect(call('ln', ['x'])).toBe('LN(x)');
  expect(call('atan2', ['y', 'x'])).toBe('ATAN2(x,y)');
  expect(call('max', ['a', 'b', 'c'])).toBe('MAX(a,b,c)');
  const parts = { left: 'a', right: 'b', yes: '1', no: '2' };
  expect(choice({ ...parts, relation: '!=' })).toBe('IF(a<>b,1,2)');
  expect(choice({ ...parts, relation: '==' })).toBe('IF(a=b,1,2)');
});

test('names of cells are no cells, and differ by more than the case of letters', () => {
  const names = new CellNames();
  const request = ['k', 'K', 'a1', 'R1C1', 'r', 'true', 'x y', 'λ', 'e', 'level_0'];
  expect(request.map((name) => names.make(name))).toEqual([
    'k',
    'K_2',
    'a1_',
    'R1C1_',
    'r_',
    'true_',
    'xy',
    'lambda',
    'e_',
    'level_0',
  ]);
});

test('a file is reported as text, sheet by sheet, with formulas for values', () => {
  const book: Workbook = {
    title: 'Probe',
    names: [],
    sheets: [
      {
        name: 'One',
        widths: [],
        frozen: { rows: 0, columns: 0 },
        rows: [
          [cell('A long title that runs over other cells', 'title')],
          [cell('n', 'head'), cell('y', 'head')],
          [cell(0), cell({ formula: 'y_start', result: 4 })],
          ...Array.from({ length: 30 }, (_, n) => [cell(n + 1), cell({ formula: `B${n + 3}+1` })]),
        ],
      },
    ],
  };
  const lines = workbookText(book).split('\n');
  expect(lines[0]).toBe('One');
  expect(lines[1]).toMatch(/^ +A +B$/);
  expect(lines[4]).toBe('  3  0   =y_start');
  expect(lines).toContain('     and 19 more rows');
});
