const FUNCTIONS = [
  'sin',
  'cos',
  'tan',
  'exp',
  'ln',
  'sqrt',
  'abs',
  'tanh',
  'cbrt',
  'log10',
  'floor',
  'sign',
  'atan',
];
const NUMBERS = [
  '0',
  '1',
  '2',
  '0.5',
  '1e-3',
  '3',
  '-1',
  '1.2',
  '7',
  '1e300',
  '0.3',
  '.5',
  '2.',
  '1e-308',
  '100',
];
const NOISE = [
  '',
  ' ',
  '((',
  '))',
  '[',
  ']',
  "'",
  "''''",
  ',',
  '=',
  '==',
  '<',
  '<=',
  '..',
  ';',
  '#',
  '\\frac{1}{2}',
  '{',
  '½',
  'λ',
  '\u0000',
  '\u202e',
  '𝒴',
  '__proto__',
  'constructor',
  '"',
  '`',
  '${1}',
  '*/',
  '//',
  '\t',
  'for',
  'if(',
  'solve',
  'log(',
  'y[n+1]',
  '0 <= t <= 1',
  'e',
  'pi',
  '**',
  '^',
  '^-',
  '--',
  '1,5',
  '1e999',
  '9007199254740993',
  '\u2028',
  'aaaaaaaa',
  // ways of other texts and languages
  ' := ',
  ' <- ',
  'double ',
  'for i in range(n): ',
  'for (int i = 0; i < n; i++) ',
  'def f(t, y): return ',
  'end',
  ' // so',
  ' % so',
  '√',
  '|',
  'y^{n+1}',
  "y'_n",
  ', n = 0, 1, 2, ...',
  '\\begin{align}',
  '\\\\',
  '&=',
  'k₁',
  'yₙ₊₁',
  'ŷ',
  'ẏ',
  '.*',
  '...',
  'Math.',
  'pow(h, 2)',
  '\\frac12',
  '{h \\over 2}',
  '\\tilde{y}',
  'f_y(t, y)',
  'd2(t, y)',
  'd2(t, y) = ',
  '[0, 2]',
  't in ',
  ' ? 1 : 2',
  ' then ',
  ' else ',
  'y*',
  '$A$1',
];

function repeat(n, of, by) {
  return Array.from({ length: n }, (_, i) => of(i)).join(by);
}

/** A formula over some names, well formed, of a bounded number of nodes. */
function formula(r, names, size) {
  if (size <= 1 || r.chance(0.1)) return r.chance(0.35) ? r.pick(NUMBERS) : r.pick(names);
  const part = r.below(size);
  const kind = r.below(12);
  if (kind < 7)
    return `(${formula(r, names, part)} ${r.pick(['+', '-', '*', '/', '*', '+'])} ${formula(r, names, size - part)})`;
  if (kind < 9) return `${r.pick(FUNCTIONS)}(${formula(r, names, size - 1)})`;
  if (kind === 9) return `-${formula(r, names, size - 1)}`;
  if (kind === 10)
    return `(${formula(r, names, part)})^${r.pick(['2', '3', '0.5', '-1', 'k', '(1 + t)', '10'])}`;
  return r.pick([
    () => `min(${formula(r, names, part)}, ${formula(r, names, size - part)})`,
    () => `mod(${formula(r, names, part)}, ${formula(r, names, size - part)})`,
    () => `atan2(${formula(r, names, part)}, ${formula(r, names, size - part)})`,
    () => `if(${formula(r, names, part)} < 1, ${formula(r, names, part)}, ${formula(r, names, size - part)})`,
  ])();
}

const primes = (n) => "'".repeat(n);

