import { LIGHT, methodMark } from '@schritt/plot/palette';
import { portraitPlot } from './portrait-panel.tsx';
import { profilePlot } from './profile-plot.ts';

test('a family over its index', () => {
  const profile = {
    name: 'u',
    indices: [1, 2],
    t: 0.5,
    methods: [[3, 4], null],
    truth: { kind: 'exact', error: 0, values: [3.1, 4.1] },
    steps: 10,
  } as const;
  const methods = ['Euler', 'Heun'].map((label, i) => ({ id: label, label, mark: methodMark(LIGHT, i) }));
  const { title, series, tip } = profilePlot(profile, methods, 't', LIGHT);
  expect(title).toBe('Profile: u vs index at t = 0.5');
  expect(series.map(({ points }) => points[1]?.y)).toEqual([4.1, 4, NaN]);
  expect(tip?.('Euler', { x: 2, y: 4 })).toBe('Euler: u[2] = 4');
});

test('a portrait over time and in the plane', () => {
  const stroke = { x: 0, y: 0, dx: 1, dy: 1 };
  const portrait = {
    kind: 'exact',
    t: [0, 1],
    values: [
      [1, 2],
      [3, 4],
    ],
    ends: null,
    field: [stroke],
  } as const;
  const of = (shown: 'time' | 'plane') =>
    portraitPlot({ portrait, names: ['q', "q'"], independent: 't', view: shown }, LIGHT);
  expect(of('plane').series[0]?.points).toEqual([
    { x: 1, y: 3 },
    { x: 2, y: 4 },
  ]);
  expect(of('plane').overlays[0]).toMatchObject({ strokes: [stroke], arrows: true });
  expect(of('time').series).toHaveLength(2);
  // the field of two components belongs into their plane
  expect(of('time').overlays[0]).toMatchObject({ strokes: [] });
  expect(of('time').x.range).toEqual([0, 1]);
});
