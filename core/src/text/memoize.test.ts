import { memoize, memoizeFor } from './memoize.ts';

test('a value is made once for a key, also where it is null, until too many others were asked for', () => {
  const made: string[] = [];
  const of = memoize<string | null>(2);
  const ask = (key: string): string | null =>
    of(key, () => {
      made.push(key);
      return key === 'none' ? null : key;
    });
  expect([ask('a'), ask('none'), ask('a'), ask('none')]).toEqual(['a', null, 'a', null]);
  expect(made).toEqual(['a', 'none']);
  ask('b');
  ask('a');
  expect(made).toEqual(['a', 'none', 'b', 'a']);
});

test('a value that belongs to an object is made once for each object and key', () => {
  const of = memoizeFor<object, number>();
  let made = 0;
  const make = (): number => (made += 1);
  const [one, other] = [{}, {}];
  expect([of(one, 'a', make), of(one, 'a', make), of(one, 'b', make), of(other, 'a', make)]).toEqual([
    1, 1, 2, 3,
  ]);
  expect(of(other, 'a', make)).toBe(3);
});
