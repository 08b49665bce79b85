import { openStudy } from '../../document/open-study.ts';
import type { StudyDocument } from '../../document/document.ts';
import { LIBRARY } from '../../method/library/library.ts';
import type { Finding } from './facts.ts';
import { runStudy } from '../run-study.ts';
import type { StudyResult } from '../study-result.ts';

const library = (title: string): { readonly title: string; readonly text: string } => {
  const found = LIBRARY.find((method) => method.title === title);
  if (found === undefined) throw new Error(title);
  return { title, text: found.text };
};

function result(text: string, methods: StudyDocument['methods'], more: Partial<StudyDocument>): StudyResult {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text },
    methods,
    ladder: { first: 0.1, factor: 2, rungs: 6 },
    ...more,
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return runStudy(opened.study);
}

function findings(...input: Parameters<typeof result>): readonly Finding[] {
  return result(...input).findings;
}

function sentence(all: readonly Finding[], kind: Finding['kind'], method: number | null = 0): string {
  return all.find((finding) => finding.kind === kind && finding.method === method)?.sentence ?? 'none';
}

test('Newton’s method is reported where it takes another root and where it is damped', () => {
  const leaping = findings("y' = y*(1 - y)\ny(0) = 0.01\n0 <= t <= 12", [library('Backward Euler')], {
    ladder: { sizes: ['2.4', '0.6', '0.3'] },
  });
  expect(leaping.find(({ kind }) => kind === 'leap')?.rungs).toEqual([0]);
  expect(leaping.some(({ kind }) => kind === 'damped')).toBe(false);
  const steep = "y' = -50*atan(20*(y - 1))\ny(0) = 3\n0 <= t <= 0.25\ny(t) = 3 - t";
  const damped = findings(steep, [library('Backward Euler')], { ladder: { counts: [1] } });
  expect(sentence(damped, 'damped')).toMatch(/with damping: once in 1 step/);
});

const PROBE =
  "p' = -50*(p - cos(t))\np(0) = 0\n0 <= t <= 1.2\np(t) = (2500*cos(t) + 50*sin(t) - 2500*exp(-50*t))/2501";
const DECAY = "y' = -2*y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-2*t)";
const HEATER =
  "T' = -a*(T - if(t < 1/3, 4, 20))\na = 1.2\nT(0) = 12\n0 <= t <= 2\nT(t) = if(t < 1/3, 4 + 8*exp(-a*t), 20 + (8*exp(-a/3) - 16)*exp(-a*(t - 1/3)))";

test('a step beyond the stability limit is reported with the limit of the method and the decay of the problem', () => {
  const all = findings(PROBE, [library('Euler'), library('RK4')], {
    ladder: { sizes: [0.06, 0.03, 0.015, 0.0075, 0.00375] },
  });
  expect(sentence(all, 'unstable')).toBe('h = 0.06 exceeds the stability limit 2/50 = 0.04.');
  expect(all.find(({ kind }) => kind === 'unstable')!.rungs).toEqual([0]);
  expect(sentence(all, 'unstable', 1)).toBe('h = 0.06 exceeds the stability limit 2.79/50 = 0.0557.');
});

test('a kink in the right-hand side is named with its time, and by the reference too where no exact solution is given', () => {
  const ladder = { counts: [8, 16, 32, 64, 128, 256] };
  for (const text of [HEATER, HEATER.split('\n').slice(0, 4).join('\n')]) {
    const all = findings(text, [library('RK4')], { ladder });
    expect(sentence(all, 'order lost')).toBe(
      'Order 1.000 (0.989 to 1.011), where 4 is expected; the right-hand side has a kink or jump at t = 0.333.',
    );
  }
});

test('a poor first step is named where its local error shows', () => {
  const text = library('Adams-Bashforth 3').text.replace(/start with .*/, 'start with Euler');
  const all = findings(DECAY, [{ title: 'AB3', text }], { ladder: { first: 0.05, factor: 2, rungs: 7 } });
  expect(sentence(all, 'order lost')).toMatch(
    /^Order 2\.0\d+ \(1\.\d+ to 2\.\d+\), where 3 is expected; the starting method Euler has a local error of order 2\.$/,
  );
});

