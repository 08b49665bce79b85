import { jetFunction } from '../compile/jets/jet-function.ts';
import { estimatedReference } from './reference-solution.ts';
import { taylorSolution } from './taylor-solution.ts';
import { problem } from '../test-texts.ts';

function coefficients(rhs: string, y0: number, t0: number, order: number): readonly number[] {
  const out = new Float64Array(order + 1);
  jetFunction(problem(`y' = ${rhs}\ny(${t0}) = ${y0}\n${t0} <= t <= ${t0 + 1}`), order)(t0, [y0], out);
  return Array.from(out);
}

test('for y’ = y^2 the first 30 coefficients are those of 1/(1 - t)', () => {
  for (const c of coefficients('y^2', 1, 0, 30)) expect(Math.abs(c - 1)).toBeLessThan(1e-14);
});

/** Taylor coefficients of g at 0 by Cauchy's integral formula on a circle: no recurrence in it. */
function cauchy(
  g: (re: number, im: number) => readonly [number, number],
  radius: number,
  order: number,
): readonly number[] {
  const n = 256;
  const samples = Array.from({ length: n }, (_, i) =>
    g(radius * Math.cos((2 * Math.PI * i) / n), radius * Math.sin((2 * Math.PI * i) / n)),
  );
  return Array.from({ length: order + 1 }, (_, k) => {
    let sum = 0;
    samples.forEach(([re, im], i) => {
      const angle = (-2 * Math.PI * i * k) / n;
      sum += re * Math.cos(angle) - im * Math.sin(angle);
    });
    return sum / n / radius ** k;
  });
}

test('exp and sin against Cauchy’s integral formula', () => {
  // the solution of y' = exp(t)*cos(t) through 0 is (e^t (sin t + cos t) - 1)/2
  const expected = cauchy(
    (x, y) => {
      const [er, ei] = [Math.exp(x) * Math.cos(y), Math.exp(x) * Math.sin(y)];
      const sr = Math.sin(x) * Math.cosh(y) + Math.cos(x) * Math.cosh(y);
      const si = Math.cos(x) * Math.sinh(y) - Math.sin(x) * Math.sinh(y);
      return [(er * sr - ei * si - 1) / 2, (er * si + ei * sr) / 2];
    },
    1,
    20,
  );
  coefficients('exp(t)*cos(t)', 0, 0, 20).forEach((c, k) =>
    expect(Math.abs(c - expected[k]!)).toBeLessThan(1e-14),
  );
});

/** Right-hand sides whose solutions have a closed form, between them with every function of the notation. */
test.each([
  ['sqrt(y)', (t: number) => (1 + t / 2) ** 2, 1, 0],
  ['-tan(t)*y', (t: number) => Math.cos(t) / Math.cos(0.3), 1, 0.3],
  ['y*tanh(t)', (t: number) => Math.cosh(t) / Math.cosh(0.3), 1, 0.3],
  ['1/(1+atan(t)) - 1/(1+atan(t)) + 1/cosh(t)^2', (t: number) => Math.tanh(t), Math.tanh(0.3), 0.3],
  ['ln(t)', (t: number) => t * Math.log(t) - t, -1, 1],
  ['t^1.5', (t: number) => t ** 2.5 / 2.5, 1 / 2.5, 1],
  ['cbrt(t)', (t: number) => 0.75 * Math.cbrt(t) ** 4, 0.75, 1],
  [
    'asin(t)',
    (t: number) => t * Math.asin(t) + Math.sqrt(1 - t * t),
    0.3 * Math.asin(0.3) + Math.sqrt(0.91),
    0.3,
  ],
  [
    'acos(t)',
    (t: number) => t * Math.acos(t) - Math.sqrt(1 - t * t),
    0.3 * Math.acos(0.3) - Math.sqrt(0.91),
    0.3,
  ],
  [
    'atan(t)',
    (t: number) => t * Math.atan(t) - Math.log(1 + t * t) / 2,
    0.3 * Math.atan(0.3) - Math.log(1.09) / 2,
    0.3,
  ],
  ['2^t', (t: number) => 2 ** t / Math.LN2, 1 / Math.LN2, 0],
  ['t^t*(ln(t) + 1)', (t: number) => t ** t, 1, 1],
  ['sinh(t)', (t: number) => Math.cosh(t), 1, 0],
  [
    'atan2(2*t, 2) + 0*(log10(t)*ln(10) + log2(t) + abs(t) + max(t, -1))',
    (t: number) => t * Math.atan(t) - Math.log(1 + t * t) / 2,
    0.3 * Math.atan(0.3) - Math.log(1.09) / 2,
    0.3,
  ],
])('the series of %s sums to the closed form', (rhs, closed, y0, t0) => {
  const series = coefficients(rhs, y0, t0, 24);
  for (const s of [0.02, -0.05, 0.1]) {
    const value = series.reduceRight((sum, c) => sum * s + c, 0);
    expect(Math.abs(value - closed(t0 + s))).toBeLessThan(4e-15 * Math.max(1, Math.abs(value)));
  }
});

