import { atom } from '../../formula/printer.ts';
import { headNotes, MAX_PLOTTED, PYTHON_DECIMALS } from './notes.ts';
import { PYTHON_WORDS } from './reserved-words.ts';
import { componentTexts, pointNames } from './routines.ts';
import {
  advanceLines,
  beginLines,
  holds,
  indentedBy,
  problemRoutines,
  type Script,
  stepRoutines,
} from './scripted.ts';
import type { DecimalPrecision } from '../../decimal/decimal-precision.ts';
import { decimalText } from '../../decimal/decimal-text.ts';
import { decimalsOf } from '../../decimal/decimals.ts';
import { Refusal } from '../../text/refusal.ts';
import { BY_NAME, constantDigits, decimal, LIKE_C, shifted } from './writing-parts.ts';
import type { CodeLine, ProgramParts, Writing } from './language.ts';
import { signedBy } from './signed.ts';

const PYTHON_OWN: ReadonlySet<string> = new Set(['abs', 'min', 'max', 'sign', 'mod', 'cbrt', 'floor']);

/** How the language writes the parts of a formula. */
export const PYTHON: Writing = {
  ...LIKE_C,
  ...BY_NAME,
  reserved: PYTHON_WORDS,
  number: decimal,
  integers: 'in quotients',
  isWhole: false,
  power: (base, exponent) => atom(`math.pow(${base}, ${exponent})`),
  call: (name, inputs) => {
    const own = name === 'ln' ? 'math.log' : PYTHON_OWN.has(name) ? name : `math.${name}`;
    return `${own}(${inputs.join(', ')})`;
  },
  choice: ({ left, relation, right, yes, no }) => `(${yes} if ${left} ${relation} ${right} else ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? counter : `(${shifted(counter, ahead)})`),
};

/** Functions of the decimal module, as methods of a number. */
const DECIMAL_METHODS: Readonly<Record<string, string>> = {
  sqrt: 'sqrt',
  exp: 'exp',
  ln: 'ln',
  log10: 'log10',
};

/**
 * The same with numbers of the decimal module.
 *
 * @throws Refusal, when a formula is written, for functions that the module lacks
 */
export function pythonDecimals(precision: DecimalPrecision): Writing {
  return {
    ...PYTHON,
    number: (value, digits) => `D("${digits ?? decimalText(decimalsOf(precision).fromDouble(value))}")`,
    constantDigits: (name) => constantDigits(name, precision),
    integers: 'beside doubles',
    inexact: new Set(['mod']),
    power: (base, exponent) => atom(`((${base})**(${exponent}))`),
    call: (name, inputs) => {
      const method = DECIMAL_METHODS[name];
      if (method !== undefined) return `(${inputs[0] ?? ''}).${method}()`;
      if (!PYTHON_OWN.has(name) || name === 'cbrt')
        throw new Refusal('form', `Python's decimal module has no ${name}; choose Julia or C`);
      return `${name}(${inputs.join(', ')})`;
    },
    counted: (counter, ahead) => `D(${shifted(counter, ahead)})`,
  };
}

/** How a program writes its own numbers and prints its values: in doubles, or in decimals. */
interface OwnNumbers {
  readonly zero: string;
  readonly half: string;
  readonly root: (text: string) => string;
  /** A value in a formatted text. */
  readonly printed: (text: string) => string;
  readonly read: string;
  /** The number of steps and the step size of the run, as a value of both. */
  readonly size: (parts: ProgramParts) => string;
}

const DOUBLES: OwnNumbers = {
  zero: '0.0',
  half: '0.5',
  root: (text) => `math.sqrt(${text})`,
  printed: (text) => `{${text}:.17g}`,
  read: 'float',
  size: ({ h }) => `steps_for(${signedBy(PYTHON)(h)})`,
};

const DECIMALS: OwnNumbers = {
  zero: 'D(0)',
  half: 'D("0.5")',
  root: (text) => `(${text}).sqrt()`,
  printed: (text) => `{${text}}`,
  read: 'D',
  size: ({ h, steps, lastStep, isTyped }) =>
    lastStep === 'overrun' && isTyped ? `steps_for(D("${h}"))` : `${steps}, (T_END - T_START)/${steps}`,
};

function ownNumbers({ decimal: precision }: ProgramParts): OwnNumbers {
  return precision === null ? DOUBLES : DECIMALS;
}

const indented = indentedBy('    ');

function lineText(line: CodeLine): readonly string[] {
  switch (line.kind) {
    case 'set':
      return [`${line.to} = ${line.value}`];
    case 'vector':
      return [`${line.to} = [${line.value} for j in range(${line.width})]`];
    case 'routine':
      return [`${line.into} = ${line.name}(${line.inputs.join(', ')})`];
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
        `if not eliminate(matrix, right, ${line.unknowns}):`,
        `    sys.exit("Newton's method: singular Jacobian")`,
      ];
  }
}