/** RK4 on y' = -2 y in exact rational arithmetic, with 2^-1074 as the unit: (1 + z + z^2/2 + z^3/6 + z^4/24)^N. */
function exactRun(steps: bigint): number {
  const BITS = 400n;
  const one = 1n << BITS;
  const z = (-4n * one) / steps;
  const times = (a: bigint, b: bigint): bigint => (a * b) >> BITS;
  const growth = one + times(z, one + times(z, one + times(z, one + z / 4n) / 3n) / 2n);
  let [y, power, n] = [one, growth, steps];
  for (; n > 0n; n >>= 1n) {
    if (n & 1n) y = times(y, power);
    power = times(power, power);
  }
  return Number(y >> (BITS - 120n)) / 2 ** 120;
}

test('the floor is where rounding is: held against runs in 400 bits', () => {
  const all = findings(DECAY, [library('RK4')], { ladder: { first: 0.25, factor: 2, rungs: 16 } });
  const floor = all.find((one) => one.kind === 'floor');
  if (floor?.kind !== 'floor') throw new Error('no floor');
  const { steps, rounding, error, least } = floor.figures;
  // the error of the exact run is all truncation: what is left of the error of the run in double is rounding
  const share = (n: number, e: number): number => {
    const truncation = Math.abs(exactRun(BigInt(n)) - Math.exp(-4));
    return Math.abs(e - truncation) / e;
  };
  expect(share(steps, error)).toBeGreaterThan(0.05);
  expect(rounding / Math.exp(-4) / 2 ** -53).toBeGreaterThan(0.2);
  expect([4096, 8192]).toContain(steps);
  // no smaller error is in the table
  const { rungs } = result(DECAY, [library('RK4')], {
    ladder: { first: 0.25, factor: 2, rungs: 16 },
  }).methods[0]!;
  expect(least.error).toBe(Math.min(...rungs.map((rung) => rung.error!)));
  for (const rung of rungs.filter(({ leftOut }) => leftOut === null))
    expect(share(rung.steps, rung.error!)).toBeLessThan(0.5);
});

test('orders that go somewhere are reported with their trend, and not called lost or better', () => {
  // convergence from above: RK4 with N = 1 to 6
  const above = findings("y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)", [library('RK4')], {
    ladder: { counts: [1, 2, 3, 4, 5, 6] },
  });
  expect(sentence(above, 'better than promised')).toBe('none');
  expect(sentence(above, 'as promised')).toMatch(
    /^Order 4\.00 \(3\.\d+ to 4\.\d+\), as expected; between successive h: 4\.35, 4\.24, 4\.19, 4\.15, decreasing\.$/,
  );
  // orders that rise without slowing down: nothing is said of where they end
  const below = findings("y' = 1 + y^2\ny(0) = 0\n0 <= t <= 1.5\ny(t) = tan(t)", [library('Euler')], {
    ladder: { counts: [6, 18, 54, 162] },
  });
  expect(sentence(below, 'order lost')).toBe('none');
  expect(sentence(below, 'no order')).toBe(
    'Not yet in the asymptotic range: between successive h: 0.18, 0.34, 0.57, increasing; 1 is expected.',
  );
});

test('errors that other terms than the leading one rule are not called a better order', () => {
  // leapfrog on a decay: its other root grows like exp(3 t), times h^4 of the first step
  const all = findings("y' = -3*y\ny(0) = 1\n0 <= t <= 5\ny(t) = exp(-3*t)", [library('Leapfrog')], {
    ladder: { counts: [10, 20, 40, 80, 160, 320, 640, 1280, 2560, 5120, 10240] },
  });
  expect(sentence(all, 'better than promised')).toBe('none');
  expect(sentence(all, 'not yet')).toMatch(
    /times the leading term of order 2: not yet in the asymptotic range\.$/,
  );
  expect(sentence(all, 'unstable')).toMatch(/^The method is unstable for every h on a decay, here of rate 3/);
});

