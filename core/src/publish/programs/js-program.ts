import { atom } from '../../formula/printer.ts';
import { JAVASCRIPT_WORDS } from './reserved-words.ts';
import { LIKE_C, shifted } from './writing-parts.ts';
import type { ProgramParts, Writing } from './language.ts';
import { type Dialect, likeC } from './like-c.ts';
import { signedBy } from './signed.ts';

/** How the language writes the parts of a formula. */
export const JAVASCRIPT: Writing = {
  ...LIKE_C,
  reserved: JAVASCRIPT_WORDS,
  number: String,
  power: (base, exponent) => atom(`Math.pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = name === 'ln' ? 'Math.log' : name === 'mod' ? 'mod' : `Math.${name}`;
    return `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) =>
    `(${left} ${relation === '==' ? '===' : relation === '!=' ? '!==' : relation} ${right} ? ${yes} : ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? counter : `(${shifted(counter, ahead)})`),
};

const signed = signedBy(JAVASCRIPT);

function declared(numbers: readonly string[], arrays: readonly string[], width: number): readonly string[] {
  return [
    ...(numbers.length === 0 ? [] : [`let ${numbers.join(', ')};`]),
    ...(arrays.length === 0
      ? []
      : [`const ${arrays.map((name) => `${name} = new Float64Array(${width})`).join(', ')};`]),
  ];
}

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const SOLVE = [
  'function solve(m, r, n) {',
  '  for (let i = 0; i < n; i++) {',
  '    let pivot = i;',
  '    for (let k = i + 1; k < n; k++) if (Math.abs(m[k*n + i]) > Math.abs(m[pivot*n + i])) pivot = k;',
  '    const head = m[pivot*n + i];',
  '    if (!(Math.abs(head) > 0) || !Number.isFinite(head)) return false;',
  '    if (pivot !== i) {',
  '      for (let k = i; k < n; k++) [m[pivot*n + k], m[i*n + k]] = [m[i*n + k], m[pivot*n + k]];',
  '      [r[pivot], r[i]] = [r[i], r[pivot]];',
  '    }',
  '    for (let k = i + 1; k < n; k++) {',
  '      const factor = m[k*n + i]/head;',
  '      if (factor === 0) continue;',
  '      for (let l = i + 1; l < n; l++) m[k*n + l] -= factor*m[i*n + l];',
  '      r[k] -= factor*r[i];',
  '    }',
  '  }',
  '  for (let i = n - 1; i >= 0; i--) {',
  '    let sum = r[i];',
  '    for (let k = i + 1; k < n; k++) sum -= m[i*n + k]*r[k];',
  '    r[i] = sum/m[i*n + i];',
  '  }',
  '  return true;',
  '}',
  '',
];

const DIALECT: Dialect = {
  head: (notes) => [
    '/*',
    ...notes.map((line) => ` * ${line.replaceAll('*/', '* /')}`.trimEnd()),
    ' */',
    "'use strict';",
    '',
  ],
  constant: ({ name, value, note }) => `const ${name} = ${value};${note === null ? '' : ` // ${note}`}`,
  setUp: '',
  declare: declared,
  globals: declared,
  loop: (from, below, counter = 'j') => `for (let ${counter} = ${from}; ${counter} < ${below}; ${counter}++)`,
  rounds: 'for (let round = 1; ; round++)',
  heads: {
    rhs: (name, vectors, isOne) => `function ${name}(t, ${vectors.join(', ')}${isOne ? '' : ', d'})`,
    exact: (isOne) => (isOne ? 'function exact(t)' : 'function exact(t, e)'),
    step: (name) => `function ${name}(n, h)`,
    begin: 'function begin()',
  },
  unread: () => [],
  time: 'const t = start + n*h;',
  finite: (value) => `Number.isFinite(${value})`,
  main: ({ h, steps, lastStep, size, components: names, exact, independent }, components) => {
    const error =
      exact === null
        ? []
        : size === 1
          ? ['function errorAt(t) {', `  return Math.abs(${components[0] ?? ''} - exact(t));`, '}', '']
          : [
              'function errorAt(t) {',
              `  const e = new Float64Array(${size});`,
              '  exact(t, e);',
              '  let sum = 0;',
              ...components.map((name, p) => `  sum += (${name} - e[${p}])*(${name} - e[${p}]);`),
              '  return Math.sqrt(sum);',
              '}',
              '',
            ];
    const values = components.map((name) => `\${digits(${name})}`).join(',');
    return [
      'const digits = (x) => (Number.isFinite(x) ? x.toExponential(16) : String(x));',
      '',
      ...error,
      'function stop(n, h) {',
      '  console.error(`stops in step ${n + 1} from t = ${start + n*h}: not a finite number`);',
      '  process.exit(1);',
      '}',
      '',
      'function stepsFor(h) {',
      '  const length = t_end - start, quotient = length/h;',
      '  let steps = Math.max(1, Math.floor(quotient + 0.5));',
      '  if (Math.abs(quotient - steps) <= 1e-12*steps) return { steps, h };',
      ...(lastStep === 'overrun'
        ? ['  return { steps: Math.ceil(quotient), h };']
        : [
            '  steps = Math.max(1, Math.floor(quotient));',
            '  if (!(Math.abs(length/steps - h) < Math.abs(length/(steps + 1) - h))) steps++;',
            '  return { steps, h: length/steps };',
          ]),
      '}',
      '',
      'function row(n, h) {',
      `  console.log(\`\${n},\${digits(start + n*h)},${values}\`);`,
      '}',
      '',
      'const sizes = process.argv.slice(2).map(Number);',
      'if (sizes.length === 0) {',
      `  const { steps, h } = stepsFor(${signed(h)}); // N = ${steps}: (t_end - start)/${steps}`,
      '  begin();',
      `  console.log(${JSON.stringify(['n', independent, ...names].join(','))});`,
      '  row(0, h);',
      '  for (let n = 0; n < steps; n++) { advance(n, h); row(n + 1, h); }',
      '} else {',
      `  console.log(${exact === null ? JSON.stringify(['h', 'N', ...names].join(',')) : "'h,N,error,order'"});`,
      ...(exact === null ? [] : ['  let last = null;']),
      '  for (const size of sizes) {',
      '    if (!(size > 0)) { console.error(`${size} is not a step size`); process.exit(1); }',
      '    const { steps, h } = stepsFor(size);',
      '    begin();',
      '    for (let n = 0; n < steps; n++) advance(n, h);',
      ...(exact === null
        ? [`    console.log(\`\${digits(h)},\${steps},${values}\`);`]
        : [
            '    const error = errorAt(start + steps*h);',
            "    const order = last === null ? '' : (Math.log(last.error/error)/Math.log(last.h/h)).toFixed(6);",
            '    console.log(`${digits(h)},${steps},${digits(error)},${order}`);',
            '    last = { h, error };',
          ]),
      '  }',
      '}',
    ];
  },
  helpers: (text) => [
    ...(/\bmod\(/.test(text) ? ['function mod(x, y) { return x - y*Math.floor(x/y); }', ''] : []),
    ...(/\bfail\(/.test(text)
      ? ['function fail(why) {', '  console.error(why);', '  process.exit(1);', '}', '']
      : []),
    ...(/\bsolve\(/.test(text) ? SOLVE : []),
  ],
};

/** A program in JavaScript that does what a run does, for node. */
export function jsProgram(parts: ProgramParts): string {
  return likeC(DIALECT, parts, 'node program.js', 'JavaScript');
}
