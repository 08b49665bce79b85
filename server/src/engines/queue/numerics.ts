import { createHash } from 'node:crypto';
import { openStudy, type StudyDocument } from '@schritt/core/document';
import { runStudy } from '@schritt/core/study';

/** Small studies that go through every kind of generated code: local numbers, arrays, families, series, Newton's method. */
const PROBES: readonly Pick<StudyDocument, 'problem' | 'methods'>[] = [
  {
    problem: {
      title: 'Elementary functions',
      text: "y' = sin(t)*exp(-y) + sqrt(1 + y^2)*ln(2 + t) - atan(y)^3\ny(0) = 0.1\n0 <= t <= 1",
    },
    methods: [
      { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
      { title: 'Series', text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)" },
      { title: 'Two steps', text: 'start with Euler\ny[n+1] = y[n] + h*(3/2*f[n] - 1/2*f[n-1])' },
      { title: 'Trapezium', text: 'solve z = y + h/2*(f(t, y) + f(t + h, z))\ny[n+1] = z' },
    ],
  },
  {
    problem: {
      title: 'Chain',
      text: "u[i]' = 3*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..40\nu[0] = 0\nu[41] = 1\nu[i](0) = i/41 + sin(i) for i = 1..40\n0 <= t <= 1\nu[i](t) = i for i = 1..40",
    },
    methods: [{ title: 'Midpoint', text: 'k = f(t, y)\ny[n+1] = y + h*f(t + h/2, y + h/2*k)' }],
  },
];

/**
 * A digest of numbers as this program and this machine compute them: equal on two machines whose studies have the same
 * bits. It finds versions that differ, and a processor or runtime that rounds otherwise.
 *
 * @throws Error where a probe cannot be opened: the program is broken
 */
export function numericsDigest(): string {
  const hash = createHash('sha256');
  for (const { problem, methods } of PROBES) {
    const opened = openStudy({
      schritt: 1,
      kind: 'study',
      title: problem.title,
      problem,
      methods,
      ladder: { counts: [16, 33, 64] },
    });
    if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
    for (const { title, rungs } of runStudy(opened.study).methods) {
      hash.update(title);
      // a run without values would make any two machines alike
      if (rungs.some(({ values }) => values.length === 0)) throw new Error(`${title} has no values`);
      for (const { values } of rungs) hash.update(Float64Array.from(values));
    }
  }
  return hash.digest('hex').slice(0, 12);
}