test('rounded coefficients have the order within their digits, as long as their rounding does not show', () => {
  const text = (sixth: string, third: string): string =>
    library('RK4').text.replace(
      /y\[n\+1\] = .*/,
      `y[n+1] = y + h*(${sixth}*k1 + ${third}*k2 + ${third}*k3 + ${sixth}*k4)`,
    );
  const of = (sixth: string, third: string) =>
    findings(
      "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)",
      [{ title: 'Typed', text: text(sixth, third) }],
      {
        ladder: { counts: [4, 8, 16, 32, 64, 128, 256, 512, 1024, 2048] },
      },
    );
  const ten = of('0.1666666667', '0.3333333333');
  expect(sentence(ten, 'as promised')).toMatch(/^Order 4\.0/);
  expect(sentence(ten, 'digits')).toBe('none');
  expect(sentence(of('0.166667', '0.333333'), 'digits')).toMatch(
    /^From h = 0\.015625 on, the rounding of the coefficients shows in the error: they have 6 digits \(defect 1\.67×10⁻⁷\); the order is 4 within these digits, and taken exactly it is 2\.$/,
  );
  const four = of('0.1667', '0.3333');
  expect(sentence(four, 'digits')).toMatch(/^From h = 0\.125 on/);
  // ten times the rounding is a mistake, and no rounding
  expect(sentence(of('0.1667', '0.3343'), 'digits')).toBe('none');
});

test('an error that changes its sign is reported where both sides follow it, and nowhere else', () => {
  const typed = 'solve y[n+1] = y + h*(0.49*f(t, y) + 0.51*f(t + h, y[n+1]))';
  const theta = findings(
    "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)",
    [{ title: 'theta', text: typed }],
    {
      ladder: { counts: [2, 4, 8, 16, 32, 64] },
    },
  );
  // the error constants: 0.01/2 h against h^2/12, alike at h = 0.12
  expect(sentence(theta, 'sign')).toBe(
    'The error changes sign between h = 0.125 and 0.0625; it passes through zero there.',
  );
  // signs that alternate because a run is unstable, or because all is rounding
  const unstable = findings(
    "p' = -50*(p - cos(t)) - sin(t)\np(0) = 1\n0 <= t <= 1.2\np(t) = cos(t)",
    [library('Euler')],
    { ladder: { counts: [7, 14, 28, 56, 112, 224, 448] } },
  );
  expect(sentence(unstable, 'sign')).toBe('none');
  const whole = findings("y' = cos(t)\ny(0) = 0\n0 <= t <= 2*pi\ny(t) = sin(t)", [library('Midpoint')], {
    ladder: { counts: [4, 8, 16, 32, 64, 128] },
  });
  expect(whole.map(({ kind }) => kind)).toEqual(['rounding only']);
});

test('rounding that growth amplifies is reported as rounding, and errors larger than the solution as such', () => {
  const all = findings(
    "y' = 10*(y - sin(t)) + cos(t)\ny(0) = 0\n0 <= t <= 3\ny(t) = sin(t)",
    [library('RK8')],
    { ladder: { counts: [8, 16, 32, 64, 128, 256, 512, 1024, 2048] } },
  );
  expect(sentence(all, 'no order')).toBe('none');
  const floor = all.find((one) => one.kind === 'floor');
  // one rounding of 2^-53 times exp(30), within a factor of fifty
  const amplified = floor?.kind === 'floor' ? floor.figures.rounding / (2 ** -53 * Math.exp(30)) : 0;
  expect(amplified).toBeGreaterThan(1 / 50);
  expect(amplified).toBeLessThan(50);
  expect(floor?.sentence).toContain(
    'From N = 512 on, rounding error dominates: about 1.49×10⁻⁴, amplified 1.34×10¹² times, compared with an error of 1.41×10⁻⁶; the smallest error is 1.41×10⁻⁶ at N = 512.',
  );
  expect(sentence(all, 'large')).toMatch(
    /^At h = 0\.375, .* the error is larger than the solution: up to 1\.37×10⁸/,
  );
});

test('where times are large, sums with them are rounded, and that is reported as rounding', () => {
  const all = findings(
    "y' = -y + t - 1000000\ny(1000000) = 0\n1000000 <= t <= 1000002\ny(t) = t - 1000001 + exp(1000000 - t)",
    [library('RK4')],
    { ladder: { counts: [4, 8, 16, 32, 64, 128, 256, 512, 1024] } },
  );
  expect(sentence(all, 'order lost')).toBe('none');
  expect(sentence(all, 'as promised')).toMatch(/^Order 4\.00/);
  expect(sentence(all, 'floor')).toMatch(/^From N = 256 on/);
});

