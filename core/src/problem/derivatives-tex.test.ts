import { derivativesTex } from './derivatives-tex.ts';
import { parseProblem } from './parse-problem.ts';

function shown(text: string): readonly string[] {
  const reading = parseProblem(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return derivativesTex(reading.value);
}

test.each([
  ["y' = t - 2*y\ny(0) = 1\n0 <= t <= 2", ["y'' = 1 - 2 y'", "y''' = -2 y''", "y^{(4)} = -2 y'''"]],
  ["x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 2", ["x''' = -x'", "x^{(4)} = -x''", "x^{(5)} = -x'''"]],
  // the product rule, twice
  [
    "y' = t*y\ny(0) = 1\n0 <= t <= 2",
    ["y'' = y + t y'", "y''' = y' + y' + t y''", "y^{(4)} = y'' + y'' + y'' + t y'''"],
  ],
])('%s', (text, lines) => {
  expect(shown(text)).toEqual(lines);
});

test('long ones end the list, families have none', () => {
  expect(shown("y' = sin(y*t)*exp(y*t)/(1 + y^2*t^2)\ny(0) = 1\n0 <= t <= 1").length).toBeLessThan(3);
  expect(shown("u[i]' = -u[i] for i = 1..3\nu[i](0) = 1 for i = 1..3\n0 <= t <= 1")).toEqual([]);
});
