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

test('a floor against an exact solution is one of rounding, measured by runs that round another way', () => {
  const exact = judged((truth) => truth);
  expect(floorOf(exact).length).toBeGreaterThan(2);
  // rounding of a value of exp(-2) is between one half of a unit and what all steps can pile up
  for (const { rounding, steps } of exact.rungs) {
    expect(rounding?.size).toBeGreaterThan(Math.exp(-2) * 2 ** -54);
    expect(rounding?.size).toBeLessThan(Math.exp(-2) * 2 ** -53 * 5 * Math.sqrt(steps));
  }
});

test('what is below the error of a reference does not count', () => {
  const made = judged((truth) => ({ ...truth, kind: 'taylor', error: 1e-9 }));
  // RK4 has an error of 1e-9 near 64 steps
  expect(floorOf(made)).toContain(128);
  expect(made.rungs.find(({ steps }) => steps === 8)?.leftOut).toBeNull();
});
