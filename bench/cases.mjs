// What is measured: a problem and a method of Schritt, and the same loop by hand in C and in Python.
const RK4 = `k1 = f(t, y)
k2 = f(t + h/2, y + h/2*k1)
k3 = f(t + h/2, y + h/2*k2)
k4 = f(t + h, y + h*k3)
y[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)`;

/** A whole study: six methods on a scalar problem with exact solution, from 16 to 32,768 steps. */
export const STUDY = {
  name: 'six methods, 2^4 to 2^15 steps',
  problem: `level' = -k*sqrt(level)
k = 0.35
level(0) = 4
0 <= t <= 6
level(t) = (2 - k*t/2)^2`,
  methods: ['Euler', 'Heun', 'Midpoint', 'Kutta 3', 'RK4', 'Adams-Bashforth 4'],
  intervals: Array.from({ length: 12 }, (_, i) => 16 * 2 ** i),
  target: 60,
};

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
    target: 0.9,
  },
  {
    name: 'RK4, sine and cosine',
    file: 'rk4_trig',
    problem: `x' = v
v' = -w*sin(x) - c*v + cos(t)
w = 1.3
c = 0.2
x(0) = 1
v(0) = 0
0 <= t <= 20`,
    method: RK4,
    steps: 400_000,
    pythonSteps: 100_000,
    target: 0.75,
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
    target: 0.7,
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
    target: 0.8,
  },
];

/** Reported without a loop to compare with. */
export const ALONE = [
  {
    name: 'Taylor 8, a driven pendulum',
    problem: `x' = v
v' = -w*sin(x) - c*v + cos(t)
w = 1.3
c = 0.2
x(0) = 1
v(0) = 0
0 <= t <= 20`,
    method: `y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y) + h^4/24*f'''(t, y) + h^5/120*f''''(t, y) + h^6/720*f'''''(t, y) + h^7/5040*f''''''(t, y) + h^8/40320*f'''''''(t, y)`,
    steps: 400_000,
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
