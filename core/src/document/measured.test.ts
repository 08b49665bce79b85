import { readMeasured } from './measured.ts';

const LEVEL = [
  {
    component: 'level',
    points: [
      { t: 0, value: 4 },
      { t: 0.5, value: 3.65 },
    ],
  },
];

test.each([
  ['CSV with a head', 't,level\r\n0,4\r\n0.5,3.65\r\n'],
  ['no head', '0,4\n0.5,3.65'],
  ['columns of a spreadsheet, with a comma for the point', 'time\tlevel\n0\t4\n0,5\t3,65'],
  ['semicolons, blank lines and remarks', '# by hand\n\n0; 4\n0,5; 3,65\n'],
  ['spaces', '0 4\n5e-1   3.65'],
  ['quotes', '"t","level"\n"0","4"\n".5","3.65"'],
])('%s is read', (_, text) => {
  expect(readMeasured(text, ['level'])).toEqual({ ok: true, series: LEVEL });
});

test('columns go to components by their names or in their order; empty cells are no points', () => {
  const byName = readMeasured("t;x';x\n0;1;2\n1;;3", ['x', "x'"]);
  expect(byName).toEqual({
    ok: true,
    series: [
      { component: "x'", points: [{ t: 0, value: 1 }] },
      {
        component: 'x',
        points: [
          { t: 0, value: 2 },
          { t: 1, value: 3 },
        ],
      },
    ],
  });
  const inOrder = readMeasured('0,1,2', ['x', "x'"]);
  expect(inOrder.ok && inOrder.series.map(({ component }) => component)).toEqual(['x', "x'"]);
  expect(readMeasured(' \n# nothing', ['x'])).toEqual({ ok: true, series: [] });
});

test.each<[string, number, number, string]>([
  ['t,depth\n0,4', 1, 3, 'there is no component depth; the columns after the time are named level'],
  ['0,4\nx,5', 2, 1, 'a line starts with a time'],
  ['0,4\n1, -', 2, 4, '- is not a number'],
  ['0,4\n1,5,6', 2, 5, 'there is one column of values, and this is one more'],
  [Array.from({ length: 5_001 }, (_, i) => `${i},1`).join('\n'), 5_001, 1, 'at most 5000 points'],
])('what cannot be read is reported with its place: %#', (text, line, column, message) => {
  const reading = readMeasured(text, ['level']);
  expect(reading.ok ? null : reading.errors[0]).toMatchObject({
    line,
    column,
    message: expect.stringContaining(message),
  });
});
