import { openStudy } from '../../document/open-study.ts';
import type { StudyDocument } from '../../document/document.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { orderText } from '../../text/number-text.ts';
import type { Finding } from './facts.ts';
import { runStudy } from '../run-study.ts';

const library = (title: string): { readonly title: string; readonly text: string } => {
  const found = LIBRARY.find((method) => method.title === title);
  if (found === undefined) throw new Error(title);
  return { title, text: found.text };
};

function findings(
  text: string,
  methods: StudyDocument['methods'],
  more: Partial<StudyDocument>,
): readonly Finding[] {
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
  return runStudy(opened.study).findings;
}

function sentence(all: readonly Finding[], kind: Finding['kind'], method: number | null = 0): string {
  return all.find((finding) => finding.kind === kind && finding.method === method)?.sentence ?? 'none';
}

const PROBE =
  "p' = -50*(p - cos(t))\np(0) = 0\n0 <= t <= 1.2\np(t) = (2500*cos(t) + 50*sin(t) - 2500*exp(-50*t))/2501";
const DECAY = "y' = -2*y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-2*t)";
const HEATER =
  "T' = -a*(T - if(t < 1/3, 4, 20))\na = 1.2\nT(0) = 12\n0 <= t <= 2\nT(t) = if(t < 1/3, 4 + 8*exp(-a*t), 20 + (8*exp(-a/3) - 16)*exp(-a*(t - 1/3)))";

test('a step beyond the stability limit is told with the limit of the method and the decay of the problem', () => {
  const all = findings(PROBE, [library('Euler'), library('RK4')], {
    ladder: { sizes: [0.06, 0.03, 0.015, 0.0075, 0.00375] },
  });
  expect(sentence(all, 'unstable')).toBe('h = 0.06 is beyond the stability limit 2/50 = 0.04');
  expect(all.find(({ kind }) => kind === 'unstable')!.rungs).toEqual([0]);
  expect(sentence(all, 'unstable', 1)).toBe('h = 0.06 is beyond the stability limit 2.79/50 = 0.0557');
});

test('a kink in the rate is named with its time, and by the reference too where no exact solution is given', () => {
  const ladder = { counts: [8, 16, 32, 64, 128, 256] };
  for (const text of [HEATER, HEATER.split('\n').slice(0, 4).join('\n')]) {
    const all = findings(text, [library('RK4')], { ladder });
    expect(sentence(all, 'order lost')).toBe(
      'order lost: 1.000 ± 0.001, where the formula promises 4; the rate has a kink at t = 0.333',
    );
  }
});

test('a poor first step is named where its local error shows', () => {
  const text = library('Adams-Bashforth 3').text.replace(/start with .*/, 'start with Euler');
  const all = findings(DECAY, [{ title: 'AB3', text }], { ladder: { first: 0.05, factor: 2, rungs: 7 } });
  expect(sentence(all, 'order lost')).toMatch(
    /^order 2\.0\d+ ± 0\.\d+ instead of 3: started with Euler, whose local error of order 2 shows$/,
  );
});

test('the floor is told by its number of steps, and the least error is near the one that was run', () => {
  const all = findings(DECAY, [library('RK4')], { ladder: { first: 0.25, factor: 2, rungs: 16 } });
  const floor = all.find(({ kind }) => kind === 'floor')!;
  // C h^4 with C = 2^5/120*2*exp(-4) meets 20 roundings of exp(-4), times root N, at about N = 4096
  expect(floor.sentence).toContain('the floor of rounding is reached at N = 4,096');
  const [, digits, power] = /the least error, by C h\^p \+ R\/h\^q, is (\S+)×10⁻¹(\S) at/.exec(
    floor.sentence,
  )!;
  const least = Number(`${digits!}e-1${'⁰¹²³⁴⁵⁶⁷⁸⁹'.indexOf(power!)}`);
  expect(least).toBeGreaterThan(1e-18);
  expect(least).toBeLessThan(1e-15);
});

