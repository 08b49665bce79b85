import { recent } from './recent.ts';
import { remembered } from './remembered.ts';

test('of too many values the one goes that was not asked for longest', () => {
  const known = recent<number>(2);
  known.set('a', 1);
  known.set('b', 2);
  expect(known.get('a')).toBe(1);
  known.set('c', 3);
  expect([known.has('a'), known.has('b'), known.has('c')]).toEqual([true, false, true]);
  expect(known.get('b')).toBeUndefined();
});

test('a value that is set anew counts as new, and takes no second place', () => {
  const known = recent<number>(2);
  known.set('a', 1);
  known.set('b', 2);
  known.set('a', 10);
  known.set('c', 3);
  expect([known.get('a'), known.get('b'), known.get('c')]).toEqual([10, undefined, 3]);
});

test('asking whether a value is there does not keep it', () => {
  const known = recent<number>(2);
  known.set('a', 1);
  known.set('b', 2);
  expect(known.has('a')).toBe(true);
  known.set('c', 3);
  expect(known.has('a')).toBe(false);
});

test('a memory makes a value once, also null, and lets go of the one not asked for longest', () => {
  const known = remembered<number | null>(2);
  const made: string[] = [];
  const ask = (key: string, value: number | null): number | null =>
    known(key, () => {
      made.push(key);
      return value;
    });
  expect([ask('a', null), ask('a', 7), ask('b', 2)]).toEqual([null, null, 2]);
  ask('a', 7);
  ask('c', 3);
  expect([ask('a', 8), ask('b', 9)]).toEqual([null, 9]);
  expect(made).toEqual(['a', 'b', 'c', 'b']);
});
