import { layGrid } from '@schritt/core/study';
import { timesToShow } from './rows-asked.ts';

const GRID = layGrid(0, 8, { h: 0.5 });

test.each([
  ['0.5, 1, ..., 3', [1, 2, 3, 4, 5, 6], []],
  ['0.5, 1, … , 2', [1, 2, 3, 4], []],
  ['8, 0, 0.0', [0, 16], []],
  ['1/2, 0.3', [1], [0.3]],
  ['9', [], [9]],
])('the times %s are the grid points %j, and %j lie between', (text, points, between) => {
  expect(timesToShow(text, GRID)).toEqual({ points, between });
});

test('a shorter last step is a grid point too', () => {
  expect(timesToShow('0.9, 1', layGrid(0, 1, { h: 0.3 }, 'shorten'))).toEqual({
    points: [3, 4],
    between: [],
  });
});

test.each([
  ['', 'enter times, such as 0.5, 1, ..., 8'],
  ['..., 8', 'use ... between increasing times, such as 0.5, 1, ..., 8'],
  ['1, 0.5, ..., 8', 'use ... between increasing times, such as 0.5, 1, ..., 8'],
  ['0, 1, ..., 1e9', 'at most 400 times are allowed'],
])('%s is answered', (text, why) => {
  expect(timesToShow(text, GRID)).toEqual({ why });
});
