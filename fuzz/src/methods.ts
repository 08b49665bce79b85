import * as fc from 'fast-check';
import { formulaOver, numberText, primes, repeated } from './formulas.ts';

interface Lines {
  readonly lines: readonly string[];
  /** Slopes that later lines may use. */
  readonly slopes: readonly string[];
}

const fraction = fc.oneof(
  numberText,
  fc
    .tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: 1, max: 12 }))
    .map(([above, below]) => `(${above}/${below})`),
);

/** One more line of a method, by what is above it. */
function nextLine({ lines, slopes }: Lines): fc.Arbitrary<Lines> {
  const k = `k${lines.length + 1}`;
  const known = fc.constantFrom(...slopes);
  const line = (text: fc.Arbitrary<string>): fc.Arbitrary<Lines> =>
    text.map((one) => ({ lines: [...lines, one], slopes: [...slopes, k] }));
  return fc.oneof(
    {
      weight: 8,
      arbitrary: line(
        fc.tuple(fraction, fraction, known).map(([c, a, s]) => `${k} = f(t + ${c}*h, y + h*${a}*${s})`),
      ),
    },
    {
      weight: 2,
      arbitrary: line(
        fc.tuple(fraction, known, known).map(([a, s, u]) => `${k} = f(t + h, y + h*(${a}*${s} - ${u}/2))`),
      ),
    },
    {
      weight: 2,
      arbitrary: line(
        fc
          .tuple(fraction, fraction, known)
          .map(([c, a, s]) => `solve ${k} = f(t + ${c}*h, y + h*(${a}*${k} + ${s}))`),
      ),
    },
    {
      weight: 1,
      arbitrary: line(
        fc.tuple(fraction, known).map(([g, s]) => `J${k} = f_y(t, y)\nsolve ${k} = ${s} + h*${g}*J${k}*${k}`),
      ),
    },
    {
      weight: 1,
      arbitrary: line(
        fc.tuple(fraction, known).map(([g, s]) => `solve ${k} = f(t, y + h*${s}) + ${g}*h*f_y(t, y)*${k}`),
      ),
    },
    {
      weight: 1,
      arbitrary: line(
        known.map((s) => `solve ${k}, m${k} = f(t, y + h*(${k} + m${k})), f(t + h, y + h*${s} - h*${k})`),
      ),
    },
    {
      weight: 1,
      arbitrary: line(fc.integer({ min: 1, max: 6 }).map((order) => `${k} = f${primes(order)}(t, y)`)),
    },
    { weight: 1, arbitrary: line(known.map((s) => `${k} = f_t(t, y) + f_y(t, y)*${s}`)) },
    {
      weight: 1,
      arbitrary: line(
        fc
          .tuple(formulaOver(['t', 'y', '2*y', 't*y'], 2), known)
          .map(([d, s]) => `d${k}(t, y) = ${d}\n${k} = d${k}(t + h, y + h*${s})`),
      ),
    },
    {
      weight: 1,
      arbitrary: line(
        fc.tuple(formulaOver(['h', '2'], 2), known).map(([c, s]) => `c${k} = ${c}\n${k} = c${k}*${s}`),
      ),
    },
  );
}

/** Methods for y' = f(t, y) of up to five stages: explicit, implicit, linearly implicit, Taylor, multistep. */
const firstOrder = fc
  .record({
    stages: fc.integer({ min: 0, max: 5 }),
    history: fc.constantFrom('none', 'none', 'none', 'right-hand sides', 'values'),
    start: fc.constantFrom('', '', 'start with RK4', 'start with Euler', 'start with nobody'),
    weights: fc.array(fraction, { minLength: 9, maxLength: 9 }),
  })
  .chain(({ stages, history, start, weights }) => {
    const kept = history === 'right-hand sides' ? ['f[n-1]', 'f[n]', 'f[n-2]'] : [];
    let made: fc.Arbitrary<Lines> = fc.constant({ lines: [], slopes: ['f(t, y)', ...kept] });
    for (let i = 0; i < stages; i += 1) made = made.chain(nextLine);
    return made.map(({ lines, slopes }) => {
      const sum = slopes.map((slope, i) => `${weights[i] ?? '1'}*${slope}`).join(' + ');
      const base = history === 'values' ? '4/3*y - 1/3*y[n-1]' : 'y';
      return [...lines, start, `y[n+1] = ${base} + h*(${sum})`].filter((line) => line !== '').join('\n');
    });
  });

