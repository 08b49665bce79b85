import { parseProblem } from '../problem/parse-problem.ts';
import { checkTyped, typedCheckSentence } from './check-typed.ts';
import { problem } from '../test-texts.ts';

const SLUICE = "level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 6\nlevel(t) = (2 - k*t/2)^2";
const SWAY = "x'' = -4*x - x'/5\nx(0) = 1\nx'(0) = 0\n0 <= t <= 3";

test.each([
  `${SLUICE}\nlevel'' = k^2/2`,
  `${SLUICE}\nlevel'' = -k/(2*sqrt(level))*level'\nlevel''' = 0`,
  // a derivative that holds along the solution alone
  `y' = -y\ny(0) = 1\n0 <= t <= 1\ny'' = exp(-t)`,
  `${SWAY}\nx''' = -4*x' - x''/5\nx'''' = -4*x'' - x'''/5`,
])('a derivative that is right agrees: %s', (text) => {
  for (const check of checkTyped(problem(text))) expect(check).toMatchObject({ agrees: true });
});

test('a slip is reported with the place, the time and both values', () => {
  const text = `${SWAY}\nx''' = -4*x' + x''/5`;
  const sway = problem(text);
  const [check] = checkTyped(sway);
  expect(check).toMatchObject({ agrees: false, derivative: "x'''" });
  expect(text.slice(check!.at.from, check!.at.to)).toBe("x''' = -4*x' + x''/5");
  // both differ by the sign of x''/5, and x'' = -4 x - x'/5 along exp(-t/10) cos and sin of sqrt(3.99) t
  const [w, d] = [Math.sqrt(3.99), 0.1];
  const x = (t: number): number => Math.exp(-d * t) * (Math.cos(w * t) + (d / w) * Math.sin(w * t));
  const v = (t: number): number => -Math.exp(-d * t) * (w + (d * d) / w) * Math.sin(w * t);
  const { t, typed, made } = check!;
  expect(typed - made).toBeCloseTo((2 / 5) * (-4 * x(t) - v(t) / 5), 10);
  expect(typedCheckSentence(sway, check!)).toMatch(/^x''' as typed is .* at t = .*, but .* is .* there$/);
});

test('errors have their places', () => {
  const errors = (text: string): string => {
    const reading = parseProblem(text);
    return reading.ok ? '' : reading.errors.map((e) => `${e.line}:${e.column} ${e.message}`).join('\n');
  };
  expect(errors(`${SLUICE}\nlevel'' = lvel`)).toMatch(/^6:11 lvel is not known/);
  expect(errors(`${SLUICE}\nlevel'' = level'''`)).toMatch(
    /^6:11 level''' is not known here; level'' may contain level'/,
  );
  expect(errors(`${SLUICE}\nlevel'' = 1\nlevel'' = 2`)).toMatch(/^7:1 level'' has two equations/);
});
