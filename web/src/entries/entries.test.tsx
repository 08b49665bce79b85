/** @jest-environment jsdom */
import { isSought } from './entry-list.tsx';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { type EntryRow, loadEntry, storedText } from '../api/client.ts';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { errorsOf } from '../api/study-errors.ts';
import { changedAt } from './changed-at.ts';
import { fileNames } from './chosen-bar.tsx';
import { entryColumns } from './entry-row.tsx';
import { EntryTable } from './entry-table.tsx';
import { sketchLines } from './order-sketch.tsx';
import { fileName, textOf } from './files.ts';

jest.mock('react-router', () => ({ Link: ({ children }: { children: ReactNode }) => <b>{children}</b> }));
jest.mock('openapi-fetch', () => ({ __esModule: true, default: () => ({}) }));
jest.mock('../api/client.ts', () => ({
  ...jest.requireActual<object>('../api/client.ts'),
  loadEntry: jest.fn(),
  storedText: jest.fn(),
  createEntry: jest.fn(),
}));

const ROW: EntryRow = {
  id: 'a',
  kind: 'study',
  version: 1,
  updatedAt: '',
  title: 'Sluice',
  excerpt: "y' = -y",
  methods: [],
};

function Broken(): ReactNode {
  throw new Error('no such symbol');
}

let quiet: jest.SpyInstance;
beforeEach(() => {
  quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined);
});
afterEach(() => quiet.mockRestore());

test('a part that fails says so, leaves the rest as it is, and is tried again when it changes', async () => {
  const page = (of: number, inner: ReactNode): ReactNode => (
    <>
      <ErrorBoundary what="The table" of={of}>
        {inner}
      </ErrorBoundary>
      <p>the rest</p>
    </>
  );
  const { rerender } = render(page(1, <Broken />));
  expect(screen.getByRole('alert').textContent).toContain('The table cannot be shown: no such symbol.');
  expect(screen.getByText('the rest')).toBeTruthy();
  rerender(page(1, <i>good</i>));
  expect(screen.queryByText('good')).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(screen.getByText('good')).toBeTruthy();
  rerender(page(2, <Broken />));
  rerender(page(3, <i>good again</i>));
  expect(screen.getByText('good again')).toBeTruthy();
});

test('an entry whose text cannot be shown is a row as any other: it is saved as it is stored', async () => {
  jest.mocked(loadEntry).mockRejectedValue(new Error('damaged'));
  jest.mocked(storedText).mockResolvedValue('{"schritt": 1, "ki');
  const made: Blob[] = [];
  Object.assign(URL, {
    createObjectURL: (blob: Blob) => {
      made.push(blob);
      return 'blob:a';
    },
    revokeObjectURL: () => undefined,
  });
  render(
    <EntryTable
      label="Studies"
      rows={[ROW]}
      columns={entryColumns({
        kind: 'study',
        path: '/studies',
        columns: [],
        preview: () => <Broken />,
        store: () => Promise.resolve(),
        again: () => Promise.resolve(),
      })}
    />,
  );
  expect(screen.getByText(/The preview cannot be shown/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Download' }));
  expect(made.map(({ size }) => size)).toEqual([18]);
});

test.each([
  ['2026-11-28T09:05:00', 'today, 09:05'],
  ['2026-11-24T09:05:00', '24 November'],
  ['2025-11-24T09:05:00', '24 November 2025'],
  ['nonsense', ''],
])('a change at %s is reported as "%s"', (iso, told) => {
  expect(changedAt(iso, new Date('2026-11-28T18:00:00'))).toBe(told);
});

test('files that are saved together have names of their own', () => {
  expect(fileNames(['Sluice', 'sluice', 'Soil', 'Sluice'])).toEqual([
    'sluice.schritt.json',
    'sluice-2.schritt.json',
    'soil.schritt.json',
    'sluice-3.schritt.json',
  ]);
});

test('a sketch has a line for each method, the errors of all on one scale; runaways and zeros are no points', () => {
  const [first, none] = sketchLines([
    [
      { h: 1, error: 1 },
      { h: 0.1, error: 0.01 },
      { h: 0.01, error: Infinity },
    ],
    [{ h: 0.1, error: 0.1 }],
  ]);
  expect(first).toBe('73,3 3,43');
  expect(none).toBe('');
});

test('errors are read from a report; what is none is passed over', () => {
  const report = { methods: [{ rungs: [{ h: 1, error: 0.5 }, { h: 0.5, error: null }, 3] }, null] };
  expect(errorsOf(report)).toEqual([[{ h: 1, error: 0.5 }], []]);
  expect(errorsOf(null)).toEqual([]);
});

test('a file that is far too large is refused before it is read', async () => {
  const text = jest.fn().mockResolvedValue('{}');
  const file = (size: number): File => Object.assign(Object.create(null), { name: 'big.json', size, text });
  await expect(textOf(file(40_000_000))).rejects.toThrow(
    'big.json has 40.0 megabytes; a study has less than 2',
  );
  expect(text).not.toHaveBeenCalled();
  await expect(textOf(file(2000))).resolves.toBe('{}');
});

test.each([
  ['Sluice of the snow lake', 'sluice-of-the-snow-lake.schritt.json'],
  ['../../etc/passwd', 'etc-passwd.schritt.json'],
  ['   ', 'untitled.schritt.json'],
  ['ä'.repeat(300), `${'ä'.repeat(100)}.schritt.json`],
])('the file of %j is %j', (title, name) => {
  expect(fileName(title)).toBe(name);
});

test.each([
  ['', true],
  ['snow', true],
  ['SLUICE', true],
  ['heun lake', true],
  ['sqrt', true],
  ['RK4', false],
])('a row is found by "%s": %s', (sought, found) => {
  const row = {
    title: 'Sluice of the snow lake',
    methods: ['Euler', 'Heun'],
    excerpt: "level' = -k*sqrt(level)",
  } as const;
  expect(isSought(row, sought)).toBe(found);
});
