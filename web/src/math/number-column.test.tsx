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

test('a column between 1e-3 and 1e6 is written in decimals that meet at the point', () => {
  expect(printed([88.2, 1.234, 0.00396, 0, 123456])).toEqual([
    '88.2____',
    '1.23___',
    '0.00396',
    '0______',
    '123456______',
  ]);
});

test('one number outside that range gives the whole column powers of ten', () => {
  expect(printed([88.2, 1e-5])).toEqual(['8.82×101', '1.00×10−5']);
  expect(printed([2e6, 1])).toEqual(['2.00×106', '1.00×100']);
  expect(printed([0.5, 0.000999])).toEqual(['5.00×10−1', '9.99×10−4']);
});

test('a column that crosses zero keeps its decimals for the small values next to the crossing', () => {
  expect(printed([0.3, 0.00021, -0.29])).toEqual(['0.300___', '0.000210', '−0.290___']);
  expect(printed([3, 2e-5, -3])[1]).toBe('2.00×10−5');
});

test('columns that are never written with powers of ten, and values that are none', () => {
  const column = numberColumn([1e-9, NaN, null, 2.5], 3, String, false);
  expect(printed([1e-9, 2.5, NaN], column)).toEqual(['1e−9', '2.5', 'NaN__']);
  expect(render(<ColumnNumber value={null} column={column} />).container.textContent).toBe('');
});
