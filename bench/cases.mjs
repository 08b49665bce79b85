// What is measured: a problem and a method of Schritt, and the same loop by hand in C and in Python.
const RK4 = `k1 = f(t, y)
k2 = f(t + h/2, y + h/2*k1)
k3 = f(t + h/2, y + h/2*k2)
k4 = f(t + h, y + h*k3)
y[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)`;

/** A driven pendulum. */
const PENDULUM = `x' = v
v' = -w*sin(x) - c*v + cos(t)
w = 1.3
c = 0.2
x(0) = 1
v(0) = 0
0 <= t <= 20`;

const TAYLOR_8 = `y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y) + h^4/24*f'''(t, y) + h^5/120*f''''(t, y) + h^6/720*f'''''(t, y) + h^7/5040*f''''''(t, y) + h^8/40320*f'''''''(t, y)`;

/** Runs with decimal digits: operations a second of RK4 on one equation. */
export const DECIMALS = {
  problem: "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 8",
  method: 'RK4',
  digits: [4, 34, 50, 100],
  steps: 2 ** 14,
  target: { digits: 34, perSecond: 2e5, seconds: 3 },
};

const EMPTIES = (k) => `level' = -k*sqrt(level)
k = ${k}
level(0) = 4
0 <= t <= 6
level(t) = (2 - k*t/2)^2`;

const SIX = ['Euler', 'Heun', 'Midpoint', 'Kutta 3', 'RK4', 'Adams-Bashforth 4'];

const powersOfTwo = (from, to) => Array.from({ length: to - from + 1 }, (_, i) => 2 ** (from + i));

/** Whole studies on a scalar problem with exact solution, whose parameter may be moved. */
export const STUDIES = [
  {
    name: '3 methods, 2^2 to 2^8 steps',
    problem: EMPTIES,
    methods: ['Euler', 'Heun', 'RK4'],
    counts: powersOfTwo(2, 8),
  },
  { name: '6 methods, 2^4 to 2^15 steps', problem: EMPTIES, methods: SIX, counts: powersOfTwo(4, 15) },
  {
    name: '12 methods, 2^4 to 2^18 steps',
    problem: EMPTIES,
    methods: [...SIX, 'Ralston 2', 'Heun 3', 'SSP 3', '3/8 rule', 'RK6', 'Adams-Bashforth 2'],
    counts: powersOfTwo(4, 18),
  },
];