/** A problem that mostly can be read: some unknowns of some order, some with exact solutions or typed derivatives. */
function problem(r) {
  const unknowns = ['y', 'x', 'v', 'level', 'q'].slice(0, 1 + r.below(r.chance(0.05) ? 5 : 2));
  const orders = unknowns.map(() => (r.chance(0.7) ? 1 : 1 + r.below(r.chance(0.1) ? 30 : 3)));
  const lower = unknowns.flatMap((u, i) => Array.from({ length: orders[i] }, (_, d) => u + primes(d)));
  const names = [...lower, 't', 'k', 'pi'];
  const size = r.chance(0.03) ? 400 : 1 + r.below(14);
  const lines = unknowns.flatMap((u, i) => {
    const highest = u + primes(orders[i]);
    const equation = r.pick([
      () => `${highest} = ${formula(r, names, size)}`,
      () => `${highest} = ${formula(r, names, size)}`,
      () => `${highest} = ${formula(r, [...names, r.pick(unknowns) + primes(1)], size)}`,
      () =>
        `${r.pick(NUMBERS)}*(${r.pick(NUMBERS)}*(${r.pick(NUMBERS)}*${highest})) + ${formula(r, names, 3)} = ${formula(r, names, 3)}`,
      () => `${formula(r, [...names, highest], 6)} = ${formula(r, [...names, highest], 6)}`,
    ])();
    return [
      equation,
      ...(r.chance(0.1)
        ? [`${u}${primes(orders[i] + 1 + r.below(3))} = ${formula(r, [...names, highest], 5)}`]
        : []),
      ...Array.from({ length: orders[i] }, (_, d) => `${u}${primes(d)}(0) = ${r.pick(NUMBERS)}`),
      ...(r.chance(0.25) ? [`${u}(t) = ${formula(r, ['t', 'k'], size)}`] : []),
    ];
  });
  return [
    'k = 0.35',
    ...lines,
    r.chance(0.2) ? `conserved E = ${formula(r, names, 5)}` : '',
    '0 <= t <= 2',
  ].join('\n');
}

/** A family over a range, of few or many elements. */
function family(r) {
  const n = r.pick([1, 2, 5, 20, 40, 300, 1000]);
  const names = ['u[i]', 'u[i-1]', 'u[i+1]', 'i', 'k', 't', 'u[1]'];
  const rate = r.chance(0.1) ? repeat(65, () => 'u[i]^2', ' + ') : formula(r, names, 1 + r.below(12));
  return [
    `n = ${n}`,
    'k = 0.3',
    `u[i]' = ${rate} for i = 1..n`,
    'u[0] = 0',
    r.chance(0.8) ? 'u[n+1] = u[n]' : '',
    `u[i](0) = ${formula(r, ['i', 'n', 'k', 'pi'], 1 + r.below(20))} for i = 1..n`,
    '0 <= t <= 1',
  ].join('\n');
}

/** Texts that grow when they are worked with: chains, high orders, long sums, deep nesting. */
function growing(r) {
  const n = 1 + r.below(60);
  return r.pick([
    () =>
      `${repeat(n, (i) => `a${i}' = ${formula(r, [`a${i + 1}'`, `a${i + 1}'`, 'h'], 3).replaceAll('h', '1')}`, '\n')}\na${n}' = 1\n${repeat(n + 1, (i) => `a${i}(0) = 1`, '\n')}\n0 <= t <= 1`,
    () =>
      `y' = ${r.pick(FUNCTIONS)}(y) + t\n${repeat(n % 29, (i) => `y${primes(i + 2)} = y${primes(i + 1)}*y + y'`, '\n')}\ny(0) = 1\n0 <= t <= 1`,
    () =>
      `x${primes(1 + (n % 30))} = -x\n${repeat(1 + (n % 30), (i) => `x${primes(i)}(0) = 1`, '\n')}\nx(t) = ${formula(r, ['t'], 8)}\n0 <= t <= 1`,
    () => `y' = ${'sin('.repeat(n * 3)}y${')'.repeat(n * 3)}\ny(0) = 1\n0 <= t <= 1`,
    () => `y' = ${repeat(n * 30, (i) => `b${i}`, r.pick(['+', '*', '-']))}\ny(0) = 1\n0 <= t <= 1`,
    () =>
      `y' = ${repeat(n * 25, () => formula(r, ['y', 't'], 2), r.pick([' + ', '*', '/']))}\ny(0) = 1\n0 <= t <= 1`,
    () =>
      `${repeat(n * 15, (i) => `z${i}' = -z${i}`, '\n')}\n${repeat(n * 15, (i) => `z${i}(0) = 1`, '\n')}\n0 <= t <= 1`,
    () => `y' = ${'a'.repeat(n * 300)}\ny(0) = 1\n0 <= t <= 1`,
    () => repeat(n * 40, (i) => `p${i} = ${i}`, '\n'),
    () => repeat(n * 30, () => r.pick(NOISE), '\n'),
  ])();
}

