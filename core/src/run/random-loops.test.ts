import fc from 'fast-check';
import { findInLibrary } from '../method/library/find-method.ts';
import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { compileRun } from '../compile/compile.ts';
import { layGrid } from './grid.ts';
import { integrate } from './integrate.ts';

/** A right-hand side as it is typed, with NAME for the unknown, and as a function typed by hand. */
interface Rhs {
  readonly text: string;
  readonly at: (t: number, y: number) => number;
}

const leaf: fc.Arbitrary<Rhs> = fc.oneof(
  fc.constant<Rhs>({ text: 't', at: (t) => t }),
  fc.constant<Rhs>({ text: 'NAME', at: (_, y) => y }),
  fc.integer({ min: 1, max: 999 }).map((n): Rhs => ({ text: `${n / 100}`, at: () => n / 100 })),
);

const FUNCTIONS = ['sin', 'cos', 'exp', 'tanh', 'atan', 'cbrt'] as const;

const { rhs } = fc.letrec<{ rhs: Rhs }>((tie) => {
  const pair = fc.tuple(tie('rhs'), tie('rhs'));
  return {
    rhs: fc.oneof(
      { maxDepth: 4, depthSize: 'medium' },
      leaf,
      pair.map(([a, b]): Rhs => ({
        text: `(${a.text} + ${b.text})`,
        at: (t, y) => a.at(t, y) + b.at(t, y),
      })),
      pair.map(([a, b]): Rhs => ({
        text: `(${a.text} - ${b.text})`,
        at: (t, y) => a.at(t, y) - b.at(t, y),
      })),
      pair.map(([a, b]): Rhs => ({ text: `${a.text}*(${b.text})`, at: (t, y) => a.at(t, y) * b.at(t, y) })),
      pair.map(([a, b]): Rhs => ({
        text: `(${a.text})/(1 + (${b.text})^2)`,
        at: (t, y) => a.at(t, y) / (1 + b.at(t, y) * b.at(t, y)),
      })),
      tie('rhs').map((a): Rhs => ({
        text: `(-(${a.text})^3)`,
        at: (t, y) => -(a.at(t, y) * a.at(t, y) * a.at(t, y)),
      })),
      fc
        .tuple(fc.constantFrom(...FUNCTIONS), tie('rhs'))
        .map(([f, a]): Rhs => ({ text: `${f}(${a.text})`, at: (t, y) => Math[f](a.at(t, y)) })),
      fc.tuple(pair, pair).map(([[a, b], [c, d]]): Rhs => ({
        text: `if(${a.text} < ${b.text}, ${c.text}, ${d.text})`,
        at: (t, y) => (a.at(t, y) < b.at(t, y) ? c.at(t, y) : d.at(t, y)),
      })),
    ),
  };
});

const N = 12;
const H = 1 / N;

/** Heun's loop, typed out. */
function byHand({ at }: Rhs): number {
  let y = 0.7;
  for (let n = 0; n < N; n += 1) {
    const t = 0 + n * H;
    const k1 = at(t, y);
    const k2 = at(t + H, y + H * k1);
    y = y + (H / 2) * (k1 + k2);
  }
  return y;
}

function texts({ text }: Rhs): readonly { readonly shape: string; readonly problem: string }[] {
  const of = (name: string): string => text.replaceAll('NAME', name);
  const names = Array.from({ length: 18 }, (_, i) => `y${i}`);
  return [
    { shape: 'local numbers', problem: `y' = ${of('y')}\ny(0) = 0.7` },
    { shape: 'arrays', problem: names.map((y) => `${y}' = ${of(y)}\n${y}(0) = 0.7`).join('\n') },
    { shape: 'a family', problem: `u[i]' = ${of('u[i]')} for i = 1..40\nu[i](0) = 0.7 for i = 1..40` },
  ];
}

test('any right-hand side gives the bits of the loop typed by hand, in local numbers, arrays and families', () => {
  const heun = findInLibrary('Heun')!;
  fc.assert(
    fc.property(rhs, (typed) => {
      const expected = byHand(typed);
      for (const { shape, problem } of texts(typed)) {
        const reading = parseProblem(`${problem}\n0 <= t <= 1`);
        if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
        const { values, stopped } = integrate(compileRun(reading.value, heun), layGrid(0, 1, { steps: N }));
        if (!Number.isFinite(expected)) expect([shape, stopped]).not.toEqual([shape, null]);
        else expect([shape, stopped, ...new Set(values)]).toEqual([shape, null, expected]);
      }
    }),
    { numRuns: 150 },
  );
});

test('in single precision every operation is rounded to 32 bits', () => {
  const F = Math.fround;
  const euler = parseMethod('y[n+1] = y + h*f(t, y)');
  if (!euler.ok) throw new Error('the method cannot be read');
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 1, max: 400 }), (a, b) => {
      const reading = parseProblem(`y' = ${a / 100} - ${b / 100}*y*y + t/3\ny(0) = 0.1\n0 <= t <= 1`);
      if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
      const h = F(H);
      let y = F(0.1);
      for (let n = 0; n < N; n += 1) {
        const t = F(F(0) + F(n * h));
        const product = F(F(F(b / 100) * y) * y);
        const f = F(F(F(a / 100) - product) + F(t / 3));
        y = F(y + F(h * f));
      }
      const run = compileRun(reading.value, euler.value, { precision: 'single' });
      expect(integrate(run, layGrid(0, 1, { steps: N })).values[0]).toBe(y);
    }),
  );
});
