import { parseProblem } from './parse-problem.ts';
import type { Problem } from './problem.ts';
import { problemKey } from './problem-key.ts';

function problem(text: string, k?: number): Problem {
  const reading = parseProblem(text, k === undefined ? {} : { k });
  if (!reading.ok) throw new Error('cannot be read');
  return reading.value;
}

const DECAY = "y' = -k*y\nk = 2\ny(0) = 1\n0 <= t <= 1";

test('the same problem has the same key, one with another text, value or circumstance another', () => {
  const key = problemKey(problem(DECAY), 'exact');
  expect(problemKey(problem(DECAY), 'exact')).toBe(key);
  expect(problemKey(problem(DECAY, 2), 'exact')).toBe(key);
  const others = [
    problemKey(problem(DECAY)),
    problemKey(problem(DECAY), 'taylor'),
    problemKey(problem(DECAY, 2.5), 'exact'),
    problemKey(problem(DECAY.replace('y(0) = 1', 'y(0) = 3')), 'exact'),
  ];
  expect(new Set([key, ...others]).size).toBe(5);
});
