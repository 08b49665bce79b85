import { headNotes, MAX_PLOTTED } from './notes.ts';
import { JULIA_WORDS } from './reserved-words.ts';
import { componentTexts } from './routines.ts';
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
import { BY_NAME, constantDigits, countedFromOne, decimal, shifted } from './writing-parts.ts';
import type { CodeLine, ProgramParts, Writing } from './language.ts';
import { signedBy } from './signed.ts';

const JULIA_NAMES: Readonly<Record<string, string>> = { ln: 'log', mod: 'modulo', atan2: 'atan' };

/** How the language writes the parts of a formula. */
export const JULIA: Writing = {
  ...countedFromOne((vector, index) => `${vector}[${index}]`),
  ...BY_NAME,
  reserved: JULIA_WORDS,
  number: decimal,
  integers: 'in quotients',
  isWhole: true,
  power: (base, exponent) => ({ text: `(${base})^(${exponent})`, holds: 'power' }),
  call: (name, inputs) => `${JULIA_NAMES[name] ?? name}(${inputs.join(', ')})`,
  choice: ({ left, relation, right, yes, no }) => `(${left} ${relation} ${right} ? ${yes} : ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? counter : `(${shifted(counter, ahead)})`),
};

/** Digits from which on binary numbers of as many are a fair stand-in for decimal ones. */
const FEWEST = 16;

/**
 * The same with numbers of the type BigFloat.
 *
 * @throws Refusal for fewer digits than doubles have, which binary numbers round otherwise
 */
export function juliaBig(precision: DecimalPrecision): Writing {
  if (precision.digits < FEWEST || precision.rounding !== 'half-even')
    throw new Refusal(
      'form',
      `BigFloat of Julia rounds to the nearest binary number, and this study rounds otherwise; choose Python`,
    );
  return {
    ...JULIA,
    number: (value, digits) => `big"${digits ?? decimalText(decimalsOf(precision).fromDouble(value))}"`,
    constantDigits: (name) => constantDigits(name, precision),
    integers: 'beside doubles',
    counted: (counter, ahead) => `BigFloat(${shifted(counter, ahead)})`,
  };
}

/** How a program writes its own numbers: in doubles, or as BigFloat. */
interface OwnNumbers {
  readonly zero: string;
  readonly zeros: (size: number) => string;
  readonly read: string;
  /** A value that is printed with no more digits than a double has. */
  readonly short: (text: string) => string;
  readonly size: (parts: ProgramParts) => string;
}

const DOUBLES: OwnNumbers = {
  zero: '0.0',
  zeros: (size) => `zeros(${size})`,
  read: 'Float64',
  short: (text) => text,
  size: ({ h }) => `steps_for(${signedBy(JULIA)(h)})`,
};

const BIG: OwnNumbers = {
  zero: 'big"0"',
  zeros: (size) => `zeros(BigFloat, ${size})`,
  read: 'BigFloat',
  short: (text) => `Float64(${text})`,
  size: ({ h, steps, lastStep, isTyped }) =>
    lastStep === 'overrun' && isTyped ? `steps_for(big"${h}")` : `${steps}, (T_END - T_START)/${steps}`,
};

function ownNumbers({ decimal: precision }: ProgramParts): OwnNumbers {
  return precision === null ? DOUBLES : BIG;
}

const indented = indentedBy('    ');

/** A text between quotation marks, in which a dollar sign would put a value in. */
function quoted(text: string): string {
  return JSON.stringify(text).replaceAll('$', '\\$');
}

function lineText(line: CodeLine): readonly string[] {
  switch (line.kind) {
    case 'set':
      return [`${line.to} = ${line.value}`];
    case 'vector':
      return [`${line.to} = @. ${line.value}`];
    case 'routine':
      return [`${line.into} = ${line.name}(${line.inputs.join(', ')})`];
    case 'each':
      return [
        `for ${line.counter ?? 'j'} in ${line.from}:${line.below - 1}`,
        ...indented(line.body.flatMap(lineText)),
        'end',
      ];
    case 'repeat':
      return ['round = 0', 'while true', ...indented(['round += 1', ...line.body.flatMap(lineText)]), 'end'];
    case 'leave':
      return [`if ${line.when.map(holds).join(' && ')}`, '    break', 'end'];
    case 'fail':
      return [`${holds(line.unless)} || fail(${quoted(line.message)})`];
    case 'solve':
      return [`eliminate(matrix, right, ${line.unknowns}) || fail("Newton's method: singular Jacobian")`];
  }
}

function routine(head: string, lines: readonly string[]): readonly string[] {
  return [`function ${head}`, ...indented(lines), 'end', ''];
}

const scriptOf = ({ zero, zeros }: OwnNumbers): Script => ({
  comment: '#',
  constant: ({ name, value, note }) => `const ${name} = ${value}${note === null ? '' : `  # ${note}`}`,
  routine: ({ name, inputs, outputs }, lines) =>
    routine(`${name}(${inputs.join(', ')})`, [
      ...lines,
      `return ${outputs.map(({ value }) => value).join(', ')}`,
    ]),
  assign: (names, value) => `${names.join(', ')} = ${value}`,
  declare: (numbers, vectors) => [
    ...(numbers.length === 0 ? [] : [`local ${numbers.join(', ')}`]),
    ...vectors.map(([name, size]) => `${name} = ${zeros(size)}`),
  ],
  zeros: (size) => (size === 1 ? zero : zeros(size)),
  line: lineText,
  choose: (condition, yes, no) => [`if ${condition}`, ...indented(yes), 'else', ...indented(no), 'end'],
  invoke: JULIA.invoke,
});

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const ELIMINATE = routine('eliminate(m, r, n)', [
  'for i in 0:n-1',
  '    pivot = i',
  '    for k in i+1:n-1',
  '        if abs(m[k*n + i + 1]) > abs(m[pivot*n + i + 1])',
  '            pivot = k',
  '        end',
  '    end',
  '    head = m[pivot*n + i + 1]',
  '    0.0 < abs(head) < Inf || return false',
  '    if pivot != i',
  '        for k in i:n-1',
  '            m[pivot*n + k + 1], m[i*n + k + 1] = m[i*n + k + 1], m[pivot*n + k + 1]',
  '        end',
  '        r[pivot + 1], r[i + 1] = r[i + 1], r[pivot + 1]',
  '    end',
  '    for k in i+1:n-1',
  '        factor = m[k*n + i + 1]/head',
  '        factor == 0.0 && continue',
  '        for q in i+1:n-1',
  '            m[k*n + q + 1] -= factor*m[i*n + q + 1]',
  '        end',
  '        r[k + 1] -= factor*r[i + 1]',
  '    end',
  'end',
  'for i in n-1:-1:0',
  '    total = r[i + 1]',
  '    for k in i+1:n-1',
  '        total -= m[i*n + k + 1]*r[k + 1]',
  '    end',
  '    r[i + 1] = total/m[i*n + i + 1]',
  'end',
  'return true',
]);

const HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/\bmodulo\(/, ['modulo(x, y) = x - y*floor(x/y)', '']],
  [/\beliminate\(/, ELIMINATE],
];

/** The run: one row for every point, up to the first that is not finite. */
function runLines(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { step } = parts;
  const script = scriptOf(ownNumbers(parts));
  const finite = step.vectors.map((name) => `all(isfinite, ${name})`).join(' && ');
  const row = (n: string, t: string): string => `(${[n, t, ...components].join(', ')})`;
  return [
    '# the points of a run, one after the other: n, t, values; fewer where a value is not finite',
    ...routine('solve(h, steps)', [
      ...beginLines(script, parts),
      `rows = [${row('0', 'T_START')}]`,
      'for n in 0:steps-1',
      ...indented([
        't = T_START + n*h',
        'try',
        ...indented(advanceLines(script, parts)),
        'catch why',
        '    why isa DomainError || rethrow()',
        '    return rows',
        'end',
        `${finite} || return rows`,
        `push!(rows, ${row('n + 1', 'T_START + (n + 1)*h')})`,
      ]),
      'end',
      'return rows',
    ]),
    ...routine('fail(why)', ['println(stderr, why)', 'exit(1)']),
    '# ends the program where a run has ended early',
    ...routine('check(rows, steps)', [
      'n, t = rows[end]',
      'n < steps && fail("stops in step $(n + 1) from t = $t: not a finite number")',
      'return nothing',
    ]),
    ...routine('steps_for(h)', [
      'length = T_END - T_START',
      'quotient = length/h',
      'steps = max(1, floor(Int, quotient + 0.5))',
      'if abs(quotient - steps) > 1e-12*steps',
      ...indented(
        parts.lastStep === 'overrun'
          ? ['steps = ceil(Int, quotient)']
          : [
              'steps = max(1, floor(Int, quotient))',
              'if !(abs(length/steps - h) < abs(length/(steps + 1) - h))',
              '    steps += 1',
              'end',
              'h = length/steps',
            ],
      ),
      'end',
      'return steps, h',
    ]),
  ];
}

/** The error of a row, beside the exact solution, and the order between two step sizes. */
function errorLines(parts: ProgramParts): readonly string[] {
  const { exact, size } = parts;
  if (exact === null) return [];
  return [
    ...routine('error_at(row)', [
      'e = exact(row[2])',
      ...(size === 1
        ? ['return abs(row[3] - e)']
        : [
            `total = ${ownNumbers(parts).zero}`,
            `for k in 1:${size}`,
            '    total += (row[k + 2] - e[k])*(row[k + 2] - e[k])',
            'end',
            'return sqrt(total)',
          ]),
    ]),
    ...routine('order_of(last_h, last_error, h, error)', [
      'if last_h == h || !(last_error > 0.0 && error > 0.0)',
      '    return ""',
      'end',
      `return string(${ownNumbers(parts).short('log(last_error/error)/log(last_h/h)')})`,
    ]),
  ];
}

/** What the program prints: the rows of one run, or errors and orders for the step sizes it is given. */
function mainLines(parts: ProgramParts): readonly string[] {
  const { exact, steps, size, independent, components } = parts;
  const { read, size: sizeOf } = ownNumbers(parts);
  const header = (names: readonly string[]): string => quoted([...names, ...components].join(','));
  const shown = components.slice(0, MAX_PLOTTED);
  return [
    ...routine('main(sizes)', [
      'if isempty(sizes)',
      ...indented([
        `steps, h = ${sizeOf(parts)}  # N = ${steps}`,
        `println(${header(['n', independent])})`,
        'rows = solve(h, steps)',
        'for row in rows',
        "    println(join(row, ','))",
        'end',
        'check(rows, steps)',
        'return nothing',
      ]),
      'end',
      `println(${exact === null ? header(['h', 'N']) : '"h,N,error,order"'})`,
      ...(exact === null ? [] : ['last_h, last_error = 0.0, 0.0']),
      'for size in sizes',
      ...indented([
        'size > 0.0 || fail("$size is not a step size")',
        'steps, h = steps_for(size)',
        'rows = solve(h, steps)',
        'check(rows, steps)',
        ...(exact === null
          ? [`println(join((h, steps, rows[end][3:${size + 2}]...), ','))`]
          : [
              'error = error_at(rows[end])',
              "println(join((h, steps, error, order_of(last_h, last_error, h, error)), ','))",
              'last_h, last_error = h, error',
            ]),
      ]),
      'end',
    ]),
    'if abspath(PROGRAM_FILE) == @__FILE__',
    `    main(map(size -> parse(${read}, size), ARGS))`,
    'end',
    '',
    '# To draw the run with Plots, remove "# " at the head of these lines:',
    '# using Plots',
    `# count, size = ${sizeOf(parts)}`,
    '# points = solve(size, count)',
    `# values = [point[k] for point in points, k in 3:${shown.length + 2}]`,
    `# plot([point[2] for point in points], values; marker = :circle, label = [${shown.map(quoted).join(' ')}])`,
    '# gui()',
  ];
}

