import { findInLibrary } from '../../method/library/find-method.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { type TestBench, testBench } from './test-bench.ts';

function bench(text: string): TestBench {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return testBench(reading.value);
}

test.each(LIBRARY.map(({ title }) => title))('%s parts from its proved order nowhere', (title) => {
  const { proved, results } = testBench(findInLibrary(title)!);
  expect(proved).not.toBeNull();
  // a simple problem may show a higher order, a stiff one the step size at which a run becomes stable
  const expected: readonly string[] = ['exact', 'agrees', 'above', 'unsteady'];
  expect(results.filter(({ verdict }) => !expected.includes(verdict))).toEqual([]);
});

test('far above the time constant the order of a diagonally implicit method falls to its stage order', () => {
  const { results } = bench(
    'g = 1/2 + sqrt(3)/6\nsolve k1 = f(t + g*h, y + g*h*k1)\nsolve k2 = f(t + (1 - g)*h, y + h*((1 - 2*g)*k1 + g*k2))\ny[n+1] = y + h/2*(k1 + k2)',
  );
  const stiff = results.find(({ name }) => name.startsWith('very stiff'));
  expect(stiff).toMatchObject({ verdict: 'reduced' });
  expect(stiff!.observed).toBeLessThan(2.3);
  // an explicit method is not run there
  expect(bench('y[n+1] = y + h*f(t, y)').results.some(({ name }) => name.startsWith('very'))).toBe(false);
});

test.each([
  ['Euler', 1],
  ['Heun', 2],
  ['Kutta 3', 4],
  ['RK4', 4],
  ['Adams-Bashforth 3', 3],
])('%s is exact for powers of t up to %i', (title, up) => {
  const { results } = testBench(findInLibrary(title)!);
  const exact = results.slice(0, 4).map(({ verdict }) => verdict === 'exact');
  expect(exact).toEqual([1, 2, 3, 4].map((q) => q <= up));
});

test('a formula that does not converge grows, one without a proof is only observed', () => {
  const growing = bench('start with RK4\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])');
  expect(growing.proved).toBeNull();
  expect(growing.results.map(({ verdict }) => verdict)).toContain('grows');
  const forgotten = bench('k1 = f(t, y)\ny[n+1] = y + k1/10');
  expect(forgotten.proved).toBeNull();
  expect(forgotten.results[0]).toMatchObject({ verdict: 'grows' });
});

test('a run that overflows at the finest step has no observed order', () => {
  const { results } = bench('y[n+1] = y + 400*h*f(t, y)');
  expect(results.find(({ finest }) => finest === Infinity)).toMatchObject({
    verdict: 'grows',
    observed: null,
  });
  expect(results.filter(({ observed }) => observed === -Infinity)).toEqual([]);
});
