/** @jest-environment jsdom */
import { render } from '@testing-library/react';
import { ColumnNumber, errorColumn, numberColumn } from './number-column.tsx';

/** A column as it is printed, with `_` for blanks as wide as a digit or a point. */
function printed(values: readonly number[], column = errorColumn(values)): readonly string[] {
  return values.map((value) => {
    const { container } = render(<ColumnNumber value={value} column={column} />);
    return container.textContent.replace(/[\u2007\u2008]/g, '_');
  });
}

test('numbers between 1e-3 and 1e6 are decimals that meet at the point', () => {
  expect(printed([88.2, 1.234, 0.00396, 0, 123456])).toEqual([
    '88.2____',
    '1.23___',
    '0.00396',
    '0______',
    '123456______',
  ]);
});

test('numbers beyond have a power of ten, and leave room for it at the others', () => {
  expect(printed([88.2, 1e-5])).toEqual(['88.2_', '1.00×10−5']);
  expect(printed([1e6, 999999, 0.001, 0.000999])).toEqual([
    '1.00___×106',
    '999999______',
    '0.00100',
    '9.99___×10−4',
  ]);
  const column = errorColumn([88.2, -1e-10]);
  const room = (value: number): string | undefined =>
    render(<ColumnNumber value={value} column={column} />).container.querySelector('small')?.style.minWidth;
  expect(room(88.2)).toBe('3.42em');
  expect(room(-1e-10)).toBe(room(88.2));
});

test('columns without powers of ten, and values that are none', () => {
  const column = numberColumn([1e-9, NaN, null, 2.5], null, String);
  expect(printed([1e-9, 2.5, NaN], column)).toEqual(['1e−9', '2.5', 'NaN__']);
  expect(render(<ColumnNumber value={null} column={column} />).container.textContent).toBe('');
});
