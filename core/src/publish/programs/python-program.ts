import { atom } from '../../formula/printer.ts';
import { PYTHON_WORDS } from './reserved-words.ts';
import { decimal, LIKE_C, shifted } from './writing-parts.ts';
import type { Condition, CodeLine, ProgramParts, StepRoutine, Writing } from './language.ts';
import { headNotes, placesByComponent } from './notes.ts';
import { signedBy } from './signed.ts';

const PYTHON_OWN: ReadonlySet<string> = new Set(['abs', 'min', 'max', 'sign', 'mod', 'cbrt', 'floor']);

/** How the language writes the parts of a formula. */
export const PYTHON: Writing = {
  ...LIKE_C,
  reserved: PYTHON_WORDS,
  number: decimal,
  power: (base, exponent) => atom(`math.pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = name === 'ln' ? 'math.log' : PYTHON_OWN.has(name) ? name : `math.${name}`;
    return `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) => `(${yes} if ${left} ${relation} ${right} else ${no})`,
  counted: (counter, ahead) => `float(${shifted(counter, ahead)})`,
};

const signed = signedBy(PYTHON);

function indented(lines: readonly string[]): readonly string[] {
  return lines.map((line) => (line === '' ? '' : `    ${line}`));
}

function routine(head: string, lines: readonly string[]): readonly string[] {
  return [`def ${head}:`, ...indented(lines.length === 0 ? ['pass'] : lines), '', ''];
}

function holds({ left, relation, right }: Condition): string {
  return `${left} ${relation} ${right}`;
}

function lineText(line: CodeLine): readonly string[] {
  switch (line.kind) {
    case 'set':
      return [`${line.to} = ${line.value}`];
    case 'routine':
      return [`${line.name}(${[...line.inputs, line.into].join(', ')})`];
    case 'each':
      return [
        `for ${line.counter ?? 'j'} in range(${line.from}, ${line.below}):`,
        ...indented(line.body.flatMap(lineText)),
      ];
    case 'repeat':
      return ['round = 0', 'while True:', ...indented(['round += 1', ...line.body.flatMap(lineText)])];
    case 'leave':
      return [`if ${line.when.map(holds).join(' and ')}:`, '    break'];
    case 'fail':
      return [`if not ${holds(line.unless)}:`, `    sys.exit(${JSON.stringify(line.message)})`];
    case 'solve':
      return [
        `if not solve(matrix, right, ${line.unknowns}):`,
        `    sys.exit("Newton's method: singular Jacobian")`,
      ];
  }
}

function copied(to: string, from: string, isOne: boolean): string {
  return isOne ? `${to} = ${from}` : `${to}[:] = ${from}`;
}

function stepLines(parts: ProgramParts, step: StepRoutine): readonly string[] {
  const isOne = parts.width === 1;
  const state = [...step.vectors, ...step.kept.map(({ name }) => name)];
  return routine(`${step.name}(n, h)`, [
    ...(isOne ? [`global ${state.join(', ')}`] : []),
    ...step.arrays.map((name) => `${name} = [0.0]*${parts.width}`),
    ...step.rooms.map(({ name, size }) => `${name} = [0.0]*${size}`),
    't = start + float(n)*h',
    ...step.body.flatMap(lineText),
    ...step.kept.map(({ name, from }) => copied(name, from, isOne)),
    ...step.vectors.map((vector, i) => copied(vector, step.next[i] ?? '', isOne)),
  ]);
}