test('orders on their way to the promise are not called lost', () => {
  // the error changes its sign at coarse h, so that the first slopes behind that are low
  const battery = "c' = -0.8*c + 3*(1 - cos(2*pi*t))\nc(0) = 1\n0 <= t <= 3";
  const all = findings(battery, [library('BDF 2')], { ladder: { counts: [12, 24, 48, 96, 192, 384] } });
  expect(sentence(all, 'order lost')).toBe('none');
  expect(sentence(all, 'not yet')).toMatch(
    /^order 1\.43 ± 0\.\d+ so far, 1\.71 at the finest rungs, on the way to the 2 /,
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
  expect(sentence(all, 'formula', 0)).toMatch(/^the formula as typed does not converge/);
  expect(sentence(all, 'formula', 1)).toMatch(/^the errors of the formula as typed grow as h falls/);
});

test('errors that are those of a reference are not taken for rounding, nor rounding for an order', () => {
  const bare = findings("y' = -2*y\ny(0) = 1\n0 <= t <= 2", [library('RK8')], {
    ladder: { counts: [4, 8, 16, 64, 128, 256] },
  });
  expect(sentence(bare, 'reference', null)).toMatch(
    /^no exact solution is given; errors are against a reference by Taylor series of order 24/,
  );
  expect(bare.some(({ kind }) => kind === 'order lost')).toBe(false);
});

test('relative errors next to a zero of the solution are warned of', () => {
  const text = "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= pi/2\nx(t) = cos(t)";
  const all = findings(text, [library('RK4')], {
    error: { at: 'end', of: 'x', scale: 'relative' },
    ladder: { counts: [10, 20] },
  });
  expect(sentence(all, 'near zero', null)).toMatch(
    /^the exact value at t = 1.57 is 6\.12×10⁻¹⁷, next to zero/,
  );
});

test('strikes and a window of a person are kept, and the comparison names the cheapest', () => {
  const struck = [
    { ...library('Euler'), struck: [1] },
    { ...library('Heun'), window: { from: 0, to: 2 } },
  ];
  const all = findings(DECAY, struck, {});
  expect(sentence(all, 'struck')).toBe('struck out by hand: h = 0.05');
  expect(all.find(({ kind, method }) => kind === 'as promised' && method === 1)!.rungs).toEqual([0, 1, 2]);
  expect(sentence(all, 'comparison', null)).toMatch(
    /^for an error of 0\.001, Heun needs \d+ evaluations, Euler \d+$/,
  );
});

test('on smooth problems no library method is accused of anything', () => {
  const accusing = new Set<Finding['kind']>(['order lost', 'formula', 'unstable', 'scattered']);
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

test.each([
  [1.9963, 0.0104, '2.00 ± 0.02'],
  [2.0004, 0.0021, '2.000 ± 0.003'],
  [2, 0, '2.000 ± 0.001'],
  [1.2, 0.34, '1.2 ± 0.4'],
  [1.2, null, '1.20'],
])('an order %f with standard error %f is written %s', (order, standardError, text) => {
  expect(orderText(order, standardError)).toBe(text);
});

test('of a wrong exact solution it is said first of all that it is none, and no method is judged by it', () => {
  const wrong = DECAY.replace('exp(-2*t)', 'exp(-2*t) + t/100');
  const all = findings(wrong, [library('Euler'), library('RK4')], {});
  expect(all.map(({ kind }) => kind)).toEqual(['wrong exact']);
  // y' + 2 y = 1/100 + t/50 at t = 2, of terms of about 0.1
  expect(all[0]?.sentence).toMatch(
    /^exact solution does not satisfy the equation for y': residual [\d.e-]+ of its terms at t = [\d.]+; has the initial values; no method is judged by it$/,
  );
  const start = findings(DECAY.replace('y(0) = 1', 'y(0) = 1.5'), [library('Euler')], {});
  expect(start[0]?.sentence).toContain('does not have the initial values: y is 1 there, not 1.5');
  // what does not rest on it is still said
  const struck = findings(wrong, [{ ...library('Euler'), struck: [1] }], {});
  expect(struck.map(({ kind }) => kind)).toEqual(['wrong exact', 'struck']);
});

test('an oscillation beyond the stability region is told with its growth a step: |R(3i)| of the classical method', () => {
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
  expect(found?.sentence).toContain('the motion of eigenvalue ±100i');
});

test('theory is told beside the finest error, where it changes its sign, and where its leading term is zero', () => {
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
    'the leading term is zero on this problem: order 4 is what theory says here, and 3 in general',
  );
  expect(sentence(zero, 'as promised')).toContain('as theory says on this problem');
  expect(sentence(zero, 'better than promised')).toBe('none');
  // e' = -e + (cos(t) + sin(t))/4 with e(0) = 0: e = sin(t)/4, which is zero at pi
  const sign = findings(
    "y' = -y + cos(t)\ny(0) = 0.5\n0 <= t <= 3.3\ny(t) = (cos(t) + sin(t))/2",
    [library('Euler')],
    { ladder: { counts: [20, 40, 80, 160, 320] } },
  );
  expect(sentence(sign, 'leading sign')).toBe(
    'the leading term of the error changes its sign near t = 3.14: errors there are small by chance',
  );
});

test('nothing is predicted across a kink', () => {
  const all = findings(HEATER, [library('RK4')], { ladder: { counts: [8, 16, 32, 64] } });
  expect(all.some(({ kind }) => kind === 'predicted')).toBe(false);
});
