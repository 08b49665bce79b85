import { atom } from '../../formula/printer.ts';
import type { Relation } from '../../formula/expression.ts';
import { headNotes, MAX_PLOTTED } from './notes.ts';
import { MATLAB_WORDS } from './reserved-words.ts';
import { componentTexts } from './routines.ts';
import {
  advanceLines,
  beginLines,
  indentedBy,
  problemRoutines,
  type Script,
  stepRoutines,
} from './scripted.ts';
import { countedFromOne, nested, shifted } from './writing-parts.ts';
import type { CodeLine, Condition, ProgramParts, Writing } from './language.ts';
import { signedBy } from './signed.ts';

const RELATIONS: Readonly<Record<Relation, string>> = {
  '<': '<',
  '<=': '<=',
  '>': '>',
  '>=': '>=',
  '==': '==',
  '!=': '~=',
};

/** Functions under other names; those that would become complex end the run instead. */
const MATLAB_NAMES: Readonly<Record<string, string>> = {
  ln: 'reallog',
  sqrt: 'realsqrt',
  mod: 'modulo',
  cbrt: 'cube_root',
};
const BECOMES_COMPLEX: ReadonlySet<string> = new Set(['asin', 'acos', 'log10', 'log2']);

/** How the language writes the parts of a formula. */
export const MATLAB: Writing = {
  ...countedFromOne((vector, index) => `${vector}(${index})`),
  reserved: MATLAB_WORDS,
  number: String,
  integers: 'as numbers',
  isWhole: true,
  power: (base, exponent) => atom(`realpow(${base}, ${exponent})`),
  call: (name, inputs) => {
    if (name === 'min' || name === 'max') return nested(name, inputs);
    const call = `${MATLAB_NAMES[name] ?? name}(${inputs.join(', ')})`;
    return BECOMES_COMPLEX.has(name) ? `real_only(${call})` : call;
  },
  choice: ({ left, relation, right, yes, no }) =>
    `pick(${left} ${RELATIONS[relation]} ${right}, @() ${yes}, @() ${no})`,
  counted: (counter, ahead) => (ahead === 0 ? counter : `(${shifted(counter, ahead)})`),
  constant: (name) => `p.${name}`,
  invoke: (name, inputs) => `${name}(${[...inputs, 'p'].join(', ')})`,
};

const signed = signedBy(MATLAB);
const indented = indentedBy('  ');

function quoted(text: string): string {
  return `'${text.replaceAll("'", "''")}'`;
}

function holds({ left, relation, right }: Condition): string {
  return `${left} ${RELATIONS[relation]} ${right}`;
}

function lineText(line: CodeLine): readonly string[] {
  switch (line.kind) {
    case 'set':
    case 'vector':
      return [`${line.to} = ${line.value};`];
    case 'routine':
      return [`${line.into} = ${MATLAB.invoke(line.name, line.inputs)};`];
    case 'each':
      return [
        `for ${line.counter ?? 'j'} = ${line.from}:${line.below - 1}`,
        ...indented(line.body.flatMap(lineText)),
        'end',
      ];
    case 'repeat':
      return [
        'round = 0;',
        'while true',
        ...indented(['round = round + 1;', ...line.body.flatMap(lineText)]),
        'end',
      ];
    case 'leave':
      return [`if ${line.when.map(holds).join(' && ')}, break; end`];
    case 'fail':
      return [`if ~(${holds(line.unless)}), error('schritt:newton', ${quoted(line.message)}); end`];
    case 'solve':
      return [
        `[right, ok] = eliminate(matrix, right, ${line.unknowns});`,
        "if ~ok, error('schritt:newton', 'Newton''s method: singular Jacobian'); end",
      ];
  }
}

function routine(head: string, lines: readonly string[]): readonly string[] {
  return [`function ${head}`, ...indented(lines), 'end', ''];
}

function listed(names: readonly string[]): string {
  return names.length === 1 ? (names[0] ?? '') : `[${names.join(', ')}]`;
}

