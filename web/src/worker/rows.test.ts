import { openStudy, type StudyDocument } from '@schritt/core/document';
import { Refusal } from '@schritt/core/text';
import { curvesOf, type Study } from '@schritt/core/study';
import { profileOf } from './profile.ts';
import type { RowsWindow, RowsRequest } from './messages.ts';
import { rowsWindow as windowOf } from './rows.ts';
import { sideRows } from './side-rows.ts';

function rowsWindow(
  of: Study,
  asked: Omit<RowsRequest, 'every' | 'points'> & Partial<Pick<RowsRequest, 'every' | 'points'>>,
): RowsWindow {
  const gridRequest = { every: 1, points: null, ...asked };
  return windowOf(of, gridRequest, 'probe');
}

function documentOf(text: string, ...methods: readonly string[]): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text },
    methods: methods.map((method, i) => ({ title: `M${i}`, text: method })),
    ladder: { counts: [4] },
  };
}

function study(text: string, ...methods: readonly string[]): Study {
  const opened = openStudy(documentOf(text, ...methods));
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

const DECAY = "y' = -2*y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-2*t)";
const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';
const EULER = 'y[n+1] = y + h*f(t, y)';

function finish<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done === true) return value;
  }
}

test('a window of rows names its columns, and has a slope though Euler has no stage', () => {
  const window = rowsWindow(study(DECAY, EULER), { method: 0, gridRequest: { steps: 4 }, from: 1, count: 2 });
  expect(window).toMatchObject({
    components: ['y'],
    slopes: ['f'],
    stages: [],
    conserved: [],
    steps: 4,
    stopped: null,
  });
  expect(window.rows.map(({ n, values, slopes }) => [n, values[0], slopes[0]])).toEqual([
    [1, 0.5, -1],
    [2, 0.25, -0.5],
  ]);
});

test('stages and slopes of a system carry the names of their components', () => {
  const text = "x' = z\nz' = -x\nx(0) = 1\nz(0) = 0\n0 <= t <= 1\nconserved E = x^2 + z^2";
  const window = rowsWindow(study(text, `theta = 1/2\n${HEUN}`), {
    method: 0,
    gridRequest: { h: 0.5 },
    from: 0,
    count: 1,
  });
  expect(window.slopes).toEqual(['f[x]', 'f[z]']);
  expect(window.stages).toEqual(['theta', 'k1[x]', 'k1[z]', 'k2[x]', 'k2[z]']);
  expect(window.rows[0]?.stages?.flat()).toEqual([0.5, 0, -1, -0.5, -1]);
  expect(window.conserved).toEqual(['E']);
});

test('rows of a method with an embedded formula have the errors of the steps that start there', () => {
  const pair = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*k1\nyhat[n+1] = y + h/2*(k1 + k2)';
  const request = { method: 0, gridRequest: { steps: 4 }, from: 3, count: 2 };
  const { rows, localErrors } = rowsWindow(study("y' = -y\ny(0) = 1\n0 <= t <= 2", pair), request);
  const y = rows[0]!.values[0]!;
  expect(localErrors[0]?.estimate[0]).toBeCloseTo(-y / 8, 14);
  expect(localErrors[0]?.error?.[0]).toBeCloseTo(y * (0.5 - Math.exp(-0.5)), 14);
  expect(localErrors[1]).toBeNull();
  expect(rowsWindow(study(DECAY, EULER), request).localErrors).toEqual([]);
});

test('of a large system the first components are shown, in values, slopes and stages alike', () => {
  const text = 'u[i]’ = -i*u[i] for i = 1..30\nu[i](0) = 1 for i = 1..30\n0 <= t <= 1';
  const { components, slopes, rows } = rowsWindow(study(text, HEUN), {
    method: 0,
    gridRequest: { steps: 50 },
    from: 0,
    count: 1,
  });
  expect([components.length, slopes.length, rows[0]?.values.length, rows[0]?.slopes.length]).toEqual([
    8, 8, 8, 8,
  ]);
  expect(rows[0]?.stages?.map((stage) => stage.length)).toEqual([8, 8]);
});

