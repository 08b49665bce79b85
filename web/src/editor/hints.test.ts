import type { Hint } from '@schritt/core/notation';
import { completionsAt, hintAt } from './hints.ts';

const HINTS: readonly Hint[] = [
  { text: 'k1', kind: 'name', says: 'k1 = f(t, y)' },
  { text: 'y[n+1] = y + h*k1', kind: 'statement', says: 'the new value' },
  { text: 'sin', kind: 'function', says: 'sine' },
  { text: 'f', kind: 'word', says: 'the right-hand side' },
];

function offered(before: string, isAsked = false): readonly string[] | null {
  return completionsAt(HINTS, before, isAsked)?.options.map(({ text }) => text) ?? null;
}

test.each<[string, boolean, readonly string[] | null]>([
  ['y', false, ['k1', 'y[n+1] = y + h*k1', 'f']],
  ['  y', false, ['k1', 'y[n+1] = y + h*k1', 'f']],
  // inside a line two letters are wanted before anything is offered
  ['k2 = s', false, null],
  ['k2 = si', false, ['k1', 'sin', 'f']],
  ['', false, null],
  ['', true, ['k1', 'y[n+1] = y + h*k1', 'sin', 'f']],
  ['k2 = ', true, ['k1', 'sin', 'f']],
  ['# si', true, null],
])('behind "%s" (asked: %s)', (before, isAsked, expected) => {
  expect(offered(before, isAsked)).toEqual(expected);
});

test('what is offered takes the place of the word that was begun', () => {
  expect(completionsAt(HINTS, 'k2 = si', false)?.from).toBe(5);
  expect(completionsAt(HINTS, 'k2 = ', true)?.from).toBe(5);
});

test.each([
  ['y[n+1] = y + h*k1', 15, 'k1 = f(t, y)'],
  ['y[n+1] = y + h*k1', 17, 'k1 = f(t, y)'],
  ['y[n+1] = y + h*k1', 9, null],
  ["k1 = f'(t, y)", 5, 'the right-hand side'],
  ['k10 = 1', 1, null],
  ['a # k1', 5, null],
])('in "%s" at %d', (line, at, says) => {
  expect(hintAt(HINTS, line, at)?.hint.says ?? null).toBe(says);
});