test('rungs that fail for other reasons are distinguished', () => {
  const all = findings(
    "y' = 3*y*(1 - y/3)\ny(0) = 0.2\n0 <= t <= 8\ny(t) = 3/(1 + 14*exp(-3*t))",
    [library('Adams-Bashforth 6')],
    { ladder: { counts: [4, 36, 324] } },
  );
  const left = all.filter(({ kind }) => kind === 'left the numbers');
  expect(left.map(({ rungs }) => rungs)).toEqual([[0], [1]]);
  expect(left[0]?.sentence).toBe(
    'Cannot be run at h = 2: this method uses 5 earlier steps, and the grid has 4.',
  );
});

test('a kink that is met once is reported once, and step sizes of one grid count once', () => {
  const kink = findings(
    "y' = abs(t - 1)\ny(0) = 0\n0 <= t <= 2\ny(t) = if(t < 1, t - t^2/2, 1 - t + t^2/2)",
    [library('RK4')],
    { ladder: { counts: [5, 15, 45, 135, 405] } },
  );
  expect(sentence(kink, 'order lost')).toMatch(/the right-hand side has a kink or jump at t = 1\.$/);
  const same = findings("y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)", [library('Euler')], {
    ladder: { sizes: [0.3, 0.31, 0.32, 0.2] },
  });
  expect(sentence(same, 'same grid', null)).toBe(
    'h = 0.31 and 0.32 give the same grid as h = 0.333333 and are excluded from the fit.',
  );
  expect(sentence(same, 'two rungs')).toBe(
    'Slope 1.13 from two step sizes only; an order estimate needs three.',
  );
});

test('a relative error has no maximum where the solution is zero', () => {
  const all = findings("x' = cos(t)\nx(0) = 0\n0 <= t <= 1\nx(t) = sin(t)", [library('Euler')], {
    error: { at: 'max', scale: 'relative', of: 'norm' },
  });
  expect(sentence(all, 'no relative error', null)).toBe(
    'The solution is 0 at t = 0: the relative error is undefined there, and so are its maximum and mean.',
  );
});

test('relative errors of a small value with a clean order are not warned of', () => {
  const all = findings("y' = -y\ny(0) = 1\n0 <= t <= 20\ny(t) = exp(-t)", [library('RK4')], {
    error: { at: 'end', scale: 'relative', of: 'norm' },
    ladder: { counts: [40, 80, 160, 320, 640] },
  });
  expect(sentence(all, 'near zero', null)).toBe('none');
  expect(sentence(all, 'as promised')).toMatch(/^Order 4\.00/);
});

test('a comparison says at most where the coarsest rung is as good already', () => {
  const all = findings("y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)", [library('Euler'), library('RK4')], {
    ladder: { counts: [64, 128, 256, 512] },
  });
  expect(sentence(all, 'comparison', null)).toBe(
    'For an error of 0.0005, RK4 needs at most 256 evaluations (already reached at the largest h), Euler about 369.',
  );
});

test('slips of a formula show on any problem', () => {
  const all = findings(
    DECAY,
    [
      { title: 'No h', text: 'k1 = f(t, y)\ny[n+1] = y + k1/10' },
      { title: 'Unstable', text: 'start with Euler\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])' },
    ],
    {},
  );
  expect(sentence(all, 'formula', 0)).toMatch(
    /^The method as typed does not converge, not even on a test system/,
  );
  expect(sentence(all, 'formula', 1)).toMatch(
    /^The method as typed is not zero-stable \(proved from its text\): a root of modulus 5\.00 /,
  );
});