/** Bits of a binary number that has some decimal digits and a few more. */
function bitsFor(digits: number): number {
  return Math.ceil((digits + 1) * Math.log2(10));
}

/** A program in Julia that does what a run does. */
export function juliaProgram(parts: ProgramParts): string {
  const components = componentTexts(parts, JULIA.element);
  const script = scriptOf(ownNumbers(parts));
  const { decimal: precision } = parts;
  const all = [
    ...parts.constants.map(script.constant),
    '',
    ...problemRoutines(script, parts),
    ...stepRoutines(script, parts),
    ...runLines(parts, components),
    ...errorLines(parts),
    ...mainLines(parts),
  ];
  const text = all.join('\n');
  const notes = headNotes(parts, {
    before: [],
    rows: 'julia program.jl',
    sizes: 'julia program.jl H1 H2 ...',
    library: precision === null ? 'the library of Julia' : 'BigFloat',
    plot: null,
  });
  return `${[
    ...notes.map((line) => `# ${line}`.trimEnd()),
    '',
    ...(precision === null ? [] : [`setprecision(BigFloat, ${bitsFor(precision.digits)})`, '']),
    ...HELPERS.flatMap(([is, lines]) => (is.test(text) ? lines : [])),
    ...all,
  ].join('\n')}\n`;
}
