import { openStudy } from '@schritt/core/document';
import { type Curves, runStudy, type Trajectory } from '@schritt/core/study';
import { errorPlot, errorSeries } from './error-plot.ts';
import type { KeyedResult } from './keyed.ts';
import { orderOverlays, orderPlot, orderSeries, type OrderView } from './order-plot.ts';
import { LIGHT, methodMark } from './palette.ts';
import { drawnAs, type RunView } from './run-view.ts';
import { solutionPlot, solutionSeries } from './solution-plot.ts';

function results(): KeyedResult {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text: "y' = -2*y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-2*t)" },
    methods: [
      { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)', struck: [0] },
      { title: 'Heun', text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)' },
    ],
    ladder: { counts: [16, 32, 64, 128] },
  });
  if (!opened.ok) throw new Error('a text of the test');
  return { result: runStudy(opened.study), keys: ['e', 'h'] };
}

const keyed = results();
const VIEW: OrderView = {
  keyed,
  placeOf: (key) => (key === 'e' ? 0 : 3),
  over: 'h',
  caption: 'error at t = 2',
  palette: LIGHT,
};

test('errors over h, in the colour of the method’s place; a rung that is excluded is pale', () => {
  const [euler, heun] = orderSeries(VIEW);
  expect(euler).toMatchObject({
    label: 'Euler',
    mark: { color: methodMark(LIGHT, 0).color },
    pale: [true, false, false, false],
  });
  expect(heun).toMatchObject({ mark: { color: methodMark(LIGHT, 3).color, shape: 'diamond' } });
  expect(euler?.points.map(({ x }) => x)).toEqual([2 / 16, 2 / 32, 2 / 64, 2 / 128]);
  expect(euler?.points[1]?.y).toBe(keyed.result.methods[0]?.rungs[1]?.error);
});

test('over their cost, errors stand at their evaluations, and no slope is drawn', () => {
  const costly: OrderView = { ...VIEW, over: 'evaluations' };
  expect(orderSeries(costly)[1]?.points.map(({ x }) => x)).toEqual([32, 64, 128, 256]);
  expect(orderOverlays(costly).map(({ kind }) => kind)).toEqual(['caption']);
});

test('fitted lines run over their windows, and slopes of the promised orders stand beside', () => {
  const overlays = orderOverlays(VIEW);
  const fits = overlays.flatMap((overlay) => (overlay.kind === 'fits' ? overlay.fits : []));
  expect(fits.map(({ from, to }) => [from.x, to.x])).toEqual([
    [2 / 128, 2 / 32],
    [2 / 128, 2 / 16],
  ]);
  const { fit } = keyed.result.methods[0]!;
  expect(fits[0]?.from.y).toBeCloseTo(fit!.constant * (2 / 128) ** fit!.order, 15);
  expect(overlays.flatMap((overlay) => (overlay.kind === 'guides' ? overlay.orders : []))).toEqual([1, 2]);
});

test('ticks are powers of ten or plain numbers, and a point says what it is', () => {
  const { x, y, tip, title } = orderPlot(VIEW, [], []);
  expect(title).toBe('Order: error at t = 2 vs h, log-log');
  expect([1, 0.1, 0.2, 1e-5].map((value) => x.tick?.(value))).toEqual(['1', '0.1', '0.2', '10⁻⁵']);
  expect([1e-2, 2e-3, 1].map((value) => y.tick?.(value))).toEqual(['10⁻²', '2·10⁻³', '10⁰']);
  expect(tip?.('Euler', { x: 0.125, y: 0.0123456 })).toBe('Euler: error 1.235e-2 at h = 0.125');
  const costs = orderPlot({ ...VIEW, over: 'evaluations' }, [], []);
  expect(costs.title).toBe('Work: error at t = 2 vs evaluations, log-log');
  expect(costs.tip?.('Heun', { x: 2048, y: 1e-5 })).toBe('Heun: error 1.000e-5 for 2,048 evaluations');
});

const EULER = { method: 0, gridRequest: { h: 1 } };

