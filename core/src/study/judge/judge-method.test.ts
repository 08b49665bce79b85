import { openStudy } from '../../document/open-study.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { finish } from '../run-study.ts';
import { runSteps } from '../runs/run-methods.ts';
import { placesOf, truthOf } from '../runs/truth.ts';
import { judgeMethod } from './judge-method.ts';
import type { MethodResult } from './method-result.ts';

/** RK4 down to its floor, its runs held against something whose error is known. */
function judged(doubt: number): MethodResult {
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
  const rungs = run!.rungs.map((rung) => ({ ...rung, taken: rung.taken && { ...rung.taken, doubt } }));
  return judgeMethod(study, truth, study.methods[0]!, { ...run!, rungs });
}

const floorOf = ({ rungs }: MethodResult): readonly number[] =>
  rungs.filter(({ leftOut }) => leftOut?.kind === 'floor').map(({ steps }) => steps);

test('a floor against an exact solution is one of rounding, measured by runs that round another way', () => {
  const exact = judged(0);
  expect(floorOf(exact).length).toBeGreaterThan(2);
  // rounding of a value of exp(-2) is between one half of a unit and what all steps can pile up
  for (const { rounding, steps } of exact.rungs) {
    expect(rounding?.size).toBeGreaterThan(Math.exp(-2) * 2 ** -54);
    expect(rounding?.size).toBeLessThan(Math.exp(-2) * 2 ** -53 * 5 * Math.sqrt(steps));
  }
});

test('what is below the error of a reference does not count', () => {
  const made = judged(1e-9 * Math.exp(-2));
  // RK4 has an error of 1e-9 near 64 steps
  expect(floorOf(made)).toContain(128);
  expect(made.rungs.find(({ steps }) => steps === 8)?.leftOut).toBeNull();
});