const SCRIPT: Script = {
  comment: '%',
  constant: ({ name, value, note }) => `p.${name} = ${value};${note === null ? '' : ` % ${note}`}`,
  routine: ({ name, inputs, outputs }, lines) =>
    routine(`${listed(outputs.map((output) => output.name))} = ${MATLAB.invoke(name, inputs)}`, [
      ...lines,
      ...outputs.flatMap((output) =>
        output.name === output.value ? [] : [`${output.name} = ${output.value};`],
      ),
    ]),
  assign: (names, value) => `${listed(names)} = ${value};`,
  declare: (_, vectors) => vectors.map(([name, size]) => `${name} = zeros(${size}, 1);`),
  zeros: (size) => (size === 1 ? '0' : `zeros(${size}, 1)`),
  line: lineText,
  choose: (condition, yes, no) => [`if ${condition}`, ...indented(yes), 'else', ...indented(no), 'end'],
  invoke: MATLAB.invoke,
};

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const ELIMINATE = routine('[r, ok] = eliminate(m, r, n)', [
  'ok = false;',
  'for i = 0:n - 1',
  '  pivot = i;',
  '  for k = i + 1:n - 1',
  '    if abs(m(k*n + i + 1)) > abs(m(pivot*n + i + 1)), pivot = k; end',
  '  end',
  '  head = m(pivot*n + i + 1);',
  '  if ~(abs(head) > 0) || ~(abs(head) < Inf), return; end',
  '  if pivot ~= i',
  '    k = i:n - 1;',
  '    other = m(pivot*n + k + 1);',
  '    m(pivot*n + k + 1) = m(i*n + k + 1);',
  '    m(i*n + k + 1) = other;',
  '    r([pivot + 1, i + 1]) = r([i + 1, pivot + 1]);',
  '  end',
  '  for k = i + 1:n - 1',
  '    factor = m(k*n + i + 1)/head;',
  '    if factor == 0, continue; end',
  '    for q = i + 1:n - 1',
  '      m(k*n + q + 1) = m(k*n + q + 1) - factor*m(i*n + q + 1);',
  '    end',
  '    r(k + 1) = r(k + 1) - factor*r(i + 1);',
  '  end',
  'end',
  'for i = n - 1:-1:0',
  '  total = r(i + 1);',
  '  for k = i + 1:n - 1',
  '    total = total - m(i*n + k + 1)*r(k + 1);',
  '  end',
  '  r(i + 1) = total/m(i*n + i + 1);',
  'end',
  'ok = true;',
]);

const HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/\bpick\(/, routine('r = pick(condition, yes, no)', ['if condition, r = yes(); else, r = no(); end'])],
  [
    /\breal_only\(/,
    routine('x = real_only(x)', ["if ~isreal(x), error('schritt:complex', 'not a real number'); end"]),
  ],
  [/\bmodulo\(/, routine('r = modulo(x, y)', ['r = x - y*floor(x/y);'])],
  [/\bcube_root\(/, routine('r = cube_root(x)', ['r = sign(x)*abs(x)^(1/3);'])],
  [/\beliminate\(/, ELIMINATE],
];

/** The run: one row for every point, up to the first that is not finite. */
function runLines(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { step, size } = parts;
  const finite = step.vectors.map((name) => `all(isfinite(${name}))`).join(' && ');
  const row = (n: string, t: string): string => `[${[n, t, ...components].join(', ')}]`;
  return [
    '% the points of a run, one in each row: n, t, values; fewer rows where a value is not finite',
    ...routine('rows = solve(h, steps, p)', [
      `rows = zeros(steps + 1, ${size + 2});`,
      ...beginLines(SCRIPT, parts),
      `rows(1, :) = ${row('0', 'p.T_START')};`,
      'for n = 0:steps - 1',
      ...indented([
        't = p.T_START + n*h;',
        'try',
        ...indented(advanceLines(SCRIPT, parts)),
        'catch why',
        "  if strcmp(why.identifier, 'schritt:newton'), rethrow(why); end",
        '  rows = rows(1:n + 1, :);',
        '  return;',
        'end',
        `if ~(${finite})`,
        '  rows = rows(1:n + 1, :);',
        '  return;',
        'end',
        `rows(n + 2, :) = ${row('n + 1', 'p.T_START + (n + 1)*h')};`,
      ]),
      'end',
    ]),
    '% ends the program where a run has ended early',
    ...routine('check(rows, steps)', [
      'n = size(rows, 1);',
      'if n <= steps',
      "  error('stops in step %d from t = %.6g: not a finite number', n, rows(n, 2));",
      'end',
    ]),
    ...routine('[steps, h] = steps_for(h, p)', [
      'length = p.T_END - p.T_START;',
      'quotient = length/h;',
      'steps = max(1, floor(quotient + 0.5));',
      'if abs(quotient - steps) > 1e-12*steps',
      ...indented(
        parts.lastStep === 'overrun'
          ? ['steps = ceil(quotient);']
          : [
              'steps = max(1, floor(quotient));',
              'if ~(abs(length/steps - h) < abs(length/(steps + 1) - h)), steps = steps + 1; end',
              'h = length/steps;',
            ],
      ),
      'end',
    ]),
  ];
}

/** The error of a row, beside the exact solution, and the order between two step sizes. */
function errorLines({ exact, size }: ProgramParts): readonly string[] {
  if (exact === null) return [];
  return [
    ...routine('r = error_at(row, p)', [
      'e = exact(row(2), p);',
      ...(size === 1
        ? ['r = abs(row(3) - e);']
        : [
            'r = 0;',
            `for k = 1:${size}`,
            '  r = r + (row(k + 2) - e(k))*(row(k + 2) - e(k));',
            'end',
            'r = realsqrt(r);',
          ]),
    ]),
    ...routine('order = order_of(last_h, last_error, h, error)', [
      "order = '';",
      'if last_h ~= h && last_error > 0 && error > 0',
      "  order = sprintf('%.6f', log(last_error/error)/log(last_h/h));",
      'end',
    ]),
  ];
}

/** What the program prints: the rows of one run, or errors and orders for the step sizes it is given. */
function mainLines({ exact, steps, h, size, independent, components }: ProgramParts): readonly string[] {
  const header = (names: readonly string[]): string => quoted([...names, ...components].join(','));
  const numbers = ',%.17g'.repeat(size);
  const shown = components.slice(0, MAX_PLOTTED);
  const columns = shown.length === 1 ? '3' : `3:${shown.length + 2}`;
  return routine('program(varargin)', [
    'p = parameters();',
    'if nargin == 0',
    ...indented([
      `[steps, h] = steps_for(${signed(h)}, p); % N = ${steps}`,
      'rows = solve(h, steps, p);',
      `fprintf('%s\\n', ${header(['n', independent])});`,
      `fprintf('%d,%.17g${numbers}\\n', rows');`,
      'check(rows, steps);',
      '% To draw the run, remove the first % of these lines:',
      `% plot(rows(:, 2), rows(:, ${columns}), 'o-');`,
      `% legend(${shown.map(quoted).join(', ')});`,
      'return;',
    ]),
    'end',
    `fprintf('%s\\n', ${exact === null ? header(['h', 'N']) : "'h,N,error,order'"});`,
    ...(exact === null ? [] : ['last_h = 0;', 'last_error = 0;']),
    'for k = 1:nargin',
    ...indented([
      'h = varargin{k};',
      "if ~(h > 0), error('%g is not a step size', h); end",
      '[steps, h] = steps_for(h, p);',
      'rows = solve(h, steps, p);',
      'check(rows, steps);',
      ...(exact === null
        ? [`fprintf('%.17g,%d${numbers}\\n', h, steps, rows(end, 3:end));`]
        : [
            'err = error_at(rows(end, :), p);',
            "fprintf('%.17g,%d,%.17g,%s\\n', h, steps, err, order_of(last_h, last_error, h, err));",
            'last_h = h;',
            'last_error = err;',
          ]),
    ]),
    'end',
  ]);
}

/** A program for MATLAB and Octave that does what a run does. */
export function matlabProgram(parts: ProgramParts): string {
  const components = componentTexts(parts, MATLAB.element);
  const routines = [
    ...routine('p = parameters()', parts.constants.map(SCRIPT.constant)),
    ...problemRoutines(SCRIPT, parts),
    ...stepRoutines(SCRIPT, parts),
    ...runLines(parts, components),
    ...errorLines(parts),
  ];
  const text = routines.join('\n');
  const notes = headNotes(parts, {
    before: ['Save it as program.m. In MATLAB: program, or program(H1, H2, ...). In a terminal:'],
    rows: 'octave --eval "program"',
    sizes: 'octave --eval "program(H1, H2)"',
    library: 'the library of MATLAB or Octave',
    plot: null,
  });
  return [
    ...notes.map((line) => `% ${line}`.trimEnd()),
    ...mainLines(parts),
    ...routines,
    ...HELPERS.flatMap(([is, lines]) => (is.test(text) ? lines : [])),
  ].join('\n');
}
