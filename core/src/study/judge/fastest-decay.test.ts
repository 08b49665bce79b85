import { parseProblem } from '../../problem/parse-problem.ts';
import { fastestDecay } from './fastest-decay.ts';

function decayOf(text: string, state: readonly number[]): number | null {
  const problem = parseProblem(text);
  if (!problem.ok) throw new Error(JSON.stringify(problem));
  return fastestDecay(problem.value, 0, state);
}

test('of two decays the faster is found, whatever the directions', () => {
  // the matrix ((-16, 14), (14, -16)) has the eigenvalues -2 and -30
  const pair = "a' = -16*a + 14*b\nb' = 14*a - 16*b\na(0) = 1\nb(0) = 0\n0 <= t <= 1";
  expect(decayOf(pair, [1, 0])! / 30).toBeCloseTo(1, 3);
  // of a right-hand side that is no straight line, the derivative at the state: -3 y^2 at y = 4
  expect(decayOf("y' = -y^3\ny(0) = 4\n0 <= t <= 1", [4])! / 48).toBeCloseTo(1, 3);
});

test.each([
  ['a growth', "y' = 3*y\ny(0) = 1\n0 <= t <= 1", [1]],
  ['a growth faster than the decay beside it', "a' = 5*a\nb' = -b\na(0) = 1\nb(0) = 1\n0 <= t <= 1", [1, 1]],
  ['a rotation', "x' = 7*z\nz' = -7*x\nx(0) = 1\nz(0) = 0\n0 <= t <= 1", [1, 0]],
  ['a decay that turns', "x' = -x + 9*z\nz' = -9*x - z\nx(0) = 1\nz(0) = 0\n0 <= t <= 1", [1, 0]],
  ['no motion', "y' = 0*y\ny(0) = 1\n0 <= t <= 1", [1]],
])('%s is no fastest decay', (_, text, state) => {
  expect(decayOf(text, state)).toBeNull();
});
