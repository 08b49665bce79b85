import { parseMethod } from '../../method/parse-method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import { compileRun } from '../compile.ts';
import { layGrid } from '../../run/grid.ts';
import { integrate } from '../../run/integrate.ts';
import { arrayLoop } from '../loops/array-loop.ts';

const BODY =
  'sqrt(abs(u[i-1])) - u[i]^2 + u[i+2]^3/7 + max(u[i], 0.25, u[i+1]) - min(u[i-1], u[i]) + if(u[i] > u[i+1], floor(10*u[i]), -t*i)*k/(n + 1) - (-u[i])';

function text(n: number, body: string): string {
  return `u[i]' = ${body} for i = 1..n\nk = 0.1\nn = ${n}\nu[0] = 0.5\nu[n+1] = sin(t)\nu[n+2] = 0\nu[i](0) = 1/i for i = 1..n\n0 <= t <= 0.3`;
}

test.each([17, 18, 19, 20, 41])(
  'inner loops over %i elements give the bits of the formula in JavaScript',
  (n) => {
    const problem = parseProblem(text(n, BODY));
    const method = parseMethod('k1 = f(t, y)\ny[n+1] = y + h*k1');
    if (!problem.ok || !method.ok) throw new Error(JSON.stringify(problem));
    const run = compileRun(problem.value, method.value);
    expect(arrayLoop(problem.value, run.program, 'double').kernels!.list).toHaveLength(2);
    const h = 0.3 / 6;
    let u = Array.from({ length: n }, (_, i) => 1 / (i + 1));
    for (let step = 0; step < 6; step += 1) {
      const t = 0 + step * h;
      const at = (i: number): number =>
        i === 0 ? 0.5 : i === n + 1 ? Math.sin(t) : i === n + 2 ? 0 : u[i - 1]!;
      u = u.map((y, index) => {
        const i = index + 1;
        const [a, c, d] = [at(i - 1), at(i + 1), at(i + 2)];
        const choice = y > c ? Math.floor(10 * y) : -t * i;
        const rate =
          Math.sqrt(Math.abs(a)) -
          y * y +
          (d * d * d) / 7 +
          Math.max(y, 0.25, c) -
          Math.min(a, y) +
          (choice * 0.1) / (n + 1) -
          -y;
        return y + h * rate;
      });
    }
    expect(Array.from(integrate(run, layGrid(0, 0.3, { steps: 6 })).values)).toEqual(u);
  },
);

test('a body with a function that has no instruction stays in JavaScript, with the same bits', () => {
  const problem = parseProblem(text(20, 'sin(u[i])*u[i-1] + u[i+2]^1.5'));
  const method = parseMethod('y[n+1] = y + h*f(t, y)');
  if (!problem.ok || !method.ok) throw new Error();
  const run = compileRun(problem.value, method.value);
  const u = Array.from({ length: 20 }, (_, i) => 1 / (i + 1));
  const at = (i: number): number => (i === 0 ? 0.5 : i > 20 ? 0 : u[i - 1]!);
  const expected = u.map((y, i) => y + 0.3 * (Math.sin(y) * at(i) + Math.pow(at(i + 3), 1.5)));
  expect(Array.from(integrate(run, layGrid(0, 0.3, { steps: 1 })).values)).toEqual(expected);
});
