import { LIGHT, methodMark } from './palette.ts';
import { withoutRunaways } from './runaways.ts';
import type { Axis, Plot, Series } from './plot.ts';

function dots(label: string, heights: readonly number[], pale: readonly boolean[] = []): Series {
  return {
    kind: 'dots',
    id: label,
    label,
    points: heights.map((y, x) => ({ x, y })),
    mark: methodMark(LIGHT, 0),
    radius: 3,
    joined: 1,
    pale,
    ground: LIGHT.paper,
  };
}

function plot(scale: Axis['scale'], ...series: readonly Series[]): Plot {
  return { title: '', x: { scale: 'linear' }, y: { scale }, series, overlays: [], tip: null, legend: [] };
}

function arrows({ overlays }: Plot): readonly string[] {
  return overlays.flatMap((one) =>
    one.kind === 'runaways'
      ? one.runaways.map(({ up, x, text }) => `${up ? 'up' : 'down'} at ${x}: ${text}`)
      : [],
  );
}

test('a run far larger than the others is an arrow, and the axis stays with the others', () => {
  const shown = withoutRunaways(plot('linear', dots('Heun', [1, 0.5, 0.3]), dots('Euler', [1, -40, 1.6e9])));
  expect(arrows(shown)).toEqual(['up at 2: Euler: 1.6e+9']);
  expect(shown.y.range?.[0]).toBeLessThan(0.3);
  expect(shown.y.range?.[0]).toBeGreaterThan(0);
  expect(shown.y.range?.[1]).toBeLessThan(2);
});

test('one that swings a few times as high is shown in full', () => {
  const whole = plot('linear', dots('Heun', [1, 0.5, 0.3]), dots('Euler', [1, -3, 4]));
  expect(withoutRunaways(whole)).toBe(whole);
});

test('the line of the solution stays, whatever the runs do', () => {
  const line: Series = {
    kind: 'line',
    id: 'exact',
    label: 'exact',
    points: [
      { x: 0, y: 0 },
      { x: 1, y: 1 },
    ],
    color: '#000000',
    width: 1,
  };
  const shown = withoutRunaways(plot('linear', dots('Euler', [0, 1e30]), line));
  expect(shown.y.range?.map(Math.round)).toEqual([-0, 1]);
  expect(arrows(shown)).toEqual(['up at 1: Euler: 1.0e+30']);
});

test('errors over h: rungs that are left out and far above the counted ones do not press those together', () => {
  const errors = [1e150, 1e20, 1e-2, 1e-3, 1e-4];
  const euler = dots('Euler', errors, [true, true, false, false, false]);
  const shown = withoutRunaways(plot('logarithmic', euler, { ...euler, points: euler.points.slice(0, 1) }));
  expect(arrows(shown)).toEqual(['up at 0: Euler: 1.0e+150']);
  expect(shown.y.range?.[1]).toBeLessThan(1e3);
  expect(shown.x.range).toEqual([0, 4]);
  // sixteen decades of errors that count are no runaways
  const wide = plot('logarithmic', dots('RK4', [1e-1, 1e-5, 1e-9, 1e-13, 1e-16]));
  expect(withoutRunaways(wide)).toBe(wide);
});

test('a method of high order and a low one are far apart, and both are shown', () => {
  const both = plot('logarithmic', dots('RK4', [1e-13, 1e-14, 1e-15]), dots('Euler', [0.2, 0.1, 0.05]));
  expect(withoutRunaways(both)).toBe(both);
});

test('an error over time that grows and grows is an arrow', () => {
  const growing = Array.from({ length: 9 }, (_, i) => 10 ** (5 * i - 3));
  const shown = withoutRunaways(
    plot('logarithmic', dots('Euler', growing), dots('Heun', [1e-3, 2e-3, 2e-3])),
  );
  expect(arrows(shown)).toEqual(['up at 1: Euler: 1.0e+37']);
});

test('what a person zoomed to stays, and so does what has nothing to show', () => {
  const zoomed = {
    ...plot('linear', dots('Euler', [0, 1e30])),
    y: { scale: 'linear', range: [0, 1] } as const,
  };
  expect(withoutRunaways(zoomed)).toBe(zoomed);
  const empty = plot('linear', dots('Euler', [NaN]));
  expect(withoutRunaways(empty)).toBe(empty);
});
