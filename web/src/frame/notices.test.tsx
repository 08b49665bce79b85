/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { NoticeList } from './notice-list.tsx';
import { tellDone, tellFailed, told } from './notices.ts';

beforeEach(() => {
  jest.useFakeTimers();
  render(<NoticeList />);
});
afterEach(() => {
  act(() => jest.runAllTimers());
  jest.useRealTimers();
});

test('what was done is told for a while, and can be taken back', () => {
  const undo = jest.fn();
  act(() => tellDone('“Sluice” is in the bin.', { label: 'Undo', run: undo }));
  expect(screen.getByRole('status').textContent).toContain('“Sluice” is in the bin.');
  fireEvent.click(screen.getByRole('button', { name: 'Undo' }));
  expect(undo).toHaveBeenCalledTimes(1);
  expect(screen.queryByRole('status')).toBeNull();
});

test('notices stand below one another, each for its time, and can be closed before', () => {
  act(() => tellDone('one'));
  act(() => jest.advanceTimersByTime(5000));
  act(() => tellFailed('two'));
  expect(screen.getByRole('alert').textContent).toContain('two');
  act(() => jest.advanceTimersByTime(4000));
  expect([screen.queryByText('one'), screen.getByText('two')]).toEqual([null, expect.anything()]);
  fireEvent.click(screen.getByRole('button', { name: 'Close' }));
  expect(screen.queryByText('two')).toBeNull();
});

test('work that fails says why', async () => {
  await act(async () => {
    told(() => Promise.reject(new Error('the server does not answer')))();
    await Promise.resolve();
  });
  expect(screen.getByRole('alert').textContent).toContain('the server does not answer');
});
