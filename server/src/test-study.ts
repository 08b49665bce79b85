import type { StudyDocument } from '@schritt/core/document';

/** A sluice that empties a basin, by two methods at some numbers of steps. */
export function sluice(intervals: readonly number[], rhs = '-0.35*sqrt(level)'): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: {
      title: 'Sluice',
      text: `level' = ${rhs}\nlevel(0) = 4\n0 <= t <= 6\nlevel(t) = (2 - 0.35*t/2)^2`,
    },
    methods: [
      { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
      { title: 'Midpoint', text: 'k = f(t, y)\ny[n+1] = y + h*f(t + h/2, y + h/2*k)' },
    ],
    ladder: { counts: intervals },
  };
}
