import { type MeasuredOf, type MeasuredReading, readMeasured } from './measured.ts';

function read(text: string, components: readonly string[]): MeasuredReading {
  const of: MeasuredOf = { components, start: 0, end: 6 };
  return readMeasured(text, of);
}

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
  ['a head with a unit', 't (h)\tlevel (m)\n0\t4\n0.5\t3.65'],
  ['a unit behind a slash', 't / h;level / m\n0;4\n0,5;3,65'],
  ['quotes', '"t","level"\n"0","4"\n".5","3.65"'],
])('%s is read', (_, text) => {
  expect(read(text, ['level'])).toEqual({ ok: true, series: LEVEL, spacing: null });
});

test('columns go to components by their names or in their order; empty cells are no points', () => {
  const byName = read("t;x';x\n0;1;2\n1;;3", ['x', "x'"]);
  expect(byName).toEqual({
    ok: true,
    spacing: null,
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
  const inOrder = read('0,1,2', ['x', "x'"]);
  expect(inOrder.ok && inOrder.series.map(({ component }) => component)).toEqual(['x', "x'"]);
  expect(read(' \n# nothing', ['x'])).toEqual({ ok: true, series: [], spacing: null });
});

test.each<[string, number, number, string]>([
  ['t,depth\n0,4', 1, 3, 'there is no component depth; the columns after the time are named level'],
  ['0,4\nx,5', 2, 1, 'a line starts with a time'],
  ['0,4\n1, -', 2, 4, '- is not a number'],
  ['0,4\n1,5,6', 2, 5, 'there is one column of values, and this is one more'],
  [Array.from({ length: 5_001 }, (_, i) => `${i},1`).join('\n'), 5_001, 1, 'at most 5000 points'],
])('what cannot be read is reported with its place: %#', (text, line, column, message) => {
  const reading = read(text, ['level']);
  expect(reading.ok ? null : reading.errors[0]).toMatchObject({
    line,
    column,
    message: expect.stringContaining(message),
  });
});

test.each([
  ['4\n3.65\n3.3\n', 'level'],
  ['# from a spreadsheet\n\ndepth\n4\n3.65\n\n3.3', 'depth'],
])('a single column holds values from the start to the end of the interval: %#', (text, component) => {
  expect(read(text, ['level', 'depth'])).toEqual({
    ok: true,
    spacing: 3,
    series: [
      {
        component,
        points: [
          { t: 0, value: 4 },
          { t: 3, value: 3.65 },
          { t: 6, value: 3.3 },
        ],
      },
    ],
  });
});

test.each([
  ['4', 1, 'a single column needs two values or more'],
  ['width\n4\n3', 1, 'there is no component width'],
  ['4\nmany\n3', 2, 'many is not a number'],
])('a single column that cannot be read is reported: %j', (text, line, message) => {
  const reading = read(text, ['level']);
  expect(reading.ok ? null : reading.errors).toEqual([
    expect.objectContaining({ line, column: 1, message: expect.stringContaining(message) }),
  ]);
});
