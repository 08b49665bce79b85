import { openStudy } from '../document/open-study.ts';
import { stepsForError } from './steps-for-error.ts';

function study(methods: readonly { readonly title: string; readonly text: string }[]) {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: {
      title: 'Sluice',
      text: "level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 8\nlevel(t) = (2 - k*t/2)^2",
    },
    methods,
    ladder: { counts: [10, 20] },
  });
  if (!opened.ok) throw new Error('study');
  return opened.study;
}

test('the number of steps for a target error is predicted, and a run confirms it', () => {
  const [euler, heun, slipped] = stepsForError(
    study([
      { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
      { title: 'Heun', text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)' },
      { title: 'Slip', text: 'k1 = f(t, y)\ny[n+1] = y + k1/10' },
    ]),
    1e-4,
  );
  // the error of Euler at t = 8 is close to 0.126 h (its runs at h = 1/32 show 0.127 h)
  expect(Math.abs(euler!.steps / ((0.126 * 8) / 1e-4) - 1)).toBeLessThan(0.01);
  for (const one of [euler, heun]) expect(Math.abs(one!.measured! / 1e-4 - 1)).toBeLessThan(0.02);
  expect(heun!.steps).toBeLessThan(100);
  expect(slipped).toBeNull();
});
