import { openStudy } from '../../document/open-study.ts';
import { runStudy } from '../run-study.ts';
import { estimatedSeconds } from './estimate.ts';
import type { Study } from './study.ts';

function study(problem: string, method = 'y[n+1] = y + h*f(t, y)'): Study {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: { title: 'Sluice', text: problem },
    methods: [{ title: 'Own', text: method }],
    ladder: { counts: [4, 8] },
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

const decay = (rate: number, exact = ''): string => `y' = ${rate}*y\ny(0) = 1\n0 <= t <= 1\n${exact}`;

test('the estimate holds the reference, which takes longer the stiffer the problem is', () => {
  const known = estimatedSeconds(study(decay(-1e4, 'y(t) = exp(-1e4*t)')));
  const [mild, stiff] = [-10, -1e4].map((rate) => estimatedSeconds(study(decay(rate))));
  expect(stiff).toBeGreaterThan(50 * known);
  expect(stiff).toBeGreaterThan(10 * mild!);
});

test.each(['y', 'x'])(
  'local errors of %s start from the solution, whose reference is a part of the estimate',
  (of) => {
    const asked = study(decay(-1e4));
    const local = estimatedSeconds({ ...asked, error: { ...asked.error, at: 'local', of } });
    expect(local).toBeCloseTo(estimatedSeconds(asked), 10);
  },
);

test('elimination of a large dense system is a part of the estimate', () => {
  const rightHandSides = Array.from({ length: 60 }, (_, i) => `z${i}' = -z${(7 * i) % 60}`).join('\n');
  const initial = Array.from({ length: 60 }, (_, i) => `z${i}(0) = 1`).join('\n');
  const text = `${rightHandSides}\n${initial}\n0 <= t <= 1`;
  const implicit = estimatedSeconds(study(text, 'solve k = f(t + h, y + h*k)\ny[n+1] = y + h*k'));
  expect(implicit).toBeGreaterThan(estimatedSeconds(study(text)) + 12 * (60 ** 3 / 3) * 1e-9);
});

test('stages of a family that are solved together widen the band that is eliminated', () => {
  const family = "n = 300\nu[i]' = -u[i] for i = 1..n\nu[i](0) = 1 for i = 1..n\n0 <= t <= 1";
  const names = Array.from({ length: 8 }, (_, i) => `k${i}`);
  const slopes = names.map((_, i) => `f(t, y + h*${names[(i + 1) % 8]})`);
  const coupled = `solve ${names.join(', ')} = ${slopes.join(', ')}\ny[n+1] = y + h*k0`;
  const beyondEuler = (method: string): number =>
    estimatedSeconds(study(family, method)) - estimatedSeconds(study(family));
  // banded elimination takes 2 n w^2 operations; eight values a place reach at least 7 places; 12 steps
  expect(beyondEuler(coupled)).toBeGreaterThan(12 * 2 * (8 * 300) * 7 ** 2 * 1e-9);
  expect(beyondEuler(coupled)).toBeGreaterThan(64 * beyondEuler('solve k = f(t, y + h*k)\ny[n+1] = y + h*k'));
});

test('the standard stiff test equation has a reference, and errors against it', () => {
  const { truth, methods } = runStudy(study(decay(-1000)));
  expect(truth).toMatchObject({ kind: 'taylor' });
  // Euler with h = 1/4: (1 - 250)^4 at t = 1, where the solution is zero to all doubles
  expect(methods[0]?.rungs[0]?.error).toBeCloseTo(249 ** 4, 0);
});

test('an error over the whole grid takes a look at every grid point', () => {
  const at = (error: Partial<Study['error']>): number => {
    const own = study(decay(-1, 'y(t) = exp(-t)'));
    return estimatedSeconds({ ...own, ladder: { counts: [1_000_000] }, error: { ...own.error, ...error } });
  };
  expect(at({ at: 'max' })).toBeGreaterThan(5 * at({ at: 'end' }));
});
