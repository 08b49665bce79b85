import { atom } from '../../formula/printer.ts';
import { C_WORDS } from './reserved-words.ts';
import { decimal, LIKE_C, shifted } from './writing-parts.ts';
import type { ProgramParts, Writing } from './language.ts';
import { type Dialect, likeC } from './like-c.ts';
import { signedBy } from './signed.ts';

/** Min and max of many as calls of two. */
function nested(name: string, inputs: readonly string[]): string {
  return inputs.slice(1).reduce((left, right) => `${name}(${left}, ${right})`, inputs[0] ?? '');
}

const C_NAMES: Readonly<Record<string, string>> = {
  ln: 'log',
  abs: 'fabs',
  sign: 'sign',
  min: 'fmin',
  max: 'fmax',
};

/** How the language writes the parts of a formula. */
export const C: Writing = {
  ...LIKE_C,
  reserved: C_WORDS,
  number: decimal,
  power: (base, exponent) => atom(`pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = C_NAMES[name] ?? name;
    return name === 'min' || name === 'max' ? nested(own, inputs) : `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) => `(${left} ${relation} ${right} ? ${yes} : ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? `(double)${counter}` : `(double)(${shifted(counter, ahead)})`),
};

const signed = signedBy(C);

function declared(numbers: readonly string[], arrays: readonly string[], width: number): string {
  return [...numbers, ...arrays.map((name) => `${name}[${width}]`)].join(', ');
}

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const SOLVE = [
  'static int solve(double *m, double *r, int n) {',
  '  for (int i = 0; i < n; i++) {',
  '    int pivot = i;',
  '    for (int k = i + 1; k < n; k++) if (fabs(m[k*n + i]) > fabs(m[pivot*n + i])) pivot = k;',
  '    const double head = m[pivot*n + i];',
  '    if (!(fabs(head) > 0.0) || !(fabs(head) < HUGE_VAL)) return 0;',
  '    if (pivot != i) {',
  '      for (int k = i; k < n; k++) { double o = m[pivot*n + k]; m[pivot*n + k] = m[i*n + k]; m[i*n + k] = o; }',
  '      double o = r[pivot]; r[pivot] = r[i]; r[i] = o;',
  '    }',
  '    for (int k = i + 1; k < n; k++) {',
  '      const double factor = m[k*n + i]/head;',
  '      if (factor == 0.0) continue;',
  '      for (int l = i + 1; l < n; l++) m[k*n + l] = m[k*n + l] - factor*m[i*n + l];',
  '      r[k] = r[k] - factor*r[i];',
  '    }',
  '  }',
  '  for (int i = n - 1; i >= 0; i--) {',
  '    double sum = r[i];',
  '    for (int k = i + 1; k < n; k++) sum -= m[i*n + k]*r[k];',
  '    r[i] = sum/m[i*n + i];',
  '  }',
  '  return 1;',
  '}',
  '',
];

const DIALECT: Dialect = {
  head: (notes) => [
    '/*',
    ...notes.map((line) => ` * ${line.replaceAll('*/', '* /')}`.trimEnd()),
    ' *',
    ' * cc -std=c99 -O2 -ffp-contract=off -o program program.c -lm',
    ' */',
    '#include <math.h>',
    '#include <stdio.h>',
    '#include <stdlib.h>',
    '',
  ],
  constant: ({ name, value, note, isComputed }) => {
    const shown = note === null ? '' : ` /* ${note.replaceAll('*/', '* /')} */`;
    return isComputed ? `static double ${name};${shown}` : `static const double ${name} = ${value};${shown}`;
  },
  setUp: 'static void set_up(void)',
  declare: (numbers, arrays, width) =>
    numbers.length + arrays.length === 0 ? [] : [`double ${declared(numbers, arrays, width)};`],
  globals: (numbers, arrays, width) =>
    numbers.length + arrays.length === 0 ? [] : [`static double ${declared(numbers, arrays, width)};`],
  loop: (from, below, counter = 'j') => `for (int ${counter} = ${from}; ${counter} < ${below}; ${counter}++)`,
  rounds: 'for (int round = 1; ; round++)',
  heads: {
    rhs: (name, vectors, isOne) =>
      isOne
        ? `static double ${name}(double t, ${vectors.map((v) => `double ${v}`).join(', ')})`
        : `static void ${name}(double t, ${vectors.map((v) => `const double *${v}`).join(', ')}, double *d)`,
    exact: (isOne) => (isOne ? 'static double exact(double t)' : 'static void exact(double t, double *e)'),
    begin: 'static void begin(void)',
    step: (name) => `static void ${name}(long n, double h)`,
  },
  unread: (names) => names.map((name) => `(void)${name};`),
  time: 'double t = start + (double)n*h;',
  finite: (value) => `isfinite(${value})`,
  main: ({ h, steps, lastStep, size, components: names, exact, independent }, components) => {
    const error =
      exact === null
        ? []
        : size === 1
          ? [
              'static double error_at(double t) {',
              `  return fabs(${components[0] ?? ''} - exact(t));`,
              '}',
              '',
            ]
          : [
              'static double error_at(double t) {',
              `  double e[${size}], sum = 0.0;`,
              '  exact(t, e);',
              ...components.map((name, p) => `  sum += (${name} - e[${p}])*(${name} - e[${p}]);`),
              '  return sqrt(sum);',
              '}',
              '',
            ];
    const head = ['n', independent, ...names].map((name) => name.replace(/["\\%]/g, '_')).join(',');
    return [
      ...error,
      'static void stop(long n, double h) {',
      '  fprintf(stderr, "stops in step %ld from t = %.6g: not a finite number\\n", n + 1, start + (double)n*h);',
      '  exit(1);',
      '}',
      '',
      'static long steps_for(double *h) {',
      '  const double length = t_end - start, quotient = length/ *h;',
      '  long steps = quotient < 1.5 ? 1 : (long)floor(quotient + 0.5);',
      '  if (fabs(quotient - (double)steps) <= 1e-12*(double)steps) return steps;',
      ...(lastStep === 'overrun'
        ? ['  return (long)ceil(quotient);']
        : [
            '  steps = quotient < 1.0 ? 1 : (long)floor(quotient);',
            '  if (!(fabs(length/(double)steps - *h) < fabs(length/(double)(steps + 1) - *h))) steps++;',
            '  *h = length/(double)steps;',
            '  return steps;',
          ]),
      '}',
      '',
      'static void row(long n, double h) {',
      `  printf("%ld,%.17g${',%.17g'.repeat(size)}\\n", n, start + (double)n*h, ${components.join(', ')});`,
      '}',
      '',
      'int main(int argc, char **argv) {',
      '  set_up();',
      '  if (argc < 2) {',
      `    double h = ${signed(h)}; /* N = ${steps}: (t_end - start)/${steps} */`,
      '    const long steps = steps_for(&h);',
      '    begin();',
      `    printf("${head}\\n");`,
      '    row(0, h);',
      '    for (long n = 0; n < steps; n++) { advance(n, h); row(n + 1, h); }',
      '    return 0;',
      '  }',
      ...(exact === null
        ? [`  printf("h,N,${names.map((name) => name.replace(/["\\%]/g, '_')).join(',')}\\n");`]
        : ['  printf("h,N,error,order\\n");', '  double last_h = 0.0, last_error = 0.0;']),
      '  for (int i = 1; i < argc; i++) {',
      '    double h = atof(argv[i]);',
      '    if (!(h > 0.0)) { fprintf(stderr, "%s is not a step size\\n", argv[i]); return 1; }',
      '    const long steps = steps_for(&h);',
      '    begin();',
      '    for (long n = 0; n < steps; n++) advance(n, h);',
      ...(exact === null
        ? [`    printf("%.17g,%ld${',%.17g'.repeat(size)}\\n", h, steps, ${components.join(', ')});`]
        : [
            '    const double error = error_at(start + (double)steps*h);',
            '    if (i == 1) printf("%.17g,%ld,%.17g,\\n", h, steps, error);',
            '    else printf("%.17g,%ld,%.17g,%.6f\\n", h, steps, error, log(last_error/error)/log(last_h/h));',
            '    last_h = h;',
            '    last_error = error;',
          ]),
      '  }',
      '  return 0;',
      '}',
    ];
  },
  helpers: (text) => [
    ...(/\bfail\(/.test(text)
      ? ['static void fail(const char *why) {', '  fprintf(stderr, "%s\\n", why);', '  exit(1);', '}', '']
      : []),
    'static void stop(long n, double h);',
    '',
    ...(/\bsolve\(/.test(text) ? SOLVE : []),
    ...(/\bsign\(/.test(text)
      ? ['static double sign(double x) { return x > 0.0 ? 1.0 : x < 0.0 ? -1.0 : x; }', '']
      : []),
    ...(/\bmod\(/.test(text)
      ? ['static double mod(double x, double y) { return x - y*floor(x/y); }', '']
      : []),
  ],
};

/** A program in C99 that does what a run does, to be read and compiled by itself. */
export function cProgram(parts: ProgramParts): string {
  return likeC(DIALECT, parts, './program', 'the C library');
}
