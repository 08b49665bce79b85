import { plotCsv, plotName } from './plot-files.ts';
import type { Plot } from '@schritt/plot';

const PLOT: Plot = {
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
  expect(plotCsv(PLOT)).toBe(lines.join('\r\n'));
});

test.each([
  ['Solution: level over t', 'Solution-level-over-t'],
  ["Phase: x' over x", 'Phase-x-over-x'],
  ['///', 'plot'],
])('the file of "%s" is called %s', (title, name) => {
  expect(plotName({ ...PLOT, title })).toBe(name);
});