test('a window in which a run becomes non-finite says where', () => {
  const { stopped, rows } = rowsWindow(study("m' = m^2\nm(0) = 1e200\n0 <= t <= 1", EULER), {
    method: 0,
    gridRequest: { steps: 4 },
    from: 0,
    count: 5,
  });
  expect(rows).toHaveLength(1);
  expect(stopped).toContain('step 1, y[n+1]: 1e+200^2 overflows');
});

test('a method that is not there is refused', () => {
  expect(() =>
    rowsWindow(study(DECAY, EULER), { method: 3, gridRequest: { steps: 4 }, from: 0, count: 5 }),
  ).toThrow(Refusal);
});

const BY_QUARTERS = [0, 1].map((method) => ({ method, gridRequest: { steps: 4 } }));

test('curves of all methods, one that cannot be run among them, with the exact line', () => {
  const verlet = 'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]';
  const curves = finish(curvesOf(study(DECAY, EULER, verlet), BY_QUARTERS));
  expect(curves.components).toEqual(['y']);
  expect(curves.runs.map(({ method, steps, stoppedAt }) => [method, steps, stoppedAt])).toEqual([
    [0, 4, null],
    [1, 0, 0],
  ]);
  expect(curves.runs[0]?.components[0]).toEqual({
    t: [0, 0.25, 0.5, 0.75, 1],
    values: [1, 0.5, 0.25, 0.125, 0.0625],
    errors: null,
  });
  expect(curves.truth[0]?.kind).toBe('exact');
  expect(curves.truth[0]?.values.at(-1)).toBeCloseTo(Math.exp(-2), 15);
  expect(curves.runs[0]?.truth[0]?.[2]).toBeCloseTo(Math.exp(-1), 15);
});

test('several step sizes of one method, each a run of its own', () => {
  const wishes = [2, 4].map((steps) => ({ method: 0, gridRequest: { steps } }));
  const { runs } = finish(curvesOf(study(DECAY, EULER), wishes));
  expect(runs.map(({ components }) => components[0]?.values)).toEqual([
    [1, 0, 0],
    [1, 0.5, 0.25, 0.125, 0.0625],
  ]);
});

test('where no exact solution is typed a reference stands in, with an estimate of its own error', () => {
  const of = study("y' = -2*y\ny(0) = 1\n0 <= t <= 1", EULER);
  const { t, truth, runs } = finish(curvesOf(of, BY_QUARTERS.slice(0, 1)));
  expect(truth[0]?.kind).toBe('reference');
  expect(truth[0]?.error).toBeLessThan(1e-14);
  t.forEach((time, i) => expect(truth[0]?.values[i]).toBeCloseTo(Math.exp(-2 * time), 14));
  expect(runs[0]?.truth[0]?.[4]).toBeCloseTo(Math.exp(-2), 14);
});

const HEAT =
  "u[i]' = 4*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..3\nu[0] = 0\nu[4] = 0\nu[i](0) = i for i = 1..3\n0 <= t <= 1";

test('a family at one grid point, for every method, beside its solution', () => {
  const of = study(HEAT, EULER);
  const document = documentOf(HEAT, EULER);
  const profile = profileOf(of, document, { gridRequest: { steps: 8 }, n: 1, family: 0 });
  expect(profile).toMatchObject({ name: 'u', indices: [1, 2, 3], t: 0.125, steps: 8 });
  // u + h f by hand: f = 4 (0 - 2 + 2), 4 (1 - 4 + 3), 4 (2 - 6 + 0)
  expect(profile.methods).toEqual([[1, 2, 3 - 0.125 * 16]]);
  expect(profile.truth?.kind).toBe('reference');
  expect(profileOf(of, document, { gridRequest: { steps: 8 }, n: 99, family: 0 }).t).toBe(1);
  expect(() =>
    profileOf(study(DECAY, EULER), document, { gridRequest: { steps: 8 }, n: 0, family: 0 }),
  ).toThrow(Refusal);
});