test('cost grows with the square of the order: the code of order 40 is at most five times that of order 20', () => {
  const size = (order: number): number =>
    jetFunction(problem("y' = sin(y)*y^2/(1 + exp(t*y))\ny(0) = 1\n0 <= t <= 1"), order).toString().length;
  expect(size(40) / size(20)).toBeLessThan(5);
});

test.each([
  ["y' = -2*t*y\ny(0) = 1\n0 <= t <= 3", (t: number) => [Math.exp(-t * t)]],
  ["x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 20", (t: number) => [Math.cos(t), -Math.sin(t)]],
  ["s' = c/s\nc = 0.5\ns(0) = 1\n0 <= t <= 12", (t: number) => [Math.sqrt(1 + t)]],
  [
    "u[i]' = 9*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..n\nn = 5\nu[0] = 0\nu[n+1] = 0\nu[i](0) = sin(pi*i/(n+1)) for i = 1..n\n0 <= t <= 0.3",
    (t: number) =>
      [1, 2, 3, 4, 5].map(
        (i) => Math.sin((Math.PI * i) / 6) * Math.exp(-36 * Math.sin(Math.PI / 12) ** 2 * t),
      ),
  ],
])('the Taylor solution is good to 1e-13: %#', (text, closed) => {
  const p = problem(text);
  const solution = taylorSolution(p, 1e-18);
  expect(solution.reached).toBe(p.end);
  const out = new Float64Array(p.size);
  for (const part of [0.123, 0.5, 0.87, 1]) {
    const t = p.start + part * (p.end - p.start);
    solution.at(t, out);
    closed(t).forEach((value, j) =>
      expect(Math.abs(out[j]! - value)).toBeLessThan(1e-13 * Math.max(1, Math.abs(value))),
    );
  }
});

test('a solution with a pole is followed up to it', () => {
  const solution = taylorSolution(problem("m' = m^2\nm(0) = 1\n0 <= t <= 2"), 1e-18);
  expect(solution.reached).toBeGreaterThan(0.999);
  expect(solution.reached).toBeLessThanOrEqual(1.0000001);
});

test('a reference ends its steps at kinks, and stays good to 1e-13 beyond them', () => {
  const a = 1.2;
  const clock = problem(`T' = -${a}*(T - if(mod(t, 2/3) < 1/3, 4, 20))\nT(0) = 12\n0 <= t <= 2`);
  const { solution, error } = estimatedReference(clock);
  expect(error).toBeLessThan(1e-13);
  solution.switches.forEach((t, i) => expect(Math.abs(t - (i + 1) / 3)).toBeLessThan(1e-15));
  // rounding may see the one at t = 2 a bit before it
  expect(solution.switches.filter((t) => t < 1.99).length).toBe(5);
  // segment by segment: towards 4 and 20 in turn
  let T = 12;
  for (let i = 0; i < 6; i += 1) {
    const air = i % 2 === 0 ? 4 : 20;
    T = air + (T - air) * Math.exp(-a / 3);
  }
  const out = new Float64Array(1);
  solution.at(2, out);
  expect(Math.abs(out[0]! / T - 1)).toBeLessThan(1e-13);
});

test('a bounce off |x| is met at the time the solution itself decides', () => {
  // x'' = -sign(x): parabolas of one shape, with zeros at sqrt(2), 3 sqrt(2), ...
  const { solution, error } = estimatedReference(
    problem("x'' = -sign(x)\nx(0) = 1\nx'(0) = 0\n0 <= t <= 10"),
  );
  expect(error).toBeLessThan(1e-12);
  // sign takes three values: a zero is met, and left again
  const zeros = [1, 3, 5, 7].map((k) => k * Math.SQRT2).filter((t) => t < 10);
  for (const zero of zeros)
    expect(Math.min(...solution.switches.map((t) => Math.abs(t - zero)))).toBeLessThan(1e-13);
  const out = new Float64Array(2);
  solution.at(4 * Math.SQRT2, out);
  expect(Math.abs(out[0]! - 1)).toBeLessThan(1e-12);
});

/** Problems at whose solutions a series is easily wrong, with the solution. */
/** The solution of y' = -y + |sin(10 t)|, y(0) = 0, from one zero of the sine to the next. */
function rectified(t: number): number {
  const part = Math.PI / 10;
  const wave = (at: number): number => (Math.sin(10 * at) - 10 * Math.cos(10 * at)) / 101;
  let [y, from, sign] = [0, 0, 1];
  for (; from + part < t; from += part, sign = -sign)
    y = (y - sign * wave(from)) * Math.exp(-part) + sign * wave(from + part);
  return (y - sign * wave(from)) * Math.exp(from - t) + sign * wave(t);
}

