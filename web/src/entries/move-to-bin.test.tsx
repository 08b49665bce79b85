/** @jest-environment jsdom */
import { act, fireEvent, screen } from '@testing-library/react';
import { deleteEntry, type EntryRow, restoreEntry } from '../api/client.ts';
import { ConfigProvider, notification } from 'antd';
import { moveToBin } from './entry-row.tsx';

jest.mock('react-router', () => ({ Link: () => null }));
jest.mock('openapi-fetch', () => ({ __esModule: true, default: () => ({}) }));
jest.mock('../api/client.ts', () => ({
  ...jest.requireActual<object>('../api/client.ts'),
  deleteEntry: jest.fn(),
  restoreEntry: jest.fn(),
}));

const remove = jest.mocked(deleteEntry);
const restore = jest.mocked(restoreEntry);

const row = (id: string): EntryRow => ({
  id,
  kind: 'study',
  version: 1,
  updatedAt: '',
  title: `Study ${id}`,
  excerpt: '',
  methods: [],
});
const again = jest.fn().mockResolvedValue(undefined);

/** Clicks a button, and waits for what follows from it. */
async function click(name: string): Promise<void> {
  await act(async () => {
    fireEvent.click(screen.getByRole('button', { name }));
    await Promise.resolve();
  });
}

beforeAll(() => {
  ConfigProvider.config({
    holderRender: (children) => (
      <ConfigProvider theme={{ token: { motion: false } }}>{children}</ConfigProvider>
    ),
  });
});

beforeEach(() => {
  jest.useFakeTimers();
  remove.mockReset().mockResolvedValue(undefined);
  restore.mockReset().mockResolvedValue(undefined);
});
afterEach(() => {
  act(() => {
    notification.destroy();
    jest.runAllTimers();
  });
  jest.useRealTimers();
});

test('Undo restores what was moved to the bin', async () => {
  await act(() => moveToBin('study', [row('a'), row('b')], again));
  expect(screen.getByRole('status').textContent).toContain('2 entries moved to the bin.');
  await click('Undo');
  expect(restore.mock.calls).toEqual([
    ['study', 'a'],
    ['study', 'b'],
  ]);
});

test('where the list cannot be loaded again, Undo is offered all the same', async () => {
  const offline = jest.fn().mockRejectedValue(new Error('the server does not respond'));
  await act(() => moveToBin('study', [row('a')], offline).catch(() => undefined));
  expect(screen.getByRole('status').textContent).toContain('“Study a” moved to the bin.');
  expect(screen.getByRole('button', { name: 'Undo' })).toBeTruthy();
});

test('where one of several cannot be moved, Undo restores those that were', async () => {
  remove.mockImplementation((_, id) => (id === 'b' ? Promise.reject(new Error('busy')) : Promise.resolve()));
  await act(() => moveToBin('study', [row('a'), row('b'), row('c')], again));
  expect(screen.getByRole('alert').textContent).toContain('busy');
  await click('Undo');
  expect(restore.mock.calls).toEqual([['study', 'a']]);
});

test('an Undo that fails can be tried again, for what it has not restored', async () => {
  await act(() => moveToBin('study', [row('a'), row('b')], again));
  restore.mockImplementation((_, id) =>
    id === 'b' ? Promise.reject(new Error('offline')) : Promise.resolve(),
  );
  await click('Undo');
  expect(screen.getByRole('alert').textContent).toContain('offline');
  restore.mockReset().mockResolvedValue(undefined);
  await click('Try again');
  expect(restore.mock.calls).toEqual([['study', 'b']]);
});
