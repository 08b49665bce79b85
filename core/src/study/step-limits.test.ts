import { openStudy } from '../document/open-study.ts';
import { stepLimits } from './step-limits.ts';

function limits(problem: string, ...methods: readonly string[]): readonly (number | null)[] {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text: problem },
    methods: methods.map((text, i) => ({ title: `M${i}`, text })),
    ladder: { counts: [10] },
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened));
  return stepLimits(opened.study);
}

const EULER = 'y[n+1] = y + h*f(t, y)';
const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';
const BACKWARD = 'solve z = y + h*f(t + h, z)\ny[n+1] = z';

test('Euler and Heun are stable up to 2 over the rate of the fastest decay, the backward formula for any h', () => {
  const [euler, heun, backward] = limits(
    "y' = -50*(y - cos(t))\ny(0) = 1\n0 <= t <= 1",
    EULER,
    HEUN,
    BACKWARD,
  );
  expect(euler).toBeCloseTo(2 / 50, 6);
  expect(heun).toBeCloseTo(2 / 50, 6);
  expect(backward).toBeNull();
});

test('nothing is reported where the fastest motion is no decay', () => {
  expect(limits("y' = 2*y\ny(0) = 1\n0 <= t <= 1", EULER)).toEqual([null]);
  expect(limits("x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1", EULER)).toEqual([null]);
});