export const CASES = [
  {
    name: 'RK4, two algebraic components',
    file: 'rk4_pair',
    problem: `m' = m*(a - b*l)
l' = l*(c*m - d)
a = 1.1
b = 0.4
c = 0.1
d = 0.4
m(0) = 10
l(0) = 5
0 <= t <= 12`,
    method: RK4,
    steps: 800_000,
    pythonSteps: 200_000,
  },
  {
    name: 'RK4, sine and cosine',
    file: 'rk4_trig',
    problem: PENDULUM,
    method: RK4,
    steps: 400_000,
    pythonSteps: 100_000,
  },
  {
    name: 'RK4, a family of 5,000',
    file: 'rk4_heat',
    problem: `u[i]' = k*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..n
k = 0.3
n = 5000
u[0] = 0
u[n+1] = 0
u[i](0) = i/n for i = 1..n
0 <= t <= 0.1`,
    method: RK4,
    steps: 1_200,
    pythonSteps: 40,
    shown: [0, 4999],
  },
  {
    name: 'Adams-Bashforth 4',
    file: 'ab4_pair',
    problem: `m' = a*m - b*m*l
l' = c*m*l - d*l
a = 1.1
b = 0.4
c = 0.1
d = 0.4
m(0) = 10
l(0) = 5
0 <= t <= 12`,
    method: `start with RK4
y[n+1] = y + h/24*(55*f[n] - 59*f[n-1] + 37*f[n-2] - 9*f[n-3])`,
    steps: 8_000_000,
    pythonSteps: 200_000,
  },
  {
    name: 'Taylor 8, a driven pendulum',
    file: 'taylor8_pendulum',
    problem: PENDULUM,
    method: TAYLOR_8,
    steps: 200_000,
  },
  {
    name: 'backward Euler, three components',
    file: 'backward_euler_three',
    problem: `a' = -p*a + q*b*c
b' = p*a - q*b*c - s*b^2
c' = s*b^2
p = 0.04
q = 100
s = 30
a(0) = 1
b(0) = 0
c(0) = 0
0 <= t <= 40`,
    method: 'solve y[n+1] = y + h*f(t + h, y[n+1])',
    steps: 200_000,
  },
  {
    name: 'RK4, a family of 5,000 that grows',
    file: 'logistic_family',
    problem: `u[i]' = k*(u[i-1] - 2*u[i] + u[i+1]) + r*u[i]*(1 - u[i]) for i = 1..n
k = 0.3
r = 0.8
n = 5000
u[0] = 0
u[n+1] = 0
u[i](0) = i/n for i = 1..n
0 <= t <= 0.1`,
    method: RK4,
    steps: 1_200,
    shown: [0, 4999],
  },
  {
    name: 'velocity Verlet, a chain of 300',
    file: 'verlet_chain',
    problem: `x[i]'' = k*(x[i-1] - 2*x[i] + x[i+1]) - c*x[i]^3 for i = 1..n
k = 40
c = 0.3
n = 300
x[0] = 0
x[n+1] = 0
x[i](0) = i/n for i = 1..n
x[i]'(0) = 0 for i = 1..n
0 <= t <= 10`,
    method: `half = v + h/2*a(t, x, v)
x[n+1] = x + h*half
v[n+1] = half + h/2*a(t + h, x[n+1], half)`,
    steps: 60_000,
    shown: [0, 299],
  },
];

/** What reading and compiling is measured on; the targets are milliseconds. */
export const READINGS = [
  {
    name: 'a problem of ten lines',
    text: `x'' = -x/(x^2 + y^2)^1.5
y'' = -y/(x^2 + y^2)^1.5
x(0) = 1
x'(0) = 0
y(0) = 0
y'(0) = 1
0 <= t <= 2 pi
x(t) = cos(t)
y(t) = sin(t)
conserved E = (x'^2 + y'^2)/2 - 1/sqrt(x^2 + y^2)`,
    target: 2,
  },
  {
    name: 'a family of 20,000',
    text: `u[i]' = k*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..n
k = 0.3
n = 20000
u[0] = 0
u[n+1] = 0
u[i](0) = sin(pi*i/(n+1)) for i = 1..n
0 <= t <= 1`,
    target: 200,
  },
];

/** Long and nested texts that a notation must read or refuse quickly, each with an end that makes a problem of it. */
export const LONG_TEXTS = [
  ['a long sum', `y' = ${'y + '.repeat(4990)}y`],
  ['deep brackets', `y' = ${'('.repeat(9000)}y${')'.repeat(9000)}`],
  ['deep powers', `y' = ${'2^'.repeat(9000)}y`],
  ['many signs', `y' = ${'-'.repeat(19000)}y`],
  ['many primes', `y${"'".repeat(19000)} = y`],
  ['many unknowns', Array.from({ length: 1300 }, (_, i) => `a${i}' = 1\n`).join('')],
  ['many names', `y' = ${Array.from({ length: 3000 }, (_, i) => `q${i}`).join('+')}`],
  ['nested calls', `y' = ${'sin('.repeat(4000)}`],
  ['nested ifs', `y' = ${'if(1<2,'.repeat(2800)}`],
  ['products of sums', `y' = ${'(y+t)*'.repeat(3000)}1`],
  ['implicit equation', `${'(1+t)*('.repeat(190)}y'${')'.repeat(190)}${'+y'.repeat(1200)} = 0`],
].map(([name, text]) => ({ name, text: `${text}\ny(0) = 1\n0 <= t <= 1\n`, target: 50 }));
