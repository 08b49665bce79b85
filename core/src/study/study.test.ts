import { openStudy } from '../document/open-study.ts';
import type { StudyDocument } from '../document/document.ts';
import { fitOrder } from './fit.ts';
import { runStudy, type StudyResult } from './study.ts';

function study(more: Partial<StudyDocument>): StudyResult {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text: "y' = a*y\na = -2\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(a*t)" },
    methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
    ladder: { intervals: [10, 30, 70, 200] },
    ...more,
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return runStudy(opened.study);
}

test('errors and orders on a ladder of mixed ratios follow the closed form', () => {
  const rungs = study({}).methods[0]!.rungs;
  const error = (n: number): number => Math.abs((1 - 2 / n) ** n - Math.exp(-2));
  const counts = [10, 30, 70, 200];
  rungs.forEach((rung, i) => {
    expect(Math.abs(rung.error! / error(counts[i]!) - 1)).toBeLessThan(1e-11);
    if (i === 0) {
      expect(rung.order).toBeNull();
      return;
    }
    const [n1, n2] = [counts[i - 1]!, counts[i]!];
    expect(rung.ratio).toBeCloseTo(error(n1) / error(n2), 9);
    expect(rung.order).toBeCloseTo(Math.log(error(n1) / error(n2)) / Math.log(n2 / n1), 9);
  });
});

test('the error of a system is the Euclidean norm, or that of one component', () => {
  const problem = {
    title: 'Sway',
    text: "x' = v\nv' = -x\nx(0) = 1\nv(0) = 0\n0 <= t <= 1\nx(t) = cos(t)\nv(t) = -sin(t)",
  };
  const whole = study({ problem }).methods[0]!.rungs[0]!;
  const first = study({ problem, error: { at: 'end', of: 'x', scale: 'absolute' } }).methods[0]!.rungs[0]!;
  // Euler on the circle multiplies x + iv by (1 - ih): modulus (1 + h^2)^(N/2), angle -N*atan(h).
  const r = (1 + 0.01) ** 5;
  const angle = 10 * Math.atan(0.1);
  const dx = r * Math.cos(angle) - Math.cos(1);
  const dv = -r * Math.sin(angle) + Math.sin(1);
  expect(whole.error).toBeCloseTo(Math.hypot(dx, dv), 13);
  expect(first.error).toBeCloseTo(Math.abs(dx), 13);
});

test('maximum and root mean square run over the grid', () => {
  const errors = Array.from({ length: 11 }, (_, n) => Math.abs((1 - 0.2) ** n - Math.exp(-0.2 * n)));
  const ladder = { intervals: [10] };
  const max = study({ ladder, error: { at: 'max', of: 'norm', scale: 'absolute' } }).methods[0]!.rungs[0]!;
  const rms = study({ ladder, error: { at: 'rms', of: 'norm', scale: 'absolute' } }).methods[0]!.rungs[0]!;
  expect(max.error).toBeCloseTo(Math.max(...errors), 14);
  expect(rms.error).toBeCloseTo(Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / 11), 14);
});

test('a rung that stops and a rung that cannot be laid do not spoil the others', () => {
  const result = study({
    problem: { title: 'Avalanche', text: "m' = m^2\nm(0) = 1\n0 <= t <= 0.9\nm(t) = 1/(1 - t)" },
    methods: [{ title: 'Forgot h', text: 'y[n+1] = y + 400*h*f(t, y)' }],
    ladder: { steps: [0.09, 1e-12, 0.3] },
  });
  expect(result.methods[0]!.rungs.map((r) => r.stopped === null)).toEqual([false, true]);
  expect(result.methods[0]!.rungs[0]!.error).toBeNull();
  expect(result.problems).toEqual([expect.stringContaining('at most 100,000,000')]);
});

test('the fit takes the longest stretch clear of rounding', () => {
  const points = [0.4, 0.2, 0.1, 0.05, 0.025].map((h) => ({ h, error: 3 * h ** 4, scale: 1 }));
  const floor = { h: 0.0125, error: 2e-16, scale: 1 };
  const fit = fitOrder([{ h: 0.8, error: null, scale: 1 }, ...points, floor]);
  expect(fit).toMatchObject({ from: 1, to: 5 });
  expect(fit!.order).toBeCloseTo(4, 12);
  expect(fit!.constant).toBeCloseTo(3, 10);
});
