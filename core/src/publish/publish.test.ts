import { csv } from './csv.ts';
import { plainTable } from './plain-table.ts';

test('CSV by RFC 4180, and no text is ever a formula', () => {
  expect(csv([['a,b', 'say "x"', 'two\nlines', null, true, 1 / 3]])).toBe(
    `"a,b","say ""x""","two\nlines",,true,${1 / 3}\r\n`,
  );
  expect(csv([['=1+1', '+x', '-x', '@x', 'x=1']])).toBe("'=1+1,'+x,'-x,'@x,x=1\r\n");
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
