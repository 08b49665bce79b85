import { lazily } from './lazily.ts';

test('a value is made when it is first asked for, and once, be it null', () => {
  const made: string[] = [];
  const value = lazily(() => {
    made.push('made');
    return null;
  });
  expect(made).toEqual([]);
  expect([value(), value()]).toEqual([null, null]);
  expect(made).toEqual(['made']);
});
