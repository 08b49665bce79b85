import { openStudy } from '../document/open-study.ts';
import type { Inspection } from '../inspect/inspect-method.ts';
import type { Method } from '../method/method.ts';
import { runStudy } from './run-study.ts';

jest.mock('../inspect/inspect-method.ts', () => {
  const actual = jest.requireActual<{ readonly inspectMethod: (method: Method) => Inspection }>(
    '../inspect/inspect-method.ts',
  );
  return {
    ...actual,
    inspectMethod: (method: Method) => {
      if (method.text.includes('# broken')) throw new Error('no such coefficient');
      return actual.inspectMethod(method);
    },
  };
});

test('a method whose analysis fails says so itself; the others of the study have their results', () => {
  const euler = 'y[n+1] = y + h*f(t, y)';
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: { title: 'Sluice', text: "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)" },
    methods: [
      { title: 'Broken', text: `# broken\n${euler}` },
      { title: 'Euler', text: euler },
    ],
    ladder: { counts: [1, 2, 4] },
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  const { methods, findings } = runStudy(opened.study);
  expect(methods.map(({ refused }) => refused)).toEqual(['internal error: no such coefficient', null]);
  // (1 - 1/2)^2 against exp(-1)
  expect(methods[1]?.rungs[1]?.error).toBeCloseTo(Math.exp(-1) - 1 / 4, 14);
  expect(findings.some(({ method, sentence }) => method === 0 && sentence.includes('internal error'))).toBe(
    true,
  );
});
