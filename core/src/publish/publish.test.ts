import { csv } from './csv.ts';
import { significant, stepSizeText } from '../text/number-text.ts';
import { plainTable } from './plain-table.ts';

test('CSV by RFC 4180, and no text is ever a formula', () => {
  expect(csv([['a,b', 'say "x"', 'two\nlines', null, true, 1 / 3]])).toBe(
    `"a,b","say ""x""","two\nlines",,true,${1 / 3}\r\n`,
  );
  expect(csv([['=1+1', '+x', '-x', '@x', 'x=1']])).toBe("'=1+1,'+x,'-x,'@x,x=1\r\n");
});

test.each([
  [0.06451234, '0.06451'],
  [1.05e-5, '1.050e-5'],
  [17.994, '17.99'],
  [12345.678, '12346'],
  [-0.5, '-0.5000'],
  [0, '0'],
])('%f with four significant digits is %s', (value, text) => {
  expect(significant(value, 4)).toBe(text);
});

test.each([
  [0.1, '0.1'],
  [0.03125, '0.03125'],
  [1 / 3, '0.333333'],
  [2 / 6, '0.333333'],
  [0.1 + 0.2, '0.3'],
  [1e-7, '1e-7'],
])('the step size %f reads %s', (h, text) => {
  expect(stepSizeText(h)).toBe(text);
});

test('columns stand at the right under their titles', () => {
  expect(
    plainTable(
      ['h', 'error'],
      [
        ['0.5', '1'],
        ['0.25', '0.125'],
      ],
    ),
  ).toBe('   h  error\n----  -----\n 0.5      1\n0.25  0.125');
});
