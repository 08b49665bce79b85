import { openStudy } from '../../document/open-study.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { finish } from '../run-study.ts';
import { runSteps } from '../runs/run-methods.ts';
import { placesOf, type Truth, truthOf } from '../runs/truth.ts';
import { judgeMethod } from './judge-method.ts';
import type { MethodResult } from './method-result.ts';

/** RK4 down to its floor, held against a truth of its own. */
function judged(change: (truth: Truth) => Truth): MethodResult {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text: "y' = -2*y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-2*t)" },
    methods: [{ title: 'RK4', text: findInLibrary('RK4')!.text }],
    ladder: { counts: Array.from({ length: 14 }, (_, i) => 8 * 2 ** i) },
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  const { study } = opened;
  const places = placesOf(study.problem, 'norm');
  if ('message' in places) throw new Error(places.message);
  const truth = truthOf(study.problem, places, 1);
  const [run] = finish(runSteps(study));
  return judgeMethod(study, change(truth), study.methods[0]!, run!);
}

const floorOf = ({ rungs }: MethodResult): readonly number[] =>
  rungs.filter(({ leftOut }) => leftOut?.kind === 'floor').map(({ steps }) => steps);

test('a floor against an exact solution is one of rounding, and so is one against a reference as exact', () => {
  const exact = judged((truth) => truth);
  expect(floorOf(exact).length).toBeGreaterThan(2);
  // no floor is far above what the rounding of all steps can make
  expect(exact.roundOff!.best.error).toBeLessThan(1e-13);
  expect(exact.roundOff!.best.h).toBeGreaterThan(1e-5);
  const good = judged((truth) => ({ ...truth, kind: 'taylor', error: 8e-16 }));
  expect(good.roundOff).not.toBeNull();
});

test('a floor that a reference makes says nothing of rounding', () => {
  const made = judged((truth) => ({ ...truth, kind: 'taylor', error: 1e-9 }));
  // RK4 has an error of 1e-9 near 64 steps; what is below a reference of that error does not count
  expect(floorOf(made)).toContain(128);
  expect(made.roundOff).toBeNull();
  expect(judged((truth) => ({ ...truth, kind: 'taylor', error: 1e-15 })).roundOff).toBeNull();
});