test('a window of a long run, from the checkpoint before it, has the bits of the whole run', () => {
  const of = study("x' = z\nz' = -x\nx(0) = 1\nz(0) = 0\n0 <= t <= 10", HEUN);
  const steps = 30_000;
  const window = (from: number, count: number): RowsWindow =>
    rowsWindow(of, { method: 0, gridRequest: { steps }, from, count });
  const far = window(29_990, 20);
  expect(far.rows.map(({ n }) => n)).toEqual(Array.from({ length: 11 }, (_, i) => 29_990 + i));
  let [x, z] = [1, 0];
  const h = 10 / steps;
  for (let n = 0; n < 29_990; n += 1) {
    const [k1, l1] = [z, -x];
    const [k2, l2] = [z + h * l1, -(x + h * k1)];
    [x, z] = [x + (h / 2) * (k1 + k2), z + (h / 2) * (l1 + l2)];
  }
  expect(far.rows[0]?.values).toEqual([x, z]);
  expect(window(3, 2).rows.map(({ n }) => n)).toEqual([3, 4]);
});

test('every third row of a run has the bits of those rows of all, and none beyond the end', () => {
  const of = study(DECAY, HEUN);
  const all = rowsWindow(of, { method: 0, gridRequest: { steps: 10 }, from: 0, count: 11 }).rows;
  const some = rowsWindow(of, { method: 0, gridRequest: { steps: 10 }, from: 1, count: 9, every: 3 }).rows;
  expect(some.map(({ n }) => n)).toEqual([1, 4, 7, 10]);
  expect(some).toEqual(all.filter(({ n }) => n % 3 === 1));
});

test('rows of a list of grid points have the bits of those rows, of a short run and of a long one', () => {
  for (const steps of [10, 30_000]) {
    const of = study(DECAY, HEUN);
    const row = (n: number) =>
      rowsWindow(of, { method: 0, gridRequest: { steps }, from: n, count: 1 }).rows[0];
    const points = [0, 3, 4, steps];
    const { rows } = rowsWindow(of, { method: 0, gridRequest: { steps }, from: 0, count: 1, points });
    expect(rows).toEqual(points.map(row));
  }
});

test('where no exact solution is given, rows have the values of a reference and say so', () => {
  const bare = study(DECAY.split('\n').slice(0, 3).join('\n'), EULER);
  const asked = { method: 0, gridRequest: { steps: 4 }, from: 0, count: 5 };
  const window = rowsWindow(bare, asked);
  expect(window.truths).toEqual(['reference']);
  for (const { t, exact } of window.rows) expect(exact[0]).toBeCloseTo(Math.exp(-2 * t), 13);
  expect(rowsWindow(study(DECAY, EULER), asked).truths).toEqual(['exact']);
});

test('rows side by side have several components and their stages; one component has its own stages only', () => {
  const pair = "m' = -m + l\nl' = m - 2*l\nm(0) = 1\nl(0) = 3\n0 <= t <= 1";
  const [document, of] = [documentOf(pair, EULER, HEUN), study(pair, EULER, HEUN)];
  const window = { gridRequest: { steps: 4 }, from: 0, count: 2, every: 1, points: null };
  const both = sideRows(of, document, { ...window, components: [0, 1], stages: true });
  expect(both.stages).toEqual([[], ['k1[m]', 'k1[l]', 'k2[m]', 'k2[l]']]);
  const [first, second] = both.rows;
  expect(first?.values).toEqual([
    [1, 3],
    [1, 3],
  ]);
  // k1 = (-1 + 3, 1 - 6), and k2 at (1.5, 1.75)
  expect(first?.stages).toEqual([[], [2, -5, 0.25, -2]]);
  expect(second?.values[0]).toEqual([1.5, 1.75]);
  const one = sideRows(of, document, { ...window, components: [1], stages: true });
  expect(one.components).toEqual(['l']);
  expect(one.stages).toEqual([[], ['k1[l]', 'k2[l]']]);
  expect(one.rows[0]?.stages).toEqual([[], [-5, -2]]);
  expect(sideRows(of, document, { ...window, components: [1], stages: false }).stages).toEqual([[], []]);
});