function keepLines({ step, width, rhsName }: ProgramParts): readonly string[] {
  const isOne = width === 1;
  const own = step.vectors.join(', ');
  const needsRhs = step.kept.some(({ from }) => from === 'f_0');
  const rhs = isOne
    ? [`f_0 = ${rhsName}(t, ${own})`]
    : [`f_0 = [0.0]*${width}`, `${rhsName}(t, ${own}, f_0)`];
  return routine('keep(n, h)', [
    ...(isOne ? [`global ${step.kept.map(({ name }) => name).join(', ')}`] : []),
    ...(needsRhs ? ['t = start + float(n)*h', ...rhs] : []),
    ...step.kept.map(({ name, from }) => copied(name, from, isOne)),
  ]);
}

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const SOLVE = [
  'def solve(m, r, n):',
  '    for i in range(n):',
  '        pivot = i',
  '        for k in range(i + 1, n):',
  '            if abs(m[k*n + i]) > abs(m[pivot*n + i]):',
  '                pivot = k',
  '        head = m[pivot*n + i]',
  '        if not (0.0 < abs(head) < math.inf):',
  '            return False',
  '        if pivot != i:',
  '            for k in range(i, n):',
  '                m[pivot*n + k], m[i*n + k] = m[i*n + k], m[pivot*n + k]',
  '            r[pivot], r[i] = r[i], r[pivot]',
  '        for k in range(i + 1, n):',
  '            factor = m[k*n + i]/head',
  '            if factor == 0.0:',
  '                continue',
  '            for q in range(i + 1, n):',
  '                m[k*n + q] -= factor*m[i*n + q]',
  '            r[k] -= factor*r[i]',
  '    for i in range(n - 1, -1, -1):',
  '        sum = r[i]',
  '        for k in range(i + 1, n):',
  '            sum -= m[i*n + k]*r[k]',
  '        r[i] = sum/m[i*n + i]',
  '    return True',
  '',
  '',
];

const HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/(?<!\.)\bsign\(/, ['def sign(x):', '    return 1.0 if x > 0.0 else -1.0 if x < 0.0 else x', '', '']],
  [/(?<!\.)\bfloor\(|\bmod\(/, ['def floor(x):', '    return float(math.floor(x))', '', '']],
  [/\bsolve\(/, SOLVE],
  [/\bmod\(/, ['def mod(x, y):', '    return x - y*floor(x/y)', '', '']],
  [/\bcbrt\(/, ['def cbrt(x):', '    return math.copysign(abs(x)**(1.0/3.0), x)', '', '']],
];

/** The state of a step: its vectors and what it keeps. */
function stateOf({ step }: ProgramParts): readonly string[] {
  return [...step.vectors, ...step.kept.map(({ name }) => name)];
}

/** The components of the state as elements of the vectors. */
function componentsOf(parts: ProgramParts): readonly string[] {
  return placesByComponent(parts).map(({ vector, index }) => {
    const name = parts.step.vectors[vector] ?? '';
    return parts.width === 1 ? name : `${name}[${index}]`;
  });
}

/** The problem: parameters, right-hand sides and the exact solution. */
function problemLines({
  step,
  width,
  size,
  rightHandSides,
  moved,
  exact,
  rhsName,
  constants,
}: ProgramParts): readonly string[] {
  const isOne = width === 1;
  const rhs = (name: string, inputs: readonly string[], lines: readonly string[]): readonly string[] =>
    routine(`${name}(t, ${[...inputs, ...(isOne ? [] : ['d'])].join(', ')})`, [
      ...lines,
      ...(isOne ? ['return d'] : []),
    ]);
  return [
    ...constants.map(({ name, value, note }) => `${name} = ${value}${note === null ? '' : `  # ${note}`}`),
    '',
    '',
    ...rhs(rhsName, step.vectors, rightHandSides.flatMap(lineText)),
    ...(moved === null
      ? []
      : rhs(
          `${rhsName}_moved`,
          [...step.vectors, 'v'],
          [
            "# directional derivative of the right-hand side along v, for the Jacobian in Newton's method",
            ...moved.flatMap(lineText),
          ],
        )),
    ...(exact === null
      ? []
      : routine(size === 1 ? 'exact(t)' : 'exact(t, e)', [
          ...exact.flatMap(lineText),
          ...(size === 1 ? ['return e'] : []),
        ])),
  ];
}

/** The state, and the routines that begin a run and take its steps. */
function runLines(parts: ProgramParts): readonly string[] {
  const { width, step, starter, depth, initial } = parts;
  const isOne = width === 1;
  const state = stateOf(parts);
  return [
    ...(isOne ? [`${state.join(' = ')} = 0.0`] : state.map((name) => `${name} = [0.0]*${width}`)),
    '',
    '',
    ...routine('begin()', [...(isOne ? [`global ${state.join(', ')}`] : []), ...initial.flatMap(lineText)]),
    ...stepLines(parts, step),
    ...(starter === null ? [] : [...stepLines(parts, starter), ...keepLines(parts)]),
    ...routine('advance(n, h)', [
      'try:',
      ...indented(
        starter === null
          ? ['step(n, h)']
          : [`if n < ${depth}:`, '    keep(n, h)', '    first_step(n, h)', 'else:', '    step(n, h)'],
      ),
      'except (ArithmeticError, ValueError):',
      '    stop(n, h)',
      `if not all(map(math.isfinite, ${isOne ? `[${componentsOf(parts).join(', ')}]` : step.vectors.join(' + ')})):`,
      '    stop(n, h)',
    ]),
    ...routine('stop(n, h)', [
      'sys.exit(f"stops in step {n + 1} from t = {start + float(n)*h:.6g}: not a finite number")',
    ]),
  ];
}

/** The error at the end of a run, beside the exact solution. */
function errorLines(parts: ProgramParts): readonly string[] {
  const { exact, size } = parts;
  if (exact === null) return [];
  const components = componentsOf(parts);
  return routine(
    'error_at(t)',
    size === 1
      ? [`return abs(${components[0] ?? ''} - exact(t))`]
      : [
          `e = [0.0]*${size}`,
          'exact(t, e)',
          'sum = 0.0',
          ...components.map((name, p) => `sum += (${name} - e[${p}])*(${name} - e[${p}])`),
          'return math.sqrt(sum)',
        ],
  );
}

/** What the program prints: the rows of one run, or errors and orders for the step sizes it is given. */
function mainLines(parts: ProgramParts): readonly string[] {
  const { exact, steps, h, lastStep, independent } = parts;
  const values = componentsOf(parts)
    .map((name) => `{${name}:.17g}`)
    .join(',');
  const header = (names: readonly string[]): string =>
    JSON.stringify([...names, ...parts.components].join(','));
  const result =
    exact === null
      ? [`print(f"{h:.17g},{steps},${values}")`]
      : [
          'error = error_at(start + float(steps)*h)',
          'order = "" if last is None else f"{math.log(last[1]/error)/math.log(last[0]/h):.6f}"',
          'print(f"{h:.17g},{steps},{error:.17g},{order}")',
          'last = (h, error)',
        ];
  return [
    ...routine('steps_for(h)', [
      'quotient = (t_end - start)/h',
      'steps = max(1, math.floor(quotient + 0.5))',
      'if abs(quotient - steps) > 1e-12*steps:',
      ...indented(
        lastStep === 'overrun'
          ? ['steps = math.ceil(quotient)']
          : [
              'steps = max(1, math.floor(quotient))',
              'if not abs((t_end - start)/steps - h) < abs((t_end - start)/(steps + 1) - h):',
              '    steps += 1',
              'h = (t_end - start)/steps',
            ],
      ),
      'return steps, h',
    ]),
    ...routine('row(n, h)', [`print(f"{n},{start + float(n)*h:.17g},${values}")`]),
    'if len(sys.argv) < 2:',
    ...indented([
      `steps, h = steps_for(${signed(h)})  # N = ${steps}: h = (t_end - start)/${steps}`,
      'begin()',
      `print(${header(['n', independent])})`,
      'row(0, h)',
      'for n in range(steps):',
      '    advance(n, h)',
      '    row(n + 1, h)',
    ]),
    'else:',
    ...indented([
      exact === null ? `print(${header(['h', 'N'])})` : 'print("h,N,error,order")',
      'last = None',
      'for h in map(float, sys.argv[1:]):',
      ...indented([
        'if not h > 0.0:',
        '    sys.exit(f"{h} is not a step size")',
        'steps, h = steps_for(h)',
        'begin()',
        'for n in range(steps):',
        '    advance(n, h)',
        ...result,
      ]),
    ]),
  ];
}

/** A program in Python 3 that does what a run does. */
export function pythonProgram(parts: ProgramParts): string {
  const all = [...problemLines(parts), ...runLines(parts), ...errorLines(parts), ...mainLines(parts)];
  const text = all.join('\n');
  const notes = headNotes(parts, 'python3 program.py', "Python's math library");
  return `${[
    ...notes.map((line) => `# ${line}`.trimEnd()),
    'import math',
    'import sys',
    '',
    ...HELPERS.flatMap(([is, lines]) => (is.test(text) ? lines : [])),
    ...all,
  ].join('\n')}\n`;
}