const HARD: readonly (readonly [text: string, exact: (t: number) => number])[] = [
  // a tank that is empty at 80/7 and stays so: behind that the series of the root would rise again
  ["level' = -0.35*sqrt(max(level, 0))\nlevel(0) = 4\n0 <= t <= 20", (t) => Math.max(0, 2 - 0.175 * t) ** 2],
  ["y' = -sqrt(y)\ny(0) = 1\n0 <= t <= 3", (t) => Math.max(0, 1 - t / 2) ** 2],
  // no series at t = 1
  [
    "y' = sqrt(abs(t - 1))\ny(0) = 0\n0 <= t <= 2",
    (t) => (1 + Math.sign(t - 1) * Math.abs(t - 1) ** 1.5) / 1.5,
  ],
  // jumps, few and many
  ["y' = if(t < 1/3, 1, 5)\ny(0) = 0\n0 <= t <= 1", (t) => (t < 1 / 3 ? t : 1 / 3 + 5 * (t - 1 / 3))],
  [
    "y' = floor(5*t)\ny(0) = 0\n0 <= t <= 1",
    (t) => {
      const k = Math.floor(5 * t);
      return (k * (k - 1)) / 10 + k * (t - k / 5);
    },
  ],
  [
    "y' = mod(3000*t, 1)\ny(0) = 0\n0 <= t <= 1",
    (t) => {
      const [whole, part] = [Math.floor(3000 * t), 3000 * t - Math.floor(3000 * t)];
      return (whole / 2 + (part * part) / 2) / 3000;
    },
  ],
  // at rest at the start, on a kink: with s the sign of sin(10 t), y = c exp(-t) + s (sin(10 t) - 10 cos(10 t))/101
  ["y' = -y + abs(sin(10*t))\ny(0) = 0\n0 <= t <= 2", rectified],
  // at rest at the start, far from t = 0
  ["y' = -y + t - 1e4\ny(1e4) = 0\n1e4 <= t <= 10002", (t) => t - 10001 + Math.exp(1e4 - t)],
  ["y' = -y + t - 1e6\ny(1e6) = 0\n1e6 <= t <= 1000002", (t) => t - 1000001 + Math.exp(1e6 - t)],
  // an unstable one: rounding grows like exp(40)
  ["y' = 20*(y - cos(t)) - sin(t)\ny(0) = 1\n0 <= t <= 2", (t) => Math.cos(t)],
  // an equilibrium that is not left
  ["y' = y*(1 - y)\ny(0) = 1\n0 <= t <= 50", () => 1],
];

test.each(HARD)('the stated error of a reference holds within a factor of three: %s', (text, exact) => {
  const { start, end } = problem(text);
  const { solution, error } = estimatedReference(problem(text));
  expect(solution.ending).toBeNull();
  const out = new Float64Array(1);
  let [most, scale] = [0, 0];
  for (let i = 0; i <= 50; i += 1) {
    const t = start + ((end - start) * i) / 50;
    solution.at(t, out);
    most = Math.max(most, Math.abs(out[0]! - exact(t)));
    scale = Math.max(scale, Math.abs(exact(t)));
  }
  expect(most).toBeLessThanOrEqual(3 * error * scale);
  expect(error).toBeLessThan(1e-9);
});

test('where more than one solution goes on there is no reference', () => {
  const ending = (text: string): readonly [number, string | null] => {
    const { solution } = estimatedReference(problem(text));
    return [solution.reached, solution.ending];
  };
  // 0 and -(t - 2)^2/4 both go on behind t = 2
  const [left, why] = ending("y' = -sqrt(abs(y))\ny(0) = 1\n0 <= t <= 3");
  expect(left).toBeCloseTo(2, 6);
  expect(why).toBe('singular');
  expect(ending("y' = sqrt(y)\ny(0) = 0\n0 <= t <= 2")).toEqual([0, 'singular']);
  const [blown, leaves] = ending("y' = y^2\ny(0) = 1\n0 <= t <= 2");
  expect(blown).toBeCloseTo(1, 9);
  expect(leaves).toBe('leaves');
});

test('a large system has a reference between its points as good as at them', () => {
  const { kind, solution, error } = estimatedReference(
    problem("u[i]' = -3*u[i] for i = 1..1001\nu[i](0) = 1 for i = 1..1001\n0 <= t <= 1"),
  );
  expect(kind).toBe('fine steps');
  const out = new Float64Array(1001);
  for (const t of [0.0001, 0.3125, 0.55555, 0.9999]) {
    solution.at(t, out);
    expect(Math.abs(out[500]! - Math.exp(-3 * t))).toBeLessThan(1e-12);
  }
  expect(error).toBeLessThan(1e-12);
});

test('a step over a time without series may add to the error, and says how much at most', () => {
  const root = problem("y' = cbrt(t - 0.5)\ny(0) = 1\n0 <= t <= 1");
  const solution = taylorSolution(root, 1e-18);
  const out = new Float64Array(1);
  solution.at(1, out);
  // 3/4 (t - 1/2)^(4/3) is the same at both ends of the interval
  expect(solution.doubt).toBeGreaterThan(0);
  expect(solution.doubt).toBeLessThan(1e-9);
  expect(Math.abs(out[0]! - 1)).toBeLessThan(solution.doubt + 1e-15);
});