/** A method that mostly can be read. */
function method(r) {
  if (r.chance(0.01))
    return `${repeat(1 + r.below(1600), (i) => `c${i} = ${i % 9}`, '\n')}\ny[n+1] = y + h*f(t, y)`;
  const back = r.chance(0.25);
  const stages = 1 + r.below(r.chance(0.05) ? 60 : 4);
  const known = ['f(t, y)', ...(back ? ['f[n-1]', 'f[n]'] : [])];
  const lines = [];
  for (let i = 1; i <= stages; i += 1) {
    const inner = r.pick(known);
    lines.push(
      r.pick([
        `k${i} = f(t + ${r.pick(NUMBERS)}*h, y + h*${r.pick(NUMBERS)}*${inner})`,
        `k${i} = f(t, y + h*(${inner}))`,
        `k${i} = f${primes(1 + r.below(r.chance(0.1) ? 30 : 2))}(t, y)`,
        `k${i} = f_${r.pick(['t', 'tt', 't', 'ttt'])}(t, y) + f_y(t + h, y)*(${inner})`,
        `k${i} = f_${repeat(1 + r.below(7), () => r.pick(['t', 'y']), '')}(t, y)*${inner}`,
        `d${i}(t, y) = ${formula(r, ['t', 'y', '2*y', 'f(t, y)'], 1 + r.below(12))}\nk${i} = d${i}(t, y + h*${inner})`,
        `solve k${i} = f(t + h/2, y + h*k${i}/2)`,
        `c${i} = ${formula(r, ['h', 't'], 5)}\nk${i} = c${i}*${inner}`,
        `solve k${i}, z${i} = f(t, y + h*(k${i} + z${i})), f(t + h, y + h*z${i})`,
      ]),
    );
    known.push(`k${i}`);
  }
  const sum = known.map((k) => `${r.pick(NUMBERS)}*${k}`).join(' + ');
  return `${lines.join('\n')}\n${r.chance(0.2) ? 'start with RK4\n' : ''}y[n+1] = y + h*(${sum})`;
}

/** The same as it stands in books: subscripts, spaces for products, signs of print, TeX. */
function asPrinted(r, text) {
  const ways = [
    [/\[([^\]]*)\]/g, '_{$1}'],
    [/\*/g, r.pick([' ', ' \\cdot ', ' × ', '\\,'])],
    [/\^2/g, '²'],
    [/\^\(?(\w+)\)?/g, '^{$1}'],
    [/(\w+)\/(\w+)/g, '\\frac{$1}{$2}'],
    [/sqrt\(/g, '\\sqrt{'],
    [/\b(sin|cos|exp)\(/g, '\\$1('],
    [/^(\w+)' =/gm, 'd$1/dt ='],
    [/0 <= t <= (\d)/, 't in [0, $1]'],
    [/\n/g, '; '],
    [/\(/g, '\\left('],
    [/\)/g, '\\right)'],
    [/\bn\b/g, r.pick(['i', 'k'])],
    [/\by\b/g, 'u'],
    [/0\.5/g, '½'],
  ];
  let made = text;
  for (let i = r.below(4); i >= 0; i -= 1) {
    const [from, to] = r.pick(ways);
    made = made.replace(from, to);
  }
  return made;
}

/** Something at a random place cut, doubled, exchanged or put in. */
function spoilt(r, text) {
  const at = r.below(text.length + 1);
  const to = Math.min(text.length, at + r.below(12));
  return r.pick([
    () => asPrinted(r, text),
    () => text.slice(0, at) + text.slice(to),
    () => text.slice(0, at) + r.pick(NOISE) + text.slice(at),
    () => text.slice(0, to) + text.slice(at),
    () => text.slice(0, at) + r.pick(NOISE) + text.slice(to),
    () => text.slice(at) + text.slice(0, at),
    () => text.slice(0, at) + repeat(1 + r.below(40), () => r.pick(NOISE), '') + text.slice(to),
  ])();
}

/** A text for the reader of problems or of methods, and for which of them it is. */
export function randomText(r) {
  const kind = r.next() < 0.7 ? 'problem' : 'method';
  const pick = r.next();
  let text = kind === 'method' ? method(r) : pick < 0.65 ? problem(r) : pick < 0.85 ? family(r) : growing(r);
  const spoils = r.chance(0.5) ? 0 : 1 + r.below(4);
  for (let i = 0; i < spoils; i += 1) text = spoilt(r, text);
  return { kind, text };
}