/** Two points of a run of some steps, compared with what is known. */
function runView(
  steps: number,
  truth: 'exact' | 'reference' | null = 'exact',
  more: readonly Trajectory[] = [],
): RunView {
  const curves: Curves = {
    runs: [
      {
        ...EULER,
        components: [{ t: [0, 1], values: [1, 0.1], errors: null }],
        steps,
        stoppedAt: null,
        truth: [truth === null ? null : [1, 0]],
        leading: { t: [0, 1], values: [[0, 0.09]] },
      },
      ...more,
    ],
    t: [0, 1],
    truth: [truth === null ? null : { kind: truth, error: 1e-15, values: [1, 0] }],
    components: ['level'],
  };
  const drawn = drawnAs(
    { curves, keys: ['e', 'h'] },
    (key) => (key === 'e' ? 0 : 1),
    (key) => (key === 'e' ? 'Euler' : 'Heun'),
    LIGHT,
  );
  return { curves, ...drawn, component: 0, drawn: null, palette: LIGHT };
}

const HEUN: Trajectory = {
  method: 1,
  gridRequest: { h: 1 },
  components: [{ t: [0, 0.5, 1], values: [1, 0.4, 0.03], errors: null }],
  steps: 2,
  stoppedAt: null,
  truth: [[1, 0.5, 0]],
  leading: null,
};

test.each([
  [70, 4.5, 0],
  [71, 2, 0],
  [201, 0, 1.2],
])('with %d steps markers have radius %d', (steps, radius, joined) => {
  expect(solutionSeries(runView(steps), [0])[1]).toMatchObject({ radius, joined });
});

test('the line of the solution is named for what it is, and is left out where nothing is known', () => {
  const points = [
    { x: 0, y: 1 },
    { x: 1, y: 0 },
  ];
  expect(solutionSeries(runView(4), [0])[0]).toMatchObject({ label: 'exact', points });
  expect(solutionSeries(runView(4, 'reference'), [0])[0]).toMatchObject({ label: 'reference', points });
  expect(solutionSeries(runView(4, null), [0]).map(({ kind }) => kind)).toEqual(['dots']);
  const { title, x, tip, legend } = solutionPlot(runView(4, 'exact', [HEUN]), 'x', false);
  expect(title).toBe('Solution: level vs x');
  expect(x.range).toEqual([0, 1]);
  expect(legend.map(({ label }) => label)).toEqual(['exact', 'Euler', 'Heun']);
  // what is said of a point: the other runs and the solution at the same time, and none where they have no point
  expect(tip?.('Euler', { x: 1, y: 0.1 })).toEqual(['Euler: level = 0.1 at x = 1', 'Heun: 0.03', 'exact: 0']);
  expect(tip?.('Heun', { x: 0.5, y: 0.4 })).toEqual(['Heun: level = 0.4 at x = 0.5', 'exact: 0.5']);
});

test('runs of one method at several step sizes keep its colour, the coarse ones standing back', () => {
  const fine: Trajectory = { ...HEUN, method: 0, gridRequest: { h: 0.5 } };
  const { byRungs, runs } = runView(4, 'exact', [fine]);
  expect(byRungs).toBe(true);
  expect(runs.map(({ id, label }) => [id, label])).toEqual([
    ['h = 1', 'Euler, h = 1'],
    ['h = 0.5', 'Euler, h = 0.5'],
  ]);
  const { color } = methodMark(LIGHT, 0);
  expect(runs[1]?.mark.color).toBe(color.toLowerCase());
  expect(runs[0]?.mark.color).not.toBe(color.toLowerCase());
  expect(runView(4, 'exact', [HEUN]).byRungs).toBe(false);
});

