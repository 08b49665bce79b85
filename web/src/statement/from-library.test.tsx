/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { FromLibrary } from './from-library.tsx';
import { listedMethod } from './listed-method.ts';
import { isListed } from './search-list.tsx';

jest.mock('openapi-fetch', () => ({ __esModule: true, default: () => ({}) }));

test('a list opens from its word, and leaves the keys there when it closes', () => {
  const fetch = jest.fn(() => Promise.resolve());
  render(
    <FromLibrary
      text="Add from library"
      label="Add from library"
      fetch={fetch}
      list={(close) => (
        <button type="button" onClick={close}>
          the list
        </button>
      )}
    />,
  );
  expect(screen.queryByText('the list')).toBeNull();
  const word = screen.getByRole('button', { name: 'Add from library' });
  fireEvent.pointerEnter(word);
  expect(fetch).toHaveBeenCalled();
  fireEvent.click(word);
  fireEvent.click(screen.getByText('the list'));
  expect(screen.queryByText('the list')).toBeNull();
  expect(document.activeElement?.textContent).toBe('Add from library');
});

test.each([
  ['heun', true],
  ['ORDER 2', true],
  ['explicit heun', true],
  ['implicit', false],
  ['', true],
])('a row is found by every word that is sought: %j, %s', (sought, found) => {
  const heun = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)\n';
  const row = listedMethod('a', 'Heun', heun);
  expect(row.told).toContain('explicit, one step');
  expect(isListed({ label: row.label, told: `order 2, ${row.told}` }, sought)).toBe(found);
});
