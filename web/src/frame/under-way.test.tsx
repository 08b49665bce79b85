/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import type { ServerWork } from '../api/jobs.ts';
import { UnderWay } from './under-way.tsx';

const JOB: ServerWork = { part: 0.31, done: 12, of: 48, workers: 3, isReached: true };

function textOf(elsewhere: ServerWork | null): string {
  const computed = {
    value: null,
    part: 0.314,
    why: null,
    elsewhere,
    cancel: () => undefined,
    continueInBackground: elsewhere === null ? null : () => undefined,
  };
  const { unmount } = render(<UnderWay computed={computed} what="the study" />);
  const text = screen.getByRole('status').textContent;
  unmount();
  return text.replace(/\s*(Cancel|Continue in background)/g, '').trim();
}

test.each<[ServerWork | null, string]>([
  [null, 'Computing the study: 31 %'],
  [JOB, 'Computing the study on the server: 31 %, 3 workers, 12 of 48 runs'],
  [{ ...JOB, workers: 1 }, 'Computing the study on the server: 31 %, 1 worker, 12 of 48 runs'],
  [{ ...JOB, workers: null }, 'Computing the study on the server: 31 %, 12 of 48 runs'],
  [{ ...JOB, workers: 0 }, 'Computing the study on the server: 31 %, waiting for a worker, 12 of 48 runs'],
  [
    { ...JOB, isReached: false },
    'Computing the study on the server: 31 %, waiting for the connection to the workers',
  ],
  [{ ...JOB, done: 0, of: 0 }, 'Computing the study on the server: 31 %, 3 workers'],
])('what goes on is said: case %#', (elsewhere, text) => {
  expect(textOf(elsewhere)).toBe(text);
});
