import { pictureData, pictureName } from './picture-files.ts';
import type { Picture } from './picture.ts';

const PICTURE: Picture = {
  title: 'Solution: level over t',
  x: { scale: 'linear' },
  y: { scale: 'linear' },
  series: [
    { kind: 'line', id: 'exact', label: 'exact', points: [{ x: 0, y: 1 / 3 }], color: '', width: 1 },
    { kind: 'line', id: 'h', label: '=Heun, "mine"', points: [{ x: 1, y: NaN }], color: '', width: 1 },
  ],
  overlays: [],
  tip: null,
  legend: [],
};

test('every point is a line in full, what has no value is empty, and no title becomes a formula', () => {
  const lines = ['series,x,y', 'exact,0,0.3333333333333333', `"'=Heun, ""mine""",1,`, ''];
  expect(pictureData(PICTURE)).toBe(lines.join('\r\n'));
});

test.each([
  ['Solution: level over t', 'Solution-level-over-t'],
  ["Phase: x' over x", 'Phase-x-over-x'],
  ['///', 'picture'],
])('the file of "%s" is called %s', (title, name) => {
  expect(pictureName({ ...PICTURE, title })).toBe(name);
});