/** Methods for x'' = a(t, x, v). */
const secondOrder = fc
  .tuple(fraction, fraction, fc.constantFrom('v', 'v[n+1]'), fc.boolean())
  .map(([a, b, velocity, implicit]) =>
    implicit
      ? `solve v[n+1] = v + h*a(t + h, x + h*${a}*v[n+1], v[n+1])\nx[n+1] = x + h*${velocity}`
      : `k1 = a(t, x, v)\nk2 = a(t + ${a}*h, x + h*${a}*v, v + h*${b}*k1)\nv[n+1] = v + h*(${b}*k1 + k2/2)\nx[n+1] = x + h*${velocity} + h^2/2*k1`,
  );

/** Short texts that represent something large. */
const growing = fc
  .record({ count: fc.integer({ min: 1, max: 300 }), kind: fc.integer({ min: 0, max: 9 }) })
  .map(({ count, kind }): string => {
    const n = count % 40;
    switch (kind) {
      case 0:
        return `d0(t, y) = t*y\n${repeated(n, (i) => `d${i + 1}(t, y) = d${i}(t, y)*d${i}(t, y)`, '\n')}\ny[n+1] = y + h*d${n}(t, y)`;
      case 1:
        return `J0 = f_y(t, y)\n${repeated(n, (i) => `J${i + 1} = J${i} + J${i}`, '\n')}\ny[n+1] = y + h*J${n}*f(t, y)`;
      case 2:
        return `${repeated(count, (i) => `k${i} = f(t, y + h*${i === 0 ? 'f(t, y)' : `k${i - 1}`})`, '\n')}\ny[n+1] = y + h*k${count - 1}`;
      case 3:
        return `y[n+1] = y + h*${'f(t, y + h*'.repeat(count)}f(t, y)${')'.repeat(count)}`;
      case 4:
        return `y[n+1] = y${repeated(25, (i) => ` + h^${i + 1}*f${primes(i % 25)}(t, y)`, '')}`;
      case 5:
        return `c0 = (1 + h)^40\n${repeated(n, (i) => `c${i + 1} = c${i}^${count % 41}`, '\n')}\ny[n+1] = y + h*c${n}*f(t, y)`;
      case 6:
        return `${repeated(n, (i) => `c${i} = ${i === 0 ? '1e-150' : `c${i - 1}*c${i - 1} + 1e-300`}`, '\n')}\ny[n+1] = y + h*f(t, y)`;
      case 7:
        return `y[n+1] = y + h*(${repeated(count, (i) => `f(t + ${i}*h/7, y)`, ' + ')})`;
      case 8:
        return `y[n+1] = ${repeated(1 + (count % 20), (i) => `y[n-${i}]`, ' + ')} + h*f[n-${count % 21}]`;
      default:
        return `solve ${repeated(1 + (count % 8), (i) => `k${i}`, ', ')} = ${repeated(1 + (count % 8), (i) => `f(t, y + h*k${(i + 1) % (1 + (count % 8))})`, ', ')}\ny[n+1] = y + h*k0`;
    }
  });

/** Texts of methods. */
export const methodText: fc.Arbitrary<string> = fc.oneof(
  { weight: 8, arbitrary: firstOrder },
  { weight: 1, arbitrary: secondOrder },
  { weight: 2, arbitrary: growing },
);
