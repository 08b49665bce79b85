import { openStudy } from '@schritt/core/document';
import { runStudy } from '@schritt/core/study';
import type { KeyedResult } from '../desk/use-results.ts';
import { LIGHT, methodMark } from '../theme/tokens.ts';
import { orderOverlays, orderPicture, orderSeries, type OrderView } from './order-picture.ts';
import { portraitPicture } from './portrait-lens.tsx';
import { solutionFrame, solutionSeries, type SolutionView } from './solution-picture.ts';

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

test('errors over h, in the colour of the method’s place; a rung that is struck out is pale', () => {
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
  const { x, y, tip, title } = orderPicture(VIEW, [], []);
  expect(title).toBe('Order: error at t = 2 over h, both logarithmic');
  expect([1, 0.1, 0.2, 1e-5].map((value) => x.tick?.(value))).toEqual(['1', '0.1', '0.2', '10⁻⁵']);
  expect([1e-2, 2e-3, 1].map((value) => y.tick?.(value))).toEqual(['10⁻²', '2·10⁻³', '10⁰']);
  expect(tip?.('Euler', { x: 0.125, y: 0.0123456 })).toBe('Euler: error 1.235e-2 at h = 0.125');
  const costs = orderPicture({ ...VIEW, over: 'evaluations' }, [], []);
  expect(costs.tip?.('Heun', { x: 2048, y: 1e-5 })).toBe('Heun: error 1.000e-5 for 2,048 evaluations');
});

function view(steps: number, exact: readonly number[] | null = [1, 0]): SolutionView {
  const curves = {
    methods: [{ components: [{ t: [0, 1], values: [1, 0.1] }], steps, stoppedAt: null, exact: [exact] }],
    exact: { t: [0, 1], values: [exact] },
    components: ['level'],
  };
  return {
    keyed: { curves, keys: ['e'] },
    placeOf: () => 0,
    titleOf: () => 'Euler',
    component: 0,
    palette: LIGHT,
  };
}

test.each([
  [70, 4.5, 0],
  [71, 2, 0],
  [201, 0, 1.2],
])('with %d steps markers have radius %d', (steps, radius, joined) => {
  expect(solutionSeries(view(steps))[1]).toMatchObject({ radius, joined });
});

test('the exact line, where there is one, and the axes as the problem names them', () => {
  expect(solutionSeries(view(4))[0]).toMatchObject({
    label: 'exact',
    points: [
      { x: 0, y: 1 },
      { x: 1, y: 0 },
    ],
  });
  expect(solutionSeries(view(4, null))[0]?.points).toEqual([]);
  const frame = solutionFrame(view(4), 'x');
  expect(frame.title).toBe('Solution: level over x');
  expect(frame.x.range).toEqual([0, 1]);
  expect(frame.tip?.('Euler', { x: 0.25, y: 1 / 3 })).toBe('Euler: level = 0.33333333 at x = 0.25');
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
    leavesAt: null,
    field: [stroke],
  } as const;
  const of = (shown: 'time' | 'plane') =>
    portraitPicture({ portrait, names: ['q', "q'"], independent: 't', view: shown }, LIGHT);
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
