/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import { PreparedTable } from './prepared-table.tsx';

beforeAll(() => {
  Object.assign(window, {
    matchMedia: () => ({ matches: false, addEventListener: jest.fn(), removeEventListener: jest.fn() }),
  });
});

beforeEach(() => {
  jest.useFakeTimers();
});

afterEach(() => {
  jest.useRealTimers();
});

test('a table is made while the page is idle, and neither seen nor read out', () => {
  const { container } = render(<PreparedTable />);
  expect(container.querySelector('table')).toBeNull();
  act(() => jest.runAllTimers());
  expect(container.querySelectorAll('tbody tr[data-row-key]').length).toBe(12);
  expect(screen.queryByRole('table')).toBeNull();
});

test('a page that is left before makes none', () => {
  const { unmount, container } = render(<PreparedTable />);
  unmount();
  act(() => jest.runAllTimers());
  expect(container.querySelector('table')).toBeNull();
});