test('errors that are those of a reference are not taken for rounding, nor rounding for an order', () => {
  const bare = findings("y' = -2*y\ny(0) = 1\n0 <= t <= 2", [library('RK8')], {
    ladder: { counts: [4, 8, 16, 64, 128, 256] },
  });
  expect(sentence(bare, 'reference', null)).toMatch(
    /^No exact solution is given; errors are relative to a reference solution \(Taylor series of order 24;/,
  );
  expect(bare.some(({ kind }) => kind === 'order lost')).toBe(false);
});

test('an order that a wrongly typed derivative spoils is explained by it, and by nothing else', () => {
  const text = "y' = -y + t\ny'' = y - t - 1\ny(0) = 1\n0 <= t <= 1";
  const all = findings(text, [library('Taylor 2'), library('Heun')], {
    ladder: { counts: [16, 32, 64, 128, 256] },
  });
  expect(sentence(all, 'order lost')).toMatch(
    /^Order 1\.0\d* \(.+\), where 2 is expected; y'' as typed is not the derivative of the right-hand side\.$/,
  );
  expect(sentence(all, 'predicted')).toBe('none');
  // Heun evaluates no derivative
  expect(sentence(all, 'as promised', 1)).toMatch(/^Order 2\.0/);
});

test('relative errors next to a zero of the solution are warned of', () => {
  const text = "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= pi/2\nx(t) = cos(t)";
  const all = findings(text, [library('RK4')], {
    error: { at: 'end', of: 'x', scale: 'relative' },
    ladder: { counts: [10, 20] },
  });
  expect(sentence(all, 'near zero', null)).toMatch(
    /^The exact value at t = 1.57 is 6\.12×10⁻¹⁷, close to zero/,
  );
});

test('strikes and a window of a person are kept, and the comparison names the cheapest', () => {
  const struck = [
    { ...library('Euler'), struck: [1] },
    { ...library('Heun'), window: { from: 0, to: 2 } },
  ];
  const all = findings(DECAY, struck, {});
  expect(sentence(all, 'struck', null)).toBe('Excluded manually: Euler at h = 0.05.');
  expect(all.filter(({ kind }) => kind === 'struck')).toHaveLength(1);
  expect(sentence(all, 'comparison', null)).toMatch(
    /^For an error of 0\.0005, Heun needs about \d+ evaluations, Euler about \d+\.$/,
  );
});

test('on smooth problems no library method is accused of anything', () => {
  const accusing = new Set<Finding['kind']>(['order lost', 'formula', 'unstable', 'large']);
  const texts = [
    "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6",
    "q'' = -4*q - q'/5 + sin(t)\nq(0) = 1\nq'(0) = 0\n0 <= t <= 5",
    "m' = m*(1.1 - 0.4*l)\nl' = l*(0.1*m - 0.4)\nm(0) = 10\nl(0) = 5\n0 <= t <= 6",
  ];
  for (const text of texts) {
    const all = findings(text, LIBRARY.filter((m) => m.title !== 'Leapfrog').slice(0, 24), {
      ladder: { first: 0.1, factor: 2, rungs: 6 },
    });
    expect(all.filter(({ kind }) => accusing.has(kind))).toEqual([]);
  }
});

test('a wrong exact solution is reported first, and no method is judged by it', () => {
  const wrong = DECAY.replace('exp(-2*t)', 'exp(-2*t) + t/100');
  const all = findings(wrong, [library('Euler'), library('RK4')], {});
  expect(all.map(({ kind }) => kind)).toEqual(['wrong exact']);
  // y' + 2 y = 1/100 + t/50 at t = 2, of terms of about 0.1
  expect(all[0]?.sentence).toMatch(
    /^Exact solution does not satisfy the equation for y': residual [\d.e-]+ relative to its terms at t = [\d.]+; matches the initial values; errors are not assessed against it\.$/,
  );
  const start = findings(DECAY.replace('y(0) = 1', 'y(0) = 1.5'), [library('Euler')], {});
  expect(start[0]?.sentence).toContain('does not match the initial values: y is 1 at the start, not 1.5');
  // what does not rest on it is still said
  const struck = findings(wrong, [{ ...library('Euler'), struck: [1] }], {});
  expect(struck.map(({ kind }) => kind)).toEqual(['wrong exact', 'struck']);
});

test('an oscillation beyond the stability region is reported with its growth a step: |R(3i)| of the classical method', () => {
  const all = findings(
    "x'' = -w^2*x\nw = 100\nx(0) = 1\nx'(0) = 0\n0 <= t <= 3\nx(t) = cos(w*t)",
    [library('RK4')],
    { ladder: { counts: [75, 90, 100, 200, 400, 800, 1600] } },
  );
  const found = all.find(({ kind }) => kind === 'oscillation');
  expect(found?.rungs).toEqual([0, 1, 2]);
  // 1 + 3i - 9/2 - 27i/6 + 81/24
  const growth = Math.hypot(1 - 9 / 2 + 81 / 24, 3 - 27 / 6);
  expect(found?.kind === 'oscillation' && Math.abs(found.figures.growth / growth - 1)).toBeLessThan(1e-9);
  expect(found?.sentence).toContain(
    'At h = 0.04, 0.0333333 and one more, h times the eigenvalue ±100i lies outside the stability region: at h = 0.03 an error in this mode is multiplied by 1.51 per step, although the mode itself does not grow.',
  );
});

test('predictions stand beside the finest error, where it changes its sign, and where its leading term is zero', () => {
  const decay = findings(DECAY, [library('RK4')], { ladder: { counts: [10, 20, 40, 80, 160] } });
  // C a^5 T exp(a T) with C = 1/120, a = -2, T = 2
  const near = decay.find(({ kind }) => kind === 'predicted');
  expect(near?.kind === 'predicted' && near.figures.constant / ((32 / 120) * 2 * Math.exp(-4))).toBeCloseTo(
    1,
    3,
  );
  expect(near?.tone).toBe('good');
  // Simpson's rule on t^4: order 4 where Kutta 3 is of order 3
  const zero = findings("y' = t^4\ny(0) = 0\n0 <= t <= 1\ny(t) = t^5/5", [library('Kutta 3')], {
    ladder: { counts: [4, 8, 16, 32, 64] },
  });
  expect(sentence(zero, 'leading zero')).toBe(
    'The leading term vanishes on this problem: order 4 is predicted here, 3 in general.',
  );
  expect(sentence(zero, 'as promised')).toContain('as predicted for this problem');
  expect(sentence(zero, 'better than promised')).toBe('none');
  // e' = -e + (cos(t) + sin(t))/4 with e(0) = 0: e = sin(t)/4, which is zero at pi
  const sign = findings(
    "y' = -y + cos(t)\ny(0) = 0.5\n0 <= t <= 3.3\ny(t) = (cos(t) + sin(t))/2",
    [library('Euler')],
    { ladder: { counts: [20, 40, 80, 160, 320] } },
  );
  expect(sentence(sign, 'leading sign')).toBe(
    'The leading term of the error changes sign near t = 3.142; for small h the error passes through zero there.',
  );
});

test('nothing is predicted across a kink', () => {
  const all = findings(HEATER, [library('RK4')], { ladder: { counts: [8, 16, 32, 64] } });
  expect(all.some(({ kind }) => kind === 'predicted')).toBe(false);
});

test('errors over a jump in the right-hand side go up and down, and no order is made of two of them', () => {
  const all = findings(HEATER, [library('Euler')], {
    ladder: { counts: [8, 16, 32, 64, 128, 256, 512, 1024] },
  });
  expect(sentence(all, 'two rungs')).toBe('none');
  expect(sentence(all, 'no order')).toMatch(/, up and down; 1 is expected; .* at t = 0\.333\.$/);
});

test('a formula that is proved to be of order 0 is reported as such, and smaller steps are not recommended', () => {
  const half = { title: 'Half', text: 'y[n+1] = y + h/2*f(t, y)' };
  const all = findings("y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)", [half], {});
  expect(sentence(all, 'formula')).toMatch(/^The method as typed has order 0 \(proved from its text\)/);
  // it tends to exp(-t/2): the errors do not fall
  expect(all.map(({ kind }) => kind).filter((kind) => kind.includes('order') || kind === 'not yet')).toEqual(
    [],
  );
});

test('the end of a run and that of the interval are distinguished, far from zero as well', () => {
  const { methods } = result(
    "y' = -y\ny(1000000) = 1\n1000000 <= t <= 1000000.4\ny(t) = exp(1000000 - t)",
    [library('Euler')],
    { ladder: { sizes: [0.3] }, lastStep: 'overrun' },
  );
  expect(methods[0]!.rungs[0]!.remark).toContain('the last point is t = 1000000.6, not 1000000.4');
});

test('times have the digits of their interval, wherever it begins', () => {
  // the lamp of the hut is switched on at noon of day 1300 and half a day later a second one
  const lamps = findings(
    "c' = abs(t - 1300.5) + abs(t - 1301.5)\nc(1300) = 0\n1300 <= t <= 1302",
    [library('RK4')],
    { ladder: { counts: [11, 33, 99, 297] } },
  );
  expect(sentence(lamps, 'order lost')).toMatch(/kinks or jumps at t = 1300\.5, 1301\.5\.$/);
  const blown = findings("m' = m^2\nm(700) = 1\n700 <= t <= 702", [library('Euler')], {
    ladder: { counts: [10, 20, 40, 80] },
  });
  expect(sentence(blown, 'reference', null)).toContain('the reference ends at t = 701:');
});

test('a leading term that is zero where the error is taken explains a higher order', () => {
  // Simpson's rule without its error term: the third derivative of 1/(1 + t^2) is 0 at both ends of [0, 1]
  const all = findings("y' = 1/(1 + t^2)\ny(0) = 0\n0 <= t <= 1\ny(t) = atan(t)", [library('RK4')], {
    ladder: { counts: [4, 8, 16, 32] },
  });
  expect(sentence(all, 'not yet')).toBe('none');
  const heun = findings("y' = y*cos(t)\ny(0) = 1\n0 <= t <= pi\ny(t) = exp(sin(t))", [library('Heun')], {
    ladder: { counts: [10, 20, 40, 80, 160] },
  });
  expect(sentence(heun, 'better than promised')).toMatch(
    /^Order 3\.000 \(2\.98\d to 3\.01\d\), where 2 is expected; the leading term of order 2 is zero where the error is taken\.$/,
  );
});

test('a range that no finding states is in no result', () => {
  const { methods, findings: all } = result(
    "y' = y*cos(t)\ny(0) = 1\n0 <= t <= 5\ny(t) = exp(sin(t))",
    [library('Heun'), library('RK4')],
    { ladder: { counts: [5, 10, 20] } },
  );
  const stated = (place: number): boolean =>
    all.some(
      ({ kind, method }) =>
        method === place && ['as promised', 'better than promised', 'order lost'].includes(kind),
    );
  methods.forEach(({ order }, i) => expect(order !== null).toBe(stated(i)));
  expect(sentence(all, 'no order')).toBe('Between successive h: 1.52, 1.46, decreasing; 2 is expected.');
});

test('a kink behind the time of the error is no cause of it; the starting method is', () => {
  const all = findings(
    "y' = sqrt(abs(t - 1.2))\ny(0) = 0\n0 <= t <= 2",
    [
      {
        title: 'Late',
        text: `start with Euler\n${library('Adams-Moulton 4, predicted').text.split('\n').slice(1).join('\n')}`,
      },
    ],
    { ladder: { counts: [20, 40, 80, 160, 320] }, error: { at: { t: 0.5 }, of: 'norm', scale: 'absolute' } },
  );
  expect(sentence(all, 'order lost')).toMatch(
    /4 is expected; the starting method Euler has a local error of order 2\.$/,
  );
});

test('every step size beyond the stability limit is listed, and first of all', () => {
  const all = findings(
    "p' = -60*(p - cos(t)) - sin(t)\np(0) = 1\n0 <= t <= 1.2\np(t) = cos(t)",
    [library('Adams-Bashforth 4')],
    { ladder: { counts: [16, 32, 64, 128, 256, 512] } },
  );
  const own = all.filter(({ method }) => method === 0);
  expect(own[0]?.sentence).toBe(
    'h = 0.075, 0.0375, 0.01875 and 0.009375 exceed the stability limit 0.3/60 = 0.005.',
  );
});

test('local errors are called so, and are not compared', () => {
  const all = findings("y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)", [library('Heun'), library('RK4')], {
    ladder: { counts: [8, 16, 32, 64] },
    error: { at: 'local', of: 'norm', scale: 'absolute' },
  });
  expect(sentence(all, 'as promised')).toMatch(/^Order of the local error 3\.0/);
  expect(sentence(all, 'comparison', null)).toBe('none');
  const slip = findings(
    "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)",
    [{ title: 'Slip', text: 'y[n+1] = y + 3*h*f(t, y)' }],
    {
      ladder: { counts: [8, 16, 32, 64] },
      error: { at: 'local', of: 'norm', scale: 'absolute' },
    },
  );
  expect(sentence(slip, 'as promised')).toBe('none');
});

test('the largest relative error is not held against the size of the solution', () => {
  const all = findings("y' = -sin(t)\ny(0) = 1\n0 <= t <= 2.9\ny(t) = cos(t)", [library('Euler')], {
    ladder: { counts: [11, 22, 44] },
    error: { at: 'max', of: 'norm', scale: 'relative' },
  });
  expect(sentence(all, 'large')).toBe('none');
});

test('the estimated error is relative where errors are', () => {
  const { methods } = result("y' = -y\ny(0) = 1\n0 <= t <= 8\ny(t) = exp(-t)", [library('RK4')], {
    ladder: { counts: [20, 40, 80, 160] },
    error: { at: 'end', of: 'norm', scale: 'relative' },
  });
  const [rung] = methods[0]!.rungs.slice(-1);
  expect(rung!.extrapolated!.error / rung!.error!).toBeGreaterThan(0.8);
  expect(rung!.extrapolated!.error / rung!.error!).toBeLessThan(1.2);
});

test('the predicted mean of errors is that of a fine grid', () => {
  // e = -25/2 t exp(5 t): its mean square over [0, 3] in closed form
  const { methods } = result("y' = 5*y\ny(0) = 1\n0 <= t <= 3\ny(t) = exp(5*t)", [library('Euler')], {
    ladder: { counts: [2000, 4000, 8000] },
    error: { at: 'rms', of: 'norm', scale: 'absolute' },
  });
  // the integral of t^2 exp(10 t) is exp(10 t) (t^2/10 - t/50 + 1/500)
  const integral = Math.exp(30) * (0.9 - 0.06 + 0.002) - 0.002;
  expect(methods[0]!.predicted!.constant / (12.5 * Math.sqrt(integral / 3))).toBeCloseTo(1, 2);
});

test('what is coarser than a run that failed is excluded, so that all sentences count the same step sizes', () => {
  const { methods, findings: all } = result(
    "x' = v\nv' = 5*(1 - x^2)*v - x\nx(0) = 2\nv(0) = 0\n0 <= t <= 10",
    [library('Backward Euler')],
    { ladder: { counts: [5, 10, 20, 40, 80] } },
  );
  const counted = methods[0]!.rungs.filter(({ leftOut }) => leftOut === null);
  expect(counted.map(({ steps }) => steps)).toEqual([40, 80]);
  expect(sentence(all, 'two rungs')).toContain('from two step sizes only');
});

test('rounding is that of the values where the error is taken', () => {
  const { methods } = result("y' = -100*y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-100*t)", [library('RK4')], {
    ladder: { counts: [40, 80, 160] },
  });
  // every step multiplies the rounding of the steps before by R(-100 h): what is left is relative to the tiny value itself
  for (const { rounding, values } of methods[0]!.rungs)
    expect(rounding!.size).toBeLessThan(1e-10 * Math.abs(values[0]!) + 1e-40);
});

test('what rounding decides at a jump is not called rounding', () => {
  // the last evaluation lies on the jump at t = 4, or just before it
  const all = findings(
    "p' = floor(t)\np(0) = 0\n0 <= t <= 4\np(t) = floor(t)*(floor(t) - 1)/2 + floor(t)*(t - floor(t))",
    [library('Heun')],
    { ladder: { counts: [9, 18, 36, 72, 144] } },
  );
  expect(sentence(all, 'rounding only')).toBe('none');
  expect(sentence(all, 'floor')).toBe('none');
});

test('a kink on grid points alone leaves the order as it is', () => {
  const all = findings("p' = abs(t - 0.6) - p\np(0) = 1\n0 <= t <= 2", [library('Heun'), library('RK4')], {
    ladder: { counts: [10, 20, 40, 80, 160] },
  });
  expect(sentence(all, 'as promised')).toMatch(/^Order 2\.0/);
  expect(sentence(all, 'as promised', 1)).toMatch(/^Order 4\.0/);
});
