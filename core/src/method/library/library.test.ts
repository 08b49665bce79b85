import { compileWithStart } from '../../compile/compile-with-start.ts';
import { layGrid } from '../../run/grid.ts';
import { begin } from '../../run/integrate.ts';
import { errorOfRun, errorsOf } from '../../study/runs/error-measure.ts';
import { finish } from '../../study/run-study.ts';
import { truthOf } from '../../study/runs/truth.ts';
import { parseMethod } from '../parse-method.ts';
import { findInLibrary } from './find-method.ts';
import { LIBRARY } from './library.ts';
import { problem } from '../../test-texts.ts';

/** Nonlinear, with time in the right-hand side, so that no order condition is satisfied by accident. */
const FIRST = problem(
  "y' = 2*cos(2*t)*y - (y^2 - exp(2*sin(2*t)))/4\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(sin(2*t))",
);
const SECOND = problem(
  "x'' = -x - 0.2*(x' - cos(t))*x + 0.3*(x^2 - sin(t)^2)\nx(0) = 0\nx'(0) = 1\n0 <= t <= 3\nx(t) = sin(t)",
);
/** The Verlet method is of order 2 where a does not depend on the velocity. */
const FREE = problem("x'' = -x + 0.3*(x^2 - sin(t)^2)\nx(0) = 0\nx'(0) = 1\n0 <= t <= 3\nx(t) = sin(t)");

/** The largest error over the grid: at one time alone an error may happen to change its sign. */
function error(title: string, steps: number): number {
  const method = findInLibrary(title);
  if (method === null) throw new Error(title);
  const p = title === 'Velocity Verlet' ? FREE : method.form === 'second order' ? SECOND : FIRST;
  const run = compileWithStart(p, method, { find: findInLibrary, instead: null });
  const at = begin(run, layGrid(p.start, p.end, { steps }));
  const choice = { at: 'max', of: 'norm', scale: 'absolute' } as const;
  const places = Array.from({ length: p.size }, (_, place) => place);
  const errors = errorsOf(p, truthOf(p, places, p.end), places, { choice, inDecimals: null });
  return finish(errorOfRun(at, { problem: p, errors, choice, order: null }))?.error ?? NaN;
}

test.each(LIBRARY.map(({ title, order }) => [title, order] as const))(
  '%s shows the order %i of its source',
  (title, order) => {
    const counts = [10, 14, 20, 28, 34, 40, 56, 80, 160, 320, 640];
    const errors = counts.map((steps) => error(title, steps));
    // the finest two errors that are clear of rounding
    const last = errors.findLastIndex((e) => e > 1e-13);
    const observed =
      Math.log(errors[last - 1]! / errors[last]!) / Math.log(counts[last]! / counts[last - 1]!);
    expect(Math.abs(observed - order)).toBeLessThan(0.25);
  },
);

test('every text is read without an error, has a source, and a title of its own', () => {
  for (const { text, source } of LIBRARY) {
    expect(parseMethod(text)).toMatchObject({ ok: true });
    expect(source.length).toBeGreaterThan(10);
  }
  expect(new Set(LIBRARY.map(({ title }) => title.toLowerCase())).size).toBe(LIBRARY.length);
});
