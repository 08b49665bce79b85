import { atom } from '../../formula/printer.ts';
import { headNotes } from './notes.ts';
import { JAVASCRIPT_WORDS } from './reserved-words.ts';
import { type Assignments, componentTexts, pointNames } from './routines.ts';
import {
  advanceLines,
  beginLines,
  holds,
  indentedBy,
  problemRoutines,
  type Script,
  stepRoutines,
} from './scripted.ts';
import { BY_NAME, LIKE_C, shifted } from './writing-parts.ts';
import type { CodeLine, ProgramParts, Writing } from './language.ts';
import { signedBy } from './signed.ts';

/** How the language writes the parts of a formula. */
export const JAVASCRIPT: Writing = {
  ...LIKE_C,
  ...BY_NAME,
  reserved: JAVASCRIPT_WORDS,
  number: String,
  integers: 'as numbers',
  isWhole: false,
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
const indented = indentedBy('  ');

function lineText(line: CodeLine, how: Assignments): readonly string[] {
  const set = (to: string): string => (how.once.has(to) ? `const ${to}` : to);
  switch (line.kind) {
    case 'set':
      return [`${set(line.to)} = ${line.value};`];
    case 'vector':
      return [`${set(line.to)} = Array.from({ length: ${line.width} }, (_, j) => ${line.value});`];
    case 'routine':
      return [`${set(line.into)} = ${line.name}(${line.inputs.join(', ')});`];
    case 'each': {
      const body = line.body.flatMap((inner) => lineText(inner, how));
      const [only] = body;
      const counter = line.counter ?? 'j';
      const head = `for (let ${counter} = ${line.from}; ${counter} < ${line.below}; ${counter}++)`;
      return body.length === 1 ? [`${head} ${only ?? ''}`] : [`${head} {`, ...indented(body), '}'];
    }
    case 'repeat':
      return [
        'for (let round = 1; ; round++) {',
        ...indented(line.body.flatMap((inner) => lineText(inner, how))),
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

function routine(head: string, lines: readonly string[]): readonly string[] {
  return [`function ${head} {`, ...indented(lines), '}', ''];
}

function listed(names: readonly string[]): string {
  return names.length === 1 ? (names[0] ?? '') : `[${names.join(', ')}]`;
}

const SCRIPT: Script = {
  comment: '//',
  constant: ({ name, value, note }) => `const ${name} = ${value};${note === null ? '' : ` // ${note}`}`,
  routine: ({ name, inputs, outputs }, lines) =>
    routine(`${name}(${inputs.join(', ')})`, [
      ...lines,
      `return ${listed(outputs.map(({ value }) => value))};`,
    ]),
  assign: (names, value, isNew) => `${isNew ? 'let ' : ''}${listed(names)} = ${value};`,
  declare: (numbers, vectors) => [
    ...(numbers.length === 0 ? [] : [`let ${numbers.join(', ')};`]),
    ...vectors.map(([name, size]) => `let ${name} = new Array(${size}).fill(0);`),
  ],
  zeros: (size) => (size === 1 ? '0' : `new Array(${size}).fill(0)`),
  line: lineText,
  choose: (condition, yes, no) => [`if (${condition}) {`, ...indented(yes), '} else {', ...indented(no), '}'],
  invoke: JAVASCRIPT.invoke,
};

/** Elimination with partial pivoting; the order of its operations is that of a run. */
const ELIMINATE = [
  'function eliminate(m, r, n) {',
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
  '    let total = r[i];',
  '    for (let k = i + 1; k < n; k++) total -= m[i*n + k]*r[k];',
  '    r[i] = total/m[i*n + i];',
  '  }',
  '  return true;',
  '}',
  '',
];

const HELPERS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/\bmod\(/, ['function mod(x, y) { return x - y*Math.floor(x/y); }', '']],
  [/\bfail\(/, ['function fail(why) {', '  console.error(why);', '  process.exit(1);', '}', '']],
  [/\beliminate\(/, ELIMINATE],
];

/** The run from point to point, and its end where a value is not finite. */
function runLines(parts: ProgramParts): readonly string[] {
  const { width, step } = parts;
  const own = step.vectors.join(', ');
  const finite =
    width > 1
      ? step.vectors.map((name) => `${name}.every(Number.isFinite)`)
      : step.vectors.map((name) => `Number.isFinite(${name})`);
  return [
    `// the points of a run, one after the other: n, t, ${own}`,
    ...routine('*solve(h, steps)', [
      ...beginLines(SCRIPT, parts),
      `yield [0, T_START, ${own}];`,
      'for (let n = 0; n < steps; n++) {',
      ...indented([
        'const t = T_START + n*h;',
        ...advanceLines(SCRIPT, parts),
        `if (!(${finite.join(' && ')})) stop(n, t);`,
        `yield [n + 1, T_START + (n + 1)*h, ${own}];`,
      ]),
      '}',
    ]),
    ...routine('stop(n, t)', [
      'console.error(`stops in step ${n + 1} from t = ${t}: not a finite number`);',
      'process.exit(1);',
    ]),
    ...routine('stepsFor(h)', [
      'const length = T_END - T_START, quotient = length/h;',
      'let steps = Math.max(1, Math.floor(quotient + 0.5));',
      'if (Math.abs(quotient - steps) <= 1e-12*steps) return { steps, h };',
      ...(parts.lastStep === 'overrun'
        ? ['return { steps: Math.ceil(quotient), h };']
        : [
            'steps = Math.max(1, Math.floor(quotient));',
            'if (!(Math.abs(length/steps - h) < Math.abs(length/(steps + 1) - h))) steps++;',
            'return { steps, h: length/steps };',
          ]),
    ]),
  ];
}

/** The error of a point, beside the exact solution, and the order between two of them. */
function errorLines({ exact, size, step }: ProgramParts, components: readonly string[]): readonly string[] {
  if (exact === null) return [];
  return [
    ...routine(
      `errorAt(t, ${step.vectors.join(', ')})`,
      size === 1
        ? [`return Math.abs(${components[0] ?? ''} - exact(t));`]
        : [
            'const e = exact(t);',
            'let total = 0;',
            ...components.map((name, p) => `total += (${name} - e[${p}])*(${name} - e[${p}]);`),
            'return Math.sqrt(total);',
          ],
    ),
    ...routine('orderOf(last, h, error)', [
      "if (last === null || last.h === h || !(last.error > 0 && error > 0)) return '';",
      'return (Math.log(last.error/error)/Math.log(last.h/h)).toFixed(6);',
    ]),
  ];
}

/** What the program prints: the rows of one run, or errors and orders for the step sizes it is given. */
function mainLines(parts: ProgramParts, components: readonly string[]): readonly string[] {
  const { exact, steps, h, independent, step, components: names } = parts;
  const values = components.map((name) => `\${digits(${name})}`).join(',');
  const point = `[${pointNames(parts).join(', ')}]`;
  return [
    ...routine('digits(x)', ['return Number.isFinite(x) ? x.toExponential(16) : String(x);']),
    ...routine('main(sizes)', [
      'if (sizes.length === 0) {',
      ...indented([
        `const { steps, h } = stepsFor(${signed(h)}); // N = ${steps}`,
        `console.log(${JSON.stringify(['n', independent, ...names].join(','))});`,
        `for (const ${point} of solve(h, steps)) console.log(\`\${n},\${digits(t)},${values}\`);`,
        'return;',
      ]),
      '}',
      `console.log(${exact === null ? JSON.stringify(['h', 'N', ...names].join(',')) : "'h,N,error,order'"});`,
      ...(exact === null ? [] : ['let last = null;']),
      'for (const size of sizes) {',
      ...indented([
        'if (!(size > 0)) { console.error(`${size} is not a step size`); process.exit(1); }',
        'const { steps, h } = stepsFor(size);',
        `for (const ${point} of solve(h, steps)) {`,
        '  if (n < steps) continue;',
        ...(exact === null
          ? [`  console.log(\`\${digits(h)},\${steps},${values}\`);`]
          : [
              `  const error = errorAt(t, ${step.vectors.join(', ')});`,
              '  console.log(`${digits(h)},${steps},${digits(error)},${orderOf(last, h, error)}`);',
              '  last = { h, error };',
            ]),
        '}',
      ]),
      '}',
    ]),
    'if (require.main === module) main(process.argv.slice(2).map(Number));',
  ];
}

/** A program in JavaScript that does what a run does, for node. */
export function jsProgram(parts: ProgramParts): string {
  const components = componentTexts(parts, JAVASCRIPT.element);
  const all = [
    ...parts.constants.map(SCRIPT.constant),
    '',
    ...problemRoutines(SCRIPT, parts),
    ...stepRoutines(SCRIPT, parts),
    ...runLines(parts),
    ...errorLines(parts, components),
    ...mainLines(parts, components),
  ];
  const text = all.join('\n');
  const notes = headNotes(parts, {
    before: [],
    rows: 'node program.js',
    sizes: 'node program.js H1 H2 ...',
    library: 'JavaScript',
    plot: 'gnuplot',
  });
  return `${[
    '/*',
    ...notes.map((line) => ` * ${line.replaceAll('*/', '* /')}`.trimEnd()),
    ' */',
    "'use strict';",
    '',
    ...HELPERS.flatMap(([is, lines]) => (is.test(text) ? lines : [])),
    ...all,
  ].join('\n')}\n`;
}
