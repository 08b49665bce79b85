/** @jest-environment jsdom */
import type { Ladder } from '@schritt/core/study';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { LadderEditor } from './ladder-editor.tsx';

class NoObserver {
  observe(): void {
    // nothing is laid out here
  }
  unobserve(): void {
    // nor looked at
  }
  disconnect(): void {
    // nor taken away
  }
}

beforeAll(() => {
  Object.assign(globalThis, { ResizeObserver: NoObserver });
  Object.assign(window, {
    matchMedia: () => ({
      matches: false,
      addListener: jest.fn(),
      removeListener: jest.fn(),
      addEventListener: jest.fn(),
      removeEventListener: jest.fn(),
    }),
  });
});

beforeEach(() => window.sessionStorage.clear());

function open(ladder: Ladder): { readonly field: HTMLElement; readonly onChange: jest.Mock } {
  const onChange = jest.fn();
  render(<LadderEditor ladder={ladder} onChange={onChange} />);
  fireEvent.click(screen.getByRole('button', { name: 'Edit the step sizes' }));
  return { field: screen.getByRole('textbox', { name: 'Step sizes' }), onChange };
}

test.each<[Ladder, string, Ladder]>([
  [{ first: 0.5, factor: 2, rungs: 4 }, '1, 3, 5', { first: 1, factor: 3, rungs: 5 }],
  [{ first: 0.5, factor: 2, rungs: 4 }, 'pi/8, 2, 5', { first: 'pi/8', factor: 2, rungs: 5 }],
  [{ sizes: [0.5] }, '0.5, 0.1, 1/30', { sizes: [0.5, 0.1, '1/30'] }],
  [{ counts: [4] }, '4, 12, 36', { counts: [4, 12, 36] }],
  [{ sizes: [0.5] }, '0.5 0.25\t0.125', { sizes: [0.5, 0.25, 0.125] }],
  [{ sizes: [0.5] }, '0.5; pi / 8\n0.25', { sizes: [0.5, 'pi / 8', 0.25] }],
  [{ counts: [4] }, '4\n8\n16\n', { counts: [4, 8, 16] }],
  [{ first: 0.5, factor: 2, rungs: 4 }, '1 2 3', { first: 1, factor: 2, rungs: 3 }],
])('%j becomes %s', (before, typed, after) => {
  const { field, onChange } = open(before);
  fireEvent.change(field, { target: { value: typed } });
  expect(onChange).toHaveBeenLastCalledWith(after);
});

test.each<[Ladder, string, string]>([
  [{ sizes: [0.5] }, '', 'enter at least one; separate several by commas or spaces'],
  [{ sizes: [0.5] }, '0.5, -1', '-1 must be a positive number'],
  [{ sizes: [0.5] }, '0.5, k', 'a step size may contain only numbers, pi and e'],
  [{ sizes: [0.5] }, Array.from({ length: 41 }, () => '1').join(), 'at most 40 step sizes are allowed'],
  [{ counts: [4] }, '4, 2.5', '2.5 must be a positive integer'],
  [
    { first: 0.5, factor: 2, rungs: 4 },
    '0.5, 2',
    'enter the initial h, the ratio and the number of step sizes: 0.5, 2, 6',
  ],
  [
    { first: 0.5, factor: 2, rungs: 4 },
    '0.5, 1, 6',
    'the ratio must be greater than 1; 2 halves h each time',
  ],
  [{ first: 0.5, factor: 2, rungs: 4 }, '0.5, 2, 41', 'at most 40 step sizes are allowed'],
])('%j with %s is answered, and the ladder stays', (before, typed, message) => {
  const { field, onChange } = open(before);
  fireEvent.change(field, { target: { value: typed } });
  expect(onChange).not.toHaveBeenCalled();
  expect(screen.getByRole('alert').textContent).toContain(`${message}; unchanged: `);
});

test('what cannot be taken stays as it was typed, until it is mended or discarded', () => {
  const { field, onChange } = open({ sizes: [0.1] });
  fireEvent.change(field, { target: { value: '0.1, -2' } });
  fireEvent.keyDown(field, { key: 'Enter', keyCode: 13 });
  fireEvent.click(screen.getByRole('button', { name: 'Done with the step sizes' }));
  expect(screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Step sizes' }).value).toBe('0.1, -2');
  expect(screen.getByRole('alert').textContent).toContain('-2 must be a positive number; unchanged: h = 0.1');
  fireEvent.change(field, { target: { value: '0.1, 2' } });
  expect(onChange).toHaveBeenLastCalledWith({ sizes: [0.1, 2] });
  fireEvent.keyDown(field, { key: 'Enter', keyCode: 13 });
  expect(screen.queryByRole('textbox')).toBeNull();
});

test('a mistake can be discarded', () => {
  const { field } = open({ counts: [4, 8] });
  fireEvent.change(field, { target: { value: '4, 2.5' } });
  fireEvent.click(screen.getByRole('button', { name: 'Discard' }));
  expect(screen.getByText('N = 4, 8')).toBeTruthy();
});

test('one rung more at the fine end', () => {
  const onChange = jest.fn();
  render(<LadderEditor ladder={{ sizes: [0.5, 0.1] }} onChange={onChange} />);
  fireEvent.click(screen.getByRole('button', { name: '+ halve h' }));
  expect(onChange).toHaveBeenCalledWith({ sizes: [0.5, 0.1, 0.02] });
});

test('what cannot be read is there again after the page was left; what was read or discarded is not', () => {
  const first = open({ sizes: [0.5] });
  fireEvent.change(first.field, { target: { value: '0.5, x' } });
  cleanup();
  render(<LadderEditor ladder={{ sizes: [0.5] }} onChange={jest.fn()} />);
  expect(screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Step sizes' }).value).toBe('0.5, x');
  expect(screen.getByRole('alert').textContent).toContain('unchanged: h = 0.5');
  fireEvent.click(screen.getByRole('button', { name: 'Discard' }));
  cleanup();
  const again = open({ sizes: [0.5] });
  fireEvent.change(again.field, { target: { value: '0.5, 0.25' } });
  cleanup();
  render(<LadderEditor ladder={{ sizes: [0.5] }} onChange={jest.fn()} />);
  expect(screen.queryByRole('textbox')).toBeNull();
});
