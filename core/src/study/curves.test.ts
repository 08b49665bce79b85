import type { StudyDocument } from '../document/document.ts';
import { openStudy } from '../document/open-study.ts';
import { curvesOf } from './curves.ts';
import { finish } from './run-study.ts';

const DECAY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Drying meadow',
  problem: { title: 'Drying meadow', text: "w' = -0.7*w\nw(0) = 1\n0 <= t <= 2\nw(t) = exp(-0.7*t)" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
  ladder: { counts: [10, 20] },
};

test('the leading term over time is that of the closed form, times h to the order', () => {
  const opened = openStudy(DECAY);
  if (!opened.ok) throw new Error('texts');
  for (const steps of [10, 20]) {
    const { runs } = finish(curvesOf(opened.study, [{ method: 0, gridRequest: { steps } }]));
    const leading = runs[0]?.leading;
    const t = leading?.t.at(-1) ?? NaN;
    expect(t).toBe(2);
    // e(t) = -a^2/2 t exp(a t) for the method of Euler
    const expected = (2 / steps) * (-(0.7 ** 2) / 2) * t * Math.exp(-0.7 * t);
    expect(leading?.values[0]?.at(-1)).toBeCloseTo(expected, 6);
  }
});
