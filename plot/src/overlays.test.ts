import type { Chart } from 'chart.js';
import { datasetsOf, optionsOf } from './chart.ts';
import type { Pixel } from './label-place.ts';
import { drawOverlays } from './overlays.ts';
import { LIGHT, methodMark } from './palette.ts';
import type { Overlay, Plot } from './plot.ts';

const PLOT: Plot = {
  title: 'Solution: level over t',
  x: { scale: 'linear', range: [0, 2] },
  y: { scale: 'logarithmic', grace: 0.06, tick: (value) => `(${value})` },
  series: [
    { kind: 'line', id: 'exact', label: 'exact', points: [{ x: 0, y: 1 }], color: '#000000', width: 1.4 },
    {
      kind: 'dots',
      id: 'e',
      label: 'Euler',
      points: [
        { x: 0, y: 1 },
        { x: 1, y: 2 },
      ],
      mark: { ...methodMark(LIGHT, 0), filled: true },
      radius: 4,
      joined: 0.8,
      pale: [false, true],
      ground: '#ffffff',
    },
  ],
  overlays: [],
  tip: (label, { x, y }) => `${label} ${x} ${y}`,
  legend: [],
};

test('points that do not count are pale and hollow, the others filled; squares are a little larger', () => {
  const [line, dots] = datasetsOf(PLOT, 600);
  expect(line).toMatchObject({ showLine: true, pointRadius: 0, borderColor: '#000000' });
  const { color } = methodMark(LIGHT, 0);
  expect(dots).toMatchObject({
    pointRadius: 4.5,
    pointBackgroundColor: [color, '#ffffff'],
    pointBorderColor: [color, `${color}99`],
    borderColor: `${color}99`,
  });
});

test('axes, ticks and what is said of a point come from the description', () => {
  const { scales } = optionsOf(PLOT, LIGHT, () => ({}));
  expect(scales?.['x']).toMatchObject({ type: 'linear', min: 0, max: 2 });
  expect(scales?.['y']).toMatchObject({ type: 'logarithmic', grace: '6%', ticks: { color: LIGHT.quiet } });
  expect(optionsOf({ ...PLOT, tip: null }, LIGHT, () => ({}))).toMatchObject({ events: [] });
});

/** A canvas that remembers what is drawn on it. */
function ground(points: readonly Pixel[] = [{ x: 300, y: 20 }]) {
  const done: string[] = [];
  const ctx = new Proxy(
    {},
    {
      get:
        (_, name) =>
        (...inputs: unknown[]) => {
          done.push(
            `${String(name)}(${inputs.map((i) => (typeof i === 'number' ? Math.round(i) : String(i))).join(', ')})`,
          );
          return { width: 30 };
        },
      set: () => true,
    },
  );
  const scale = (from: number, per: number) => ({
    min: 0,
    max: 10,
    getPixelForValue: (value: number) => from + per * value,
  });
  const chartArea = { left: 0, right: 400, top: 0, bottom: 300, width: 400, height: 300 };
  const chart: Chart = Object.assign(Object.create(null), {
    ctx,
    chartArea,
    data: { datasets: [{}] },
    getDatasetMeta: () => ({ data: points }),
    scales: { x: scale(0, 40), y: scale(300, -30) },
  });
  const draw = (overlays: readonly Overlay[], behind: boolean): readonly string[] => {
    done.length = 0;
    drawOverlays(chart, overlays, LIGHT, behind);
    return [...done];
  };
  return draw;
}

test('the highlighter is a stroke at its place, behind the series, and none outside', () => {
  const draw = ground();
  expect(draw([{ kind: 'band', x: 2 }], true)).toContain('fillRect(72, 0, 16, 300)');
  expect(draw([{ kind: 'band', x: 2 }], false)).toEqual([]);
  expect(draw([{ kind: 'band', x: 50 }], true).filter((d) => d.startsWith('fillRect'))).toEqual([]);
});

test('labels of fits give way to one another', () => {
  const fit = { id: 'e', color: '#123456', text: '2.00', from: { x: 1, y: 1 }, to: { x: 3, y: 3 } };
  const labels = ground()([{ kind: 'fits', fits: [fit, { ...fit, text: '2.01' }] }], false).filter((d) =>
    d.startsWith('fillText'),
  );
  expect(labels).toEqual(['fillText(2.00, 86, 258)', 'fillText(2.01, 62, 276)']);
});

test('a caption stands at the top and in the corner where the curves do not fall', () => {
  const caption = (falls: boolean): Overlay => ({ kind: 'caption', upper: 'error', lower: 'h', falls });
  expect(ground()([caption(false)], false)).toEqual(
    expect.arrayContaining(['fillText(error, 6, 12)', 'fillText(h, 366, 294)']),
  );
  expect(ground()([caption(true)], false)).toEqual(
    expect.arrayContaining(['fillText(error, 366, 12)', 'fillText(h, 6, 294)']),
  );
});

test.each([
  ['at its place', [{ x: 60, y: 8 }], 6, 12],
  ['at the other end of the top', [{ x: 20, y: 8 }], 366, 12],
  [
    'below',
    [
      { x: 20, y: 8 },
      { x: 380, y: 10 },
    ],
    6,
    294,
  ],
  [
    'where it covers least',
    [
      { x: 10, y: 8 },
      { x: 20, y: 8 },
      { x: 380, y: 10 },
      { x: 10, y: 290 },
      { x: 20, y: 290 },
    ],
    366,
    12,
  ],
])('a caption stands %s', (_where, points, x, y) => {
  const caption: Overlay = { kind: 'caption', upper: 'error', lower: 'h', falls: false };
  expect(ground(points)([caption], false)).toContain(`fillText(error, ${x}, ${y})`);
});

test('strokes of a field are equally long, whatever the right-hand side; one of nothing is left out', () => {
  const drawn = ground()(
    [
      {
        kind: 'field',
        strokes: [
          { x: 1, y: 1, dx: 1, dy: 0 },
          { x: 1, y: 1, dx: 0, dy: -9 },
          { x: 1, y: 1, dx: 0, dy: 0 },
        ],
        arrows: false,
      },
    ],
    true,
  );
  expect(drawn.filter((d) => d.startsWith('moveTo'))).toEqual(['moveTo(32, 270)', 'moveTo(40, 262)']);
  expect(drawn.filter((d) => d.startsWith('lineTo'))).toEqual(['lineTo(48, 270)', 'lineTo(40, 278)']);
});

test('slopes to compare with have their order beside them', () => {
  const labels = ground()([{ kind: 'guides', orders: [1, 4] }], true).filter((d) => d.startsWith('fillText'));
  expect(labels.map((label) => label.slice(9, 10))).toEqual(['1', '4']);
});
