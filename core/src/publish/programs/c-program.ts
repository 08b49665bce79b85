import { C } from './c-writing.ts';
import { cQuadruple, DIGITS_ROUTINE, inQuadruple } from './c-quadruple.ts';
import { headNotes } from './notes.ts';
import {
  type Assignments,
  assignments,
  componentTexts,
  keepsRhs,
  stateNames,
  stepArguments,
  stepOutputs,
} from './routines.ts';
import { holds, indentedBy } from './scripted.ts';
import { LIKE_C } from './writing-parts.ts';
import type { CodeLine, ProgramParts, StepRoutine } from './language.ts';
import { signedBy } from './signed.ts';

/** How a program prints and reads its values: doubles, or numbers of 128 bits. `(real)` in its lines makes a double of one. */
interface OwnNumbers {
  readonly form: string;
  readonly printed: (text: string) => string;
  readonly read: (text: string) => string;
}

const DOUBLES: OwnNumbers = { form: '%.17g', printed: (text) => text, read: (text) => `atof(${text})` };
const QUADRUPLES: OwnNumbers = {
  form: '%s',
  printed: (text) => `digits(${text})`,
  read: (text) => `strtoflt128(${text}, NULL)`,
};

function ownNumbers({ decimal: precision }: ProgramParts): OwnNumbers {
  return precision === null ? DOUBLES : QUADRUPLES;
}

const indented = indentedBy('  ');

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const ELIMINATE = [
  'static int eliminate(double *m, double *r, int n) {',
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
  '    double total = r[i];',
  '    for (int k = i + 1; k < n; k++) total -= m[i*n + k]*r[k];',
  '    r[i] = total/m[i*n + i];',
  '  }',
  '  return 1;',
  '}',
  '',
];

const HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [
    /\bfail\(/,
    ['static void fail(const char *why) {', '  fprintf(stderr, "%s\\n", why);', '  exit(1);', '}', ''],
  ],
  [/\beliminate\(/, ELIMINATE],
  [/\bsign\(/, ['static double sign(double x) { return x > 0.0 ? 1.0 : x < 0.0 ? -1.0 : x; }', '']],
  [/\bmod\(/, ['static double mod(double x, double y) { return x - y*floor(x/y); }', '']],
];

/** What is set as a whole where it becomes known, and what needs a declaration before. */
type SetNames = Assignments['once'];

function eachLine(below: number, body: string, from = 0, counter = 'j'): string {
  return `for (int ${counter} = ${from}; ${counter} < ${below}; ${counter}++)${body}`;
}

function lineText(line: CodeLine, once: SetNames): readonly string[] {
  switch (line.kind) {
    case 'set':
      return [`${once.has(line.to) ? 'const double ' : ''}${line.to} = ${line.value};`];
    case 'vector':
      return [eachLine(line.width, ` ${line.to}[j] = ${line.value};`)];
    case 'routine':
      return [`${line.name}(${[...line.inputs, line.into].join(', ')});`];
    case 'each': {
      const body = line.body.flatMap((inner) => lineText(inner, once));
      const [only] = body;
      const head = eachLine(line.below, '', line.from, line.counter);
      return body.length === 1 ? [`${head} ${only ?? ''}`] : [`${head} {`, ...indented(body), '}'];
    }
    case 'repeat':
      return [
        'for (int round = 1; ; round++) {',
        ...indented(line.body.flatMap((inner) => lineText(inner, once))),
        '}',
      ];
    case 'leave':
      return [`if (${line.when.map(holds).join(' && ')}) break;`];
    case 'fail':
      return [`if (!(${holds(line.unless)})) fail(${JSON.stringify(line.message)});`];
    case 'solve':
      return [`if (!eliminate(matrix, right, ${line.unknowns})) fail("Newton's method: singular Jacobian");`];
  }
}

/** A routine; arguments that it does not read are named, so that a compiler does not warn of them. */
function routine(head: string, inputs: readonly string[], lines: readonly string[]): readonly string[] {
  const text = lines.join('\n');
  const unread = inputs.filter((name) => !new RegExp(`\\b${name}\\b`).test(text));
  return [`${head} {`, ...indented([...unread.map((name) => `(void)${name};`), ...lines]), '}', ''];
}

/** Declarations of numbers and of vectors of a length. */
function declared(numbers: readonly string[], vectors: readonly string[], width: number): readonly string[] {
  const all = [...numbers, ...vectors.map((name) => `${name}[${width}]`)];
  return all.length === 0 ? [] : [`double ${all.join(', ')};`];
}

/** A state of one number is a double; any other is a structure. */
function isNumber({ width, step }: ProgramParts): boolean {
  return width === 1 && stateNames(step).length === 1;
}

/** The state of a run: its type, how its parts are read, and how a routine ends that changes it. */
class StateWriter {
  readonly type: string;
  /** The state as an argument. */
  readonly name: string;
  readonly #parts: ProgramParts;

  constructor(parts: ProgramParts) {
    this.#parts = parts;
    const isPlain = isNumber(parts);
    this.type = isPlain ? 'double' : 'State';
    this.name = isPlain ? (parts.step.vectors[0] ?? '') : 'state';
  }

  /** The structure; none for one number. */
  definition(): readonly string[] {
    const { width, step } = this.#parts;
    if (isNumber(this.#parts)) return [];
    const names = stateNames(step);
    return [
      ...(step.kept.length === 0 ? [] : ['/* the values, and what is kept of the steps before */']),
      'typedef struct {',
      ...indented(width === 1 ? declared(names, [], 1) : declared([], names, width)),
      '} State;',
      '',
    ];
  }

  /** A part of the state by its name. */
  part(name: string): string {
    return isNumber(this.#parts) ? name : `${this.name}.${name}`;
  }

  /** Lines that make parts of the state known by their names, where these lines read them. */
  read(names: readonly string[], lines: readonly string[]): readonly string[] {
    if (isNumber(this.#parts)) return [];
    const text = lines.join('\n');
    const form = this.#parts.width === 1 ? 'const double ' : 'const double *';
    return names
      .filter((name) => new RegExp(`\\b${name}\\b`).test(text))
      .map((name) => `${form}${name} = ${this.part(name)};`);
  }

  /** A part of the state set to a number or a vector. */
  set(name: string, value: string): string {
    const to = this.part(name);
    return this.#parts.width === 1
      ? `${to} = ${value};`
      : eachLine(this.#parts.width, ` ${to}[j] = ${value}[j];`);
  }
}

function problemRoutines({
  step,
  width,
  size,
  rightHandSides,
  moved,
  exact,
  rhsName,
}: ProgramParts): readonly string[] {
  const setting = (
    name: string,
    { inputs, into, count }: { inputs: readonly string[]; into: string; count: number },
    lines: readonly CodeLine[],
  ): readonly string[] => {
    const vectors = inputs.map((input) => (count === 1 ? `double ${input}` : `const double *${input}`));
    const read = ['t', ...inputs];
    const [only] = lines;
    if (count === 1 && only?.kind === 'set')
      return routine(`static double ${name}(${['double t', ...vectors].join(', ')})`, read, [
        `return ${only.value};`,
      ]);
    return routine(
      `static void ${name}(${['double t', ...vectors, `double *${into}`].join(', ')})`,
      read,
      lines.flatMap((line) => lineText(line, new Set())),
    );
  };
  return [
    ...setting(rhsName, { inputs: step.vectors, into: 'd', count: width }, rightHandSides),
    ...(moved === null
      ? []
      : [
          "/* directional derivative of the right-hand side along v, for the Jacobian in Newton's method */",
          ...setting(`${rhsName}_moved`, { inputs: [...step.vectors, 'v'], into: 'd', count: width }, moved),
        ]),
    ...(exact === null ? [] : setting('exact', { inputs: [], into: 'e', count: size }, exact)),
  ];
}

/** One step of a method: from the present state to the next one. */
function stepRoutine(parts: ProgramParts, state: StateWriter, step: StepRoutine): readonly string[] {
  const { width } = parts;
  const { once } = assignments(step.body);
  const lines = step.body.flatMap((line) => lineText(line, once));
  const last = isNumber(parts)
    ? [`return ${step.next[0] ?? ''};`]
    : [...stepOutputs(step).map(({ name, value }) => state.set(name, value)), `return ${state.name};`];
  const inputs = stepArguments(step).filter((name) => !stateNames(step).includes(name));
  const before = inputs.filter((name) => name !== 'h');
  const all = [
    ...declared(
      step.numbers.filter((name) => !once.has(name)),
      step.arrays,
      width,
    ),
    ...step.rooms.flatMap(({ name, size }) => declared([], [name], size)),
    ...lines,
    ...last,
  ];
  const types = before.map((name) => (name === 'n' ? 'long n' : `double ${name}`));
  return routine(
    `static ${state.type} ${step.name}(${[...types, `${state.type} ${state.name}`, 'double h'].join(', ')})`,
    inputs,
    [...state.read(stateNames(step), all), ...all],
  );
}

/** The state at the start. */
function beginRoutine(parts: ProgramParts, state: StateWriter): readonly string[] {
  const { step, width, initial } = parts;
  const lines = initial.flatMap((line) => lineText(line, new Set(step.vectors)));
  const [only] = initial;
  if (isNumber(parts) && only?.kind === 'set')
    return routine('static double begin(void)', [], [...lines, `return ${only.to};`]);
  return routine(
    'static State begin(void)',
    [],
    [
      `State ${state.name} = { 0 };`,
      ...(width === 1 ? [] : step.vectors.map((name) => `double *${name} = ${state.part(name)};`)),
      ...lines,
      ...(width === 1 ? step.vectors.map((name) => state.set(name, name)) : []),
      `return ${state.name};`,
    ],
  );
}

/** Lines that do step n: by the method, or by the one that it starts with. */
function advanceLines(parts: ProgramParts, state: StateWriter): readonly string[] {
  const { step, starter, depth, rhsName, width } = parts;
  const call = (of: StepRoutine): string =>
    `${state.name} = ${of.name}(${[...(of.usesNumber ? ['n'] : []), 't', state.name, 'h'].join(', ')});`;
  if (starter === null) return [call(step)];
  const own = step.vectors.map((name) => state.part(name)).join(', ');
  const rhs = !keepsRhs(parts)
    ? []
    : width === 1
      ? [`const double f_0 = ${rhsName}(t, ${own});`]
      : [`double f_0[${width}];`, `${rhsName}(t, ${own}, f_0);`];
  const kept = step.kept.map(({ name, from }) =>
    state.set(name, stateNames(step).includes(from) ? state.part(from) : from),
  );
  return [
    `if (n < ${depth}) {`,
    ...indented([...rhs, ...kept, call(starter)]),
    '} else {',
    ...indented([call(step)]),
    '}',
  ];
}

/** The run from point to point, and its end where a value is not finite. */
function runRoutines(
  parts: ProgramParts,
  state: StateWriter,
  components: readonly string[],
): readonly string[] {
  const { step, width, size, lastStep } = parts;
  const { form, printed } = ownNumbers(parts);
  const one = (index: string): string =>
    step.vectors.map((name) => `!isfinite(${state.part(name)}${index})`).join(' || ');
  return [
    ...beginRoutine(parts, state),
    ...routine(
      'static void stop(long n, double t)',
      [],
      [
        'fprintf(stderr, "stops in step %ld from t = %.6g: not a finite number\\n", n + 1, (real)t);',
        'exit(1);',
      ],
    ),
    ...routine(
      `static void row(long n, double t, ${state.type} ${state.name})`,
      [],
      [
        `printf("%ld,${form}${`,${form}`.repeat(size)}\\n", n, ${['t', ...components].map(printed).join(', ')});`,
      ],
    ),
    '/* the state after so many steps; its points are printed where that is asked for */',
    ...routine(
      `static ${state.type} run(double h, long steps, int prints)`,
      [],
      [
        `${state.type} ${state.name} = begin();`,
        `if (prints) row(0, T_START, ${state.name});`,
        'for (long n = 0; n < steps; n++) {',
        ...indented([
          'const double t = T_START + (double)n*h;',
          ...advanceLines(parts, state),
          width === 1 ? `if (${one('')}) stop(n, t);` : eachLine(width, ` if (${one('[j]')}) stop(n, t);`),
          `if (prints) row(n + 1, T_START + (double)(n + 1)*h, ${state.name});`,
        ]),
        '}',
        `return ${state.name};`,
      ],
    ),
    ...routine(
      'static long steps_for(double *h)',
      [],
      [
        'const double length = T_END - T_START, quotient = length/ *h;',
        'long steps = quotient < 1.5 ? 1 : (long)floor(quotient + 0.5);',
        'if (fabs(quotient - (double)steps) <= 1e-12*(double)steps) return steps;',
        ...(lastStep === 'overrun'
          ? ['return (long)ceil(quotient);']
          : [
              'steps = quotient < 1.0 ? 1 : (long)floor(quotient);',
              'if (!(fabs(length/(double)steps - *h) < fabs(length/(double)(steps + 1) - *h))) steps++;',
              '*h = length/(double)steps;',
              'return steps;',
            ]),
      ],
    ),
  ];
}

/** The error of a state, beside the exact solution. */
function errorRoutine(
  { exact, size }: ProgramParts,
  state: StateWriter,
  components: readonly string[],
): readonly string[] {
  if (exact === null) return [];
  return routine(
    `static double error_at(double t, ${state.type} ${state.name})`,
    [],
    size === 1
      ? [`return fabs(${components[0] ?? ''} - exact(t));`]
      : [
          `double e[${size}], total = 0.0;`,
          'exact(t, e);',
          ...components.map((name, p) => `total += (${name} - e[${p}])*(${name} - e[${p}]);`),
          'return sqrt(total);',
        ],
  );
}

/** Lines that set the step size and the number of steps of the run. */
function sizeLines(
  { decimal: precision, steps, isTyped, lastStep }: ProgramParts,
  h: number,
): readonly string[] {
  if (precision === null || (lastStep === 'overrun' && isTyped))
    return [
      `double h = ${signedBy(precision === null ? C : cQuadruple(precision))(h)}; /* N = ${steps} */`,
      'const long steps = steps_for(&h);',
    ];
  return [`const long steps = ${steps};`, 'double h = (T_END - T_START)/steps;'];
}

/** What the program prints: the rows of one run, or errors and orders for the step sizes it is given. */
function mainRoutine(
  parts: ProgramParts,
  state: StateWriter,
  components: readonly string[],
): readonly string[] {
  const { exact, h, size, independent, components: names } = parts;
  const { form, printed, read } = ownNumbers(parts);
  const header = (all: readonly string[]): string =>
    all.map((name) => name.replace(/["\\%]/g, '_')).join(',');
  const isSetUp = parts.constants.some(({ isComputed }) => isComputed);
  return routine(
    'int main(int argc, char **argv)',
    [],
    [
      ...(isSetUp ? ['set_up();'] : []),
      'if (argc < 2) {',
      ...indented([
        ...sizeLines(parts, h),
        `printf("${header(['n', independent, ...names])}\\n");`,
        'run(h, steps, 1);',
        'return 0;',
      ]),
      '}',
      ...(exact === null
        ? [`printf("h,N,${header(names)}\\n");`]
        : ['printf("h,N,error,order\\n");', 'double last_h = 0.0, last_error = 0.0;']),
      'for (int i = 1; i < argc; i++) {',
      ...indented([
        `double h = ${read('argv[i]')};`,
        'if (!(h > 0.0)) { fprintf(stderr, "%s is not a step size\\n", argv[i]); return 1; }',
        'const long steps = steps_for(&h);',
        `const ${state.type} ${state.name} = run(h, steps, 0);`,
        ...(exact === null
          ? [
              `printf("${form},%ld${`,${form}`.repeat(size)}\\n", ${printed('h')}, steps, ${components.map(printed).join(', ')});`,
            ]
          : [
              `const double error = error_at(T_START + (double)steps*h, ${state.name});`,
              `printf("${form},%ld,${form},", ${printed('h')}, steps, ${printed('error')});`,
              'if (last_h != h && last_error > 0.0 && error > 0.0)',
              `  printf("%.6f", ${parts.decimal === null ? '' : '(real)('}log(last_error/error)/log(last_h/h)${parts.decimal === null ? '' : ')'});`,
              'printf("\\n");',
              'last_h = h;',
              'last_error = error;',
            ]),
      ]),
      '}',
      'return 0;',
    ],
  );
}

/** The constants, and the routine that sets those that are computed when the program runs. */
function constantLines({ constants }: ProgramParts): readonly string[] {
  const computed = constants.filter(({ isComputed }) => isComputed);
  return [
    ...constants.map(({ name, value, note, isComputed }) => {
      const shown = note === null ? '' : ` /* ${note.replaceAll('*/', '* /')} */`;
      return isComputed
        ? `static double ${name};${shown}`
        : `static const double ${name} = ${value};${shown}`;
    }),
    '',
    ...(computed.length === 0
      ? []
      : routine(
          'static void set_up(void)',
          [],
          computed.map(({ name, value }) => `${name} = ${value};`),
        )),
  ];
}

/** A program in C99 that does what a run does, to be read and compiled by itself. */
export function cProgram(parts: ProgramParts): string {
  const state = new StateWriter(parts);
  const components = componentTexts(parts, LIKE_C.element).map((name) => state.part(name));
  const all = [
    ...constantLines(parts),
    ...problemRoutines(parts),
    ...state.definition(),
    ...stepRoutine(parts, state, parts.step),
    ...(parts.starter === null ? [] : stepRoutine(parts, state, parts.starter)),
    ...runRoutines(parts, state, components),
    ...errorRoutine(parts, state, components),
    ...mainRoutine(parts, state, components),
  ];
  const text = all.join('\n');
  const isQuadruple = parts.decimal !== null;
  const written = (lines: readonly string[]): readonly string[] =>
    lines.map((line) =>
      isQuadruple ? inQuadruple(line).replaceAll('(real)', '(double)') : line.replaceAll('(real)', ''),
    );
  const notes = headNotes(parts, {
    before: [
      isQuadruple
        ? 'gcc -O2 -ffp-contract=off -o program program.c -lquadmath -lm'
        : 'cc -std=c99 -O2 -ffp-contract=off -o program program.c -lm',
    ],
    rows: './program',
    sizes: './program H1 H2 ...',
    library: isQuadruple ? '__float128' : 'the C library',
    plot: 'gnuplot',
  });
  return [
    '/*',
    ...notes.map((line) => ` * ${line.replaceAll('*/', '* /')}`.trimEnd()),
    ' */',
    '#include <math.h>',
    '#include <stdio.h>',
    '#include <stdlib.h>',
    ...(isQuadruple ? ['#include <quadmath.h>'] : []),
    '',
    ...written(HELPERS.flatMap(([is, lines]) => (is.test(text) ? lines : []))),
    ...(isQuadruple ? DIGITS_ROUTINE : []),
    ...written(all),
  ].join('\n');
}
