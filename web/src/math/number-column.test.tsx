/** @jest-environment jsdom */
import { render } from '@testing-library/react';
import { ColumnNumber, errorColumn, numberColumn } from './number-column.tsx';

/** A column as it is printed. */
function printed(values: readonly number[], column = errorColumn(values)): readonly string[] {
  return values.map((value) => render(<ColumnNumber value={value} column={column} />).container.textContent);
}

/** The room that a number of a column leaves from the point on. */
function roomOf(value: number, values: readonly number[]): string | undefined {
  const { container } = render(<ColumnNumber value={value} column={errorColumn(values)} />);
  return container.querySelector<HTMLElement>('.from-point')?.style.minWidth;
}

test('numbers between 1e-3 and 1e6 are decimals, numbers beyond have a power of ten', () => {
  expect(printed([88.2, 1.234, 0.00396, 0, 123456])).toEqual(['88.2', '1.23', '0.00396', '0', '123456']);
  expect(printed([1e6, 999999, 0.001, 0.000999, -1e-5])).toEqual([
    '1.00×106',
    '999999',
    '0.00100',
    '9.99×10−4',
    '−1.00×10−5',
  ]);
});

test('all numbers of a column have the same room from the point on, that of the longest', () => {
  expect(roomOf(88.2, [88.2, 0.00396])).toBe('3.30em');
  expect(roomOf(0.00396, [88.2, 0.00396])).toBe('3.30em');
  expect(roomOf(88.2, [88.2, 1e-10])).toBe('4.35em');
  expect(roomOf(7, [7, 8])).toBe('1.50em');
});

test('columns without powers of ten, and values that are none', () => {
  const column = numberColumn([1e-9, NaN, null, 2.5], null, String);
  expect(printed([1e-9, 2.5, NaN], column)).toEqual(['1e−9', '2.5', 'NaN']);
  expect(render(<ColumnNumber value={null} column={column} />).container.textContent).toBe('');
});
