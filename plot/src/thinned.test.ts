import type { Dots, Plot } from './plot.ts';
import { thinned } from './thinned.ts';

function dots(count: number): Dots {
  return {
    kind: 'dots',
    id: 'a',
    label: 'Euler',
    points: Array.from({ length: count }, (_, i) => ({ x: i / count, y: 0 })),
    mark: { color: '#000000', shape: 'circle', filled: false },
    radius: 4,
    joined: 0,
    pale: [],
    ground: '#ffffff',
  };
}

function plot(count: number, change: Partial<Plot['x']> = {}): Plot {
  const axis = { scale: 'linear' } as const;
  return {
    title: '',
    x: { ...axis, ...change },
    y: axis,
    series: [dots(count)],
    overlays: [],
    tip: null,
    legend: [],
  };
}

test.each([
  [50, 4, 0],
  [51, 2, 0],
  [100, 2, 0],
  [101, 0, 1.2],
])('%d markers on 400 pixels have radius %d and a line of %d', (count, radius, joined) => {
  expect(thinned(plot(count), 400)[0]).toMatchObject({ radius, joined });
});

test('a part that is zoomed into has its markers again; rungs keep theirs', () => {
  expect(thinned(plot(1000, { range: [0, 0.01] }), 400)[0]).toMatchObject({ radius: 4 });
  expect(thinned(plot(1000, { scale: 'logarithmic' }), 400)[0]).toMatchObject({ radius: 4 });
});

test('markers that a person has asked for stay where they touch', () => {
  const asked = { ...dots(500), keepsMarkers: true };
  expect(thinned({ ...plot(1), series: [asked] }, 400)).toEqual([asked]);
});
