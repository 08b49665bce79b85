import { parseProblem } from '../problem/parse-problem.ts';
import type { Problem } from '../problem/problem.ts';
import { layGrid } from '../run/grid.ts';
import { integrate } from '../run/integrate.ts';
import { compileRun } from './compile.ts';
import { method, problem } from '../test-texts.ts';

function family(rhs: string, n: number): Problem {
  return problem(`u[i]' = ${rhs} for i = 1..${n}\nu[i](0) = i/${n} for i = 1..${n}\n0 <= t <= 1`);
}

test('code of more than 600,000 operations is refused with a sentence', () => {
  const names = Array.from({ length: 16 }, (_, i) => `z${i}`);
  const rightHandSides = names.map((name, i) => {
    const terms = Array.from({ length: 60 }, (_, j) => `z${(i + 7 * j) % 16}*z${(i + 3 * j) % 16}`);
    return `${name}' = ${terms.join(' + ')}`;
  });
  const dense = problem(
    `${rightHandSides.join('\n')}\n${names.map((name) => `${name}(0) = 1`).join('\n')}\n0 <= t <= 1`,
  );
  const calls = Array.from({ length: 20 }, (_, i) => `d${i} = f${"'".repeat(8)}(t + ${i}*h, y)`);
  const sum = calls.map((_, i) => `d${i}`).join(' + ');
  const high = method(`${calls.join('\n')}\ny[n+1] = y + h*f(t, y) + h^9*(${sum})`);
  expect(() => compileRun(dense, high)).toThrow(
    'takes more than 600,000 operations, written out; take fewer components, stages or derivatives',
  );
});

test('series of more than 150,000 operations are refused before one is built', () => {
  const high = method(`d = f${"'".repeat(30)}(t, y)\ny[n+1] = y + h*f(t, y) + h^2/2*d`);
  // 1,000 components, each with sin u (30^2), a product (30^2/2) and the sum (30)
  expect(() => compileRun(family('sin(u[i])*u[i]', 1000), high)).toThrow(
    'the derivatives of this method take about 1,380,000 operations on this problem, more than 150,000; ' +
      'take fewer components or derivatives',
  );
});

test('two calls of the same derivative of a large family stand beside one another', () => {
  const twice = method("d1 = f'(t, y)\nd2 = f'(t + h, y)\ny[n+1] = y + h*f(t, y) + h^2/4*(d1 + d2)");
  const { values } = integrate(compileRun(family('-u[i]', 20), twice), layGrid(0, 1, { steps: 4 }));
  const step = 1 - 1 / 4 + 1 / 32;
  expect(values[19]).toBeCloseTo(step ** 4, 14);
});

test('a right-hand side of 65 squares over a family is run', () => {
  const squares = Array.from({ length: 65 }, () => 'u[i]^2').join(' + ');
  const euler = method('y[n+1] = y + h*f(t, y)');
  const { values } = integrate(compileRun(family(squares, 20), euler), layGrid(0, 1e-2, { steps: 1 }));
  expect(values[19]).toBeCloseTo(1 + 1e-2 * 65, 13);
});

test('a method of very many constants is read in one go through its lines', () => {
  const constants = Array.from({ length: 1600 }, (_, i) => `c${i} = ${i % 9}`).join('\n');
  expect(method(`${constants}\ny[n+1] = y + c8*h*f(t, y)`).statements).toHaveLength(1601);
});

test.each(['single', 'double'] as const)(
  'a product of 1,200 factors is compiled in %s precision, to the same bits',
  (precision) => {
    const text = `y' = y${Array.from({ length: 600 }, (_, i) => `/${i + 1}*${i + 1}`).join('')}\ny(0) = 1\n0 <= t <= 1`;
    const reading = parseProblem(text);
    if (!reading.ok) throw new Error(reading.errors[0]?.message);
    const run = compileRun(reading.value, method('y[n+1] = y + h*f(t, y)'), { precision });
    const { values } = integrate(run, layGrid(0, 1, { steps: 1 }));
    const round = precision === 'single' ? Math.fround : (x: number): number => x;
    let rhs = 1;
    for (let i = 1; i <= 600; i += 1) rhs = round(round(rhs / i) * i);
    expect(values[0]).toBe(round(1 + round(1 * rhs)));
  },
);
