import { parseProblem } from './parse-problem.ts';
import { stepExpression } from './step-expression.ts';

function of(interval: string, steps: number): unknown {
  const [start] = interval.split(' ');
  const reading = parseProblem(`y' = -y\ny(${start}) = 1\n${interval}`);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return stepExpression(reading.value, steps);
}

test.each([
  ['0 <= t <= 2*pi', 64, '2 pi/64', true],
  ['0 <= t <= pi', 8, 'pi/8', true],
  ['0 <= t <= sqrt(2)', 10, 'sqrt(2)/10', true],
  ['1 <= t <= 1+pi', 4, '(1 + pi - 1)/4', true],
  ['0 <= t <= 8', 16, '8/16', false],
])('%s in %d steps', (interval, steps, text, isSymbolic) => {
  expect(of(interval, steps)).toEqual({ text, isSymbolic });
});
