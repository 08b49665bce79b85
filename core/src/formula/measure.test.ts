import { binary, type Expression, name, number } from './expression.ts';
import { bounded, measure, MAX_TERMS } from './measure.ts';

/** x doubled so many times, every half shared. */
function doubled(times: number): Expression {
  let tree: Expression = name('x');
  for (let i = 0; i < times; i += 1) tree = binary('+', tree, tree);
  return tree;
}

test.each([0, 1, 5, 40])('a tree of %d doublings is measured as it would be written out', (times) => {
  expect(measure(doubled(times))).toEqual({ terms: 2 ** (times + 1) - 1, depth: times });
});

test('what is too large or too deep is complained of at its place, with what to do', () => {
  const origin = { at: { from: 3, to: 5 }, what: 'this' };
  expect(bounded(doubled(10), origin)).toEqual(doubled(10));
  expect(() => bounded(doubled(12), origin)).toThrow('this has more than 4,000 terms; shorten it');
  let sum: Expression = number(0);
  for (let i = 0; i < 1500; i += 1) sum = binary('+', sum, name('x'));
  expect(measure(sum).terms).toBeLessThan(MAX_TERMS);
  expect(() => bounded(sum, origin)).not.toThrow();
  expect(() => bounded(binary('+', sum, name('x')), { ...origin, remedy: 'cut it' })).toThrow(
    'this has more than 1,500 nested operations; cut it',
  );
});
