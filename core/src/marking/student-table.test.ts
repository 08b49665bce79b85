import { readStudentTable, studentCell } from './student-table.ts';

test.each<[string, boolean, number | null, number]>([
  ['1.2706', false, 1.2706, 4],
  ['1,2706', true, 1.2706, 4],
  ['\u22121.50', false, -1.5, 2],
  ['1.27E-03', false, 0.00127, 5],
  ['1,27·10^-3', true, 0.00127, 5],
  ['7.28×10−2', false, 0.0728, 4],
  ['1,234.5', false, 1234.5, 1],
  ['1.234,5', true, 1234.5, 1],
  ['12 345,25', true, 12345.25, 2],
  ["12'345.25", false, 12345.25, 2],
  ['1.27 m', false, 1.27, 2],
  ['3,30 m²', true, 3.3, 2],
  ['.5', false, 0.5, 1],
  ['5.', false, 5, 0],
  // one sign that separates no thousands is the decimal sign
  ['1.27', true, 1.27, 2],
  ['1,27', false, 1.27, 2],
  ['', false, null, 0],
  ['n/a', false, null, 0],
  ['1.2.3', false, null, 0],
  ['12-13', false, null, 0],
])('%j with a decimal comma: %j is %j', (text, comma, value, decimals) => {
  const cell = studentCell(text, comma);
  expect(cell?.value ?? null).toBe(value);
  if (cell !== null) expect(cell.decimals).toBe(decimals);
});

const valuesOf = (text: string): readonly (readonly (number | null)[])[] =>
  readStudentTable(text).columns.map(({ cells }) => cells.map((cell) => cell?.value ?? null));

test.each<[string, string, readonly (readonly (number | null)[])[]]>([
  [
    'commas and points',
    't,y\n0,1.5\n0.1,1.25',
    [
      [0, 0.1],
      [1.5, 1.25],
    ],
  ],
  [
    'semicolons and decimal commas',
    't;y\n0;1,5\n0,1;1,25',
    [
      [0, 0.1],
      [1.5, 1.25],
    ],
  ],
  [
    'tabs',
    '0\t1,5\n1\t1,25',
    [
      [0, 1],
      [1.5, 1.25],
    ],
  ],
  [
    'spaces',
    '0   1.5\n1   1.25',
    [
      [0, 1],
      [1.5, 1.25],
    ],
  ],
  ['one column with decimal commas', '3,2916\n2,6667', [[3.2916, 2.6667]]],
  [
    'counts and values between commas',
    '0,4\n1,3\n2,2',
    [
      [0, 1, 2],
      [4, 3, 2],
    ],
  ],
  [
    'a missing cell and a word',
    'n;y\n0;1\n1;\n2;oops\n3;4',
    [
      [0, 1, 2, 3],
      [1, null, null, 4],
    ],
  ],
  [
    'values behind their names, as programs print them',
    'n = 0, t = 0.00: y = 1.5\nn = 1, t = 0.10: y = 1.25e0',
    [
      [0, 1],
      [0, 0.1],
      [1.5, 1.25],
    ],
  ],
  ['quoted fields and comments', '# a class\n"n";"y"\n0;"1,5"', [[0], [1.5]]],
])('%s', (_, text, values) => {
  expect(valuesOf(text)).toEqual(values);
});

test('what is no number is reported with its line', () => {
  const table = readStudentTable('n;y\n0;1\n1;about 2');
  expect(table.unread).toEqual([{ line: 3, column: 1, text: 'about 2' }]);
  expect(table.lines).toEqual([2, 3]);
  expect(table.columns.map(({ title }) => title)).toEqual(['n', 'y']);
});