test('errors over time are taken from the solution, or from another run at the times both have', () => {
  const scale = { logarithmic: false, relative: false, against: null };
  const view = runView(4, 'exact', [HEUN]);
  expect(errorSeries(view, scale).map(({ points }) => points.map(({ y }) => y))).toEqual([
    [0, 0.1],
    [0, 0.4 - 0.5, 0.03],
  ]);
  const [euler, ...others] = errorSeries(view, { ...scale, against: 'h' });
  expect(others).toEqual([]);
  expect(euler?.points).toEqual([
    { x: 0, y: 0 },
    { x: 1, y: 0.1 - 0.03 },
  ]);
  expect(errorPlot(view, 't', { ...scale, against: 'h' }).title).toBe('difference of level from Heun vs t');
  expect(errorPlot(runView(4, 'reference'), 't', scale).title).toBe(
    'error of level against a reference vs t',
  );
  // an error of nothing has no place on a logarithmic scale
  expect(errorSeries(view, { ...scale, logarithmic: true })[0]?.points[0]?.y).toBeNaN();
});

test('the leading term of the error is dashed beside the errors of its run, and of no other', () => {
  const scale = { logarithmic: true, relative: false, against: null };
  const lines = errorPlot(runView(1, 'exact', [HEUN]), 't', scale).series.filter(
    ({ kind }) => kind === 'line',
  );
  expect(lines).toHaveLength(1);
  expect(lines[0]).toMatchObject({ id: 'e', dashed: true, label: 'Euler, leading term' });
  expect(lines[0]?.points).toEqual([
    { x: 0, y: NaN },
    { x: 1, y: 0.09 },
  ]);
  const relative = errorPlot(runView(1), 't', { ...scale, relative: true });
  expect(relative.series.some(({ kind }) => kind === 'line')).toBe(false);
});

test('measured points stand as crosses beside the solution, those of the component that is shown', () => {
  const view = runView(4);
  const measured = [
    { component: 'level', points: [{ t: 0.5, value: 0.4 }] },
    { component: 'z', points: [{ t: 1, value: 9 }] },
  ];
  const plot = solutionPlot(view, 't', false, measured);
  expect(plot.series.at(-1)).toMatchObject({
    id: 'measured',
    points: [{ x: 0.5, y: 0.4 }],
    mark: { shape: 'cross', color: LIGHT.ink },
  });
  expect(plot.legend.at(-1)?.label).toBe('measured');
  expect(solutionPlot(view, 't', false).legend.some(({ id }) => id === 'measured')).toBe(false);
});

test('points of a solution are drawn as a person has chosen', () => {
  const sizes = (drawn: RunView['drawn']): readonly (readonly number[])[] =>
    solutionPlot({ ...runView(4), drawn }, 't', false).series.flatMap((series) =>
      series.kind === 'dots' ? [[series.radius > 0 ? 1 : 0, series.joined > 0 ? 1 : 0]] : [],
    );
  expect(new Set(sizes('points').map(String))).toEqual(new Set(['1,0']));
  expect(new Set(sizes('line').map(String))).toEqual(new Set(['0,1']));
  expect(new Set(sizes('both').map(String))).toEqual(new Set(['1,1']));
});

test('components of one run have colours of their own, in their lines, points and names', () => {
  const one = runView(4);
  const [run] = one.runs;
  if (run === undefined) throw new Error('a run');
  const two = {
    ...one,
    runs: [{ ...run, run: { ...run.run, components: [run.run.components[0]!, run.run.components[0]!] } }],
    curves: { ...one.curves, components: ['m', 'l'], truth: [one.curves.truth[0]!, one.curves.truth[0]!] },
  };
  const plot = solutionPlot(two, 't', true);
  const colors = plot.series.map((series) => (series.kind === 'line' ? series.color : series.mark.color));
  expect(colors).toEqual([LIGHT.methods[0], LIGHT.methods[1], LIGHT.methods[0], LIGHT.methods[1]]);
  const notes = plot.overlays.flatMap((overlay) => (overlay.kind === 'notes' ? overlay.notes : []));
  expect(notes.map(({ text, color }) => [text, color])).toEqual([
    ['m', LIGHT.methods[0]],
    ['l', LIGHT.methods[1]],
  ]);
  expect(plot.legend.every(({ color }) => color === LIGHT.ink)).toBe(true);
});