function routine(head: string, lines: readonly string[]): readonly string[] {
  return [`def ${head}:`, ...indented(lines), '', ''];
}

const scriptOf = ({ zero }: OwnNumbers): Script => ({
  comment: '#',
  constant: ({ name, value, note }) => `${name} = ${value}${note === null ? '' : `  # ${note}`}`,
  routine: ({ name, inputs, outputs }, lines) =>
    routine(`${name}(${inputs.join(', ')})`, [
      ...lines,
      `return ${outputs.map(({ value }) => value).join(', ')}`,
    ]),
  assign: (names, value) => `${names.join(', ')} = ${value}`,
  declare: (_, vectors) => vectors.map(([name, size]) => `${name} = [${zero}]*${size}`),
  zeros: (size) => (size === 1 ? zero : `[${zero}]*${size}`),
  line: lineText,
  choose: (condition, yes, no) => [`if ${condition}:`, ...indented(yes), 'else:', ...indented(no)],
  invoke: PYTHON.invoke,
});

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const ELIMINATE = [
  'def eliminate(m, r, n):',
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
  '        total = r[i]',
  '        for k in range(i + 1, n):',
  '            total -= m[i*n + k]*r[k]',
  '        r[i] = total/m[i*n + i]',
  '    return True',
  '',
  '',
];

const HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/(?<!\.)\bsign\(/, ['def sign(x):', '    return 1.0 if x > 0.0 else -1.0 if x < 0.0 else x', '', '']],
  [/(?<!\.)\bfloor\(|\bmod\(/, ['def floor(x):', '    return float(math.floor(x))', '', '']],
  [/\beliminate\(/, ELIMINATE],
  [/\bmod\(/, ['def mod(x, y):', '    return x - y*floor(x/y)', '', '']],
  [/\bcbrt\(/, ['def cbrt(x):', '    return math.copysign(abs(x)**(1.0/3.0), x)', '', '']],
];

const DECIMAL_HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/(?<!\.)\bsign\(/, ['def sign(x):', '    return D(1) if x > 0 else D(-1) if x < 0 else x', '', '']],
  [/(?<!\.)\bfloor\(|\bmod\(/, ['def floor(x):', '    return x.to_integral_value(ROUND_FLOOR)', '', '']],
  [/\bmod\(/, ['def mod(x, y):', '    return x - y*floor(x/y)', '', '']],
];

const ROUNDINGS = { 'half-even': 'ROUND_HALF_EVEN', 'half-up': 'ROUND_HALF_UP', chop: 'ROUND_DOWN' } as const;

/** The arithmetic of a program in decimals: digits and rounding of every operation. */
function contextLines({ digits, rounding }: DecimalPrecision, text: string): readonly string[] {
  const mode = ROUNDINGS[rounding];
  const names = [...(/(?<!\.)\bfloor\(|\bmod\(/.test(text) ? ['ROUND_FLOOR'] : []), mode];
  return [
    `from decimal import ${names.join(', ')}, Decimal as D, getcontext`,
    '',
    `getcontext().prec = ${digits}`,
    `getcontext().rounding = ${mode}`,
  ];
}

/** The run from point to point, and its end where a value is not finite. */
function runLines(parts: ProgramParts): readonly string[] {
  const { width, step } = parts;
  const own = ownNumbers(parts);
  const script = scriptOf(own);
  const all = step.vectors.join(', ');
  const isFinite =
    width > 1
      ? `all(map(math.isfinite, ${step.vectors.join(' + ')}))`
      : step.vectors.map((name) => `math.isfinite(${name})`).join(' and ');
  return [
    ...routine('solve(h, steps)', [
      `"""The points of a run, one after the other: n, t, ${all}."""`,
      ...beginLines(script, parts),
      `yield 0, T_START, ${all}`,
      'for n in range(steps):',
      ...indented([
        't = T_START + n*h',
        'try:',
        ...indented(advanceLines(script, parts)),
        'except (ArithmeticError, ValueError):',
        '    stop(n, t)',
        `if not ${width > 1 || step.vectors.length === 1 ? isFinite : `(${isFinite})`}:`,
        '    stop(n, t)',
        `yield n + 1, T_START + (n + 1)*h, ${all}`,
      ]),
    ]),
    ...routine('stop(n, t)', ['sys.exit(f"stops in step {n + 1} from t = {t:.6g}: not a finite number")']),
    ...routine('steps_for(h)', [
      '"""The number of steps, and the step size that it belongs to."""',
      'quotient = (T_END - T_START)/h',
      `steps = max(1, math.floor(quotient + ${own.half}))`,
      'if abs(quotient - steps) > 1e-12*steps:',
      ...indented(
        parts.lastStep === 'overrun'
          ? ['steps = math.ceil(quotient)']
          : [
              'steps = max(1, math.floor(quotient))',
              'if not abs((T_END - T_START)/steps - h) < abs((T_END - T_START)/(steps + 1) - h):',
              '    steps += 1',
              'h = (T_END - T_START)/steps',
            ],
      ),
      'return steps, h',
    ]),
  ];
}

/** The error of a point, beside the exact solution. */
function errorLines(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { exact, size, step } = parts;
  const own = ownNumbers(parts);
  if (exact === null) return [];
  const error = routine(
    `error_at(t, ${step.vectors.join(', ')})`,
    size === 1
      ? [`return abs(${components[0] ?? ''} - exact(t))`]
      : [
          'e = exact(t)',
          `total = ${own.zero}`,
          ...components.map((name, p) => `total += (${name} - e[${p}])*(${name} - e[${p}])`),
          `return ${own.root('total')}`,
        ],
  );
  return [...error, ...ORDER];
}

/** The observed order between two step sizes; nothing where it has no meaning. */
const ORDER = routine('order_of(last, h, error)', [
  'if last is None or last[0] == h or not (last[1] > 0.0 and error > 0.0):',
  '    return ""',
  'return f"{math.log(last[1]/error)/math.log(last[0]/h):.6f}"',
]);

/** Lines that draw the run by matplotlib, as comments. */
function plotLines(parts: ProgramParts, texts: readonly string[]): readonly string[] {
  const { components } = parts;
  const point = pointNames(parts).join(', ');
  return [
    '# To draw the run with matplotlib, remove "# " at the head of these lines:',
    ...[
      'import matplotlib.pyplot as plt',
      'points = list(solve(h, steps))',
      ...texts
        .slice(0, MAX_PLOTTED)
        .map(
          (text, i) =>
            `plt.plot([t for ${point} in points], [${text} for ${point} in points], "o-", label=${JSON.stringify(components[i] ?? '')})`,
        ),
      'plt.legend()',
      'plt.show()',
    ].map((line) => `# ${line}`),
  ];
}

/** What the program prints: the rows of one run, or errors and orders for the step sizes it is given. */
function mainLines(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { exact, steps, independent, step } = parts;
  const { printed, read, size: sizeOf } = ownNumbers(parts);
  const values = components.map(printed).join(',');
  const point = pointNames(parts).join(', ');
  const header = (names: readonly string[]): string =>
    JSON.stringify([...names, ...parts.components].join(','));
  const result =
    exact === null
      ? [`print(f"${printed('h')},{steps},${values}")`]
      : [
          `error = error_at(t, ${step.vectors.join(', ')})`,
          `print(f"${printed('h')},{steps},${printed('error')},{order_of(last, h, error)}")`,
          'last = (h, error)',
        ];
  return [
    ...routine('main()', [
      'if len(sys.argv) < 2:',
      ...indented([
        `steps, h = ${sizeOf(parts)}  # N = ${steps}`,
        `print(${header(['n', independent])})`,
        `for ${point} in solve(h, steps):`,
        `    print(f"{n},${printed('t')},${values}")`,
        ...plotLines(parts, components),
        'return',
      ]),
      exact === null ? `print(${header(['h', 'N'])})` : 'print("h,N,error,order")',
      ...(exact === null ? [] : ['last = None']),
      `for size in map(${read}, sys.argv[1:]):`,
      ...indented([
        'if not size > 0.0:',
        '    sys.exit(f"{size} is not a step size")',
        'steps, h = steps_for(size)',
        `for ${point} in solve(h, steps):`,
        '    pass',
        ...result,
      ]),
    ]),
    'if __name__ == "__main__":',
    '    main()',
  ];
}

/** A program in Python 3 that does what a run does. */
export function pythonProgram(parts: ProgramParts): string {
  const components = componentTexts(parts, PYTHON.element);
  const script = scriptOf(ownNumbers(parts));
  const { decimal: precision } = parts;
  const all = [
    ...parts.constants.map(script.constant),
    '',
    '',
    ...problemRoutines(script, parts),
    ...stepRoutines(script, parts),
    ...runLines(parts),
    ...errorLines(parts, components),
    ...mainLines(parts, components),
  ];
  const text = all.join('\n');
  const notes = headNotes(parts, {
    before: [],
    rows: 'python3 program.py',
    sizes: 'python3 program.py H1 H2 ...',
    library: precision === null ? "Python's math library" : PYTHON_DECIMALS,
    plot: null,
  });
  return `${[
    ...notes.map((line) => `# ${line}`.trimEnd()),
    'import math',
    'import sys',
    ...(precision === null ? [] : contextLines(precision, text)),
    '',
    ...(precision === null ? HELPERS : DECIMAL_HELPERS).flatMap(([is, lines]) =>
      is.test(text) ? lines : [],
    ),
    ...all,
  ].join('\n')}\n`;
}
