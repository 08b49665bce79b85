import { memoize } from './memoize.ts';

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
