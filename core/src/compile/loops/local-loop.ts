import type { Problem } from '../../problem/problem.ts';
import { CHECK_EVERY } from '../check-interval.ts';
import { printed } from '../nodes/print.ts';
import { Scopes } from '../nodes/scopes.ts';
import type { BinaryPrecision } from '../precision.ts';
import type { Program } from '../../program/program.ts';
import { doubleWriting } from './double-writing.ts';
import type { GeneratedLoop } from './generated-loop.ts';
import { type LocalStep, writeLocalStep } from './local-step.ts';

/** What a loop is for: to go on, to show the stages or the values of every step, or to watch for extremes. */
type Purpose = 'advance' | 'trace' | 'watch' | 'rows';

/** Straight-line code for one step in a loop over steps: for problems of a few components. */
export function localLoop(problem: Problem, program: Program, precision: BinaryPrecision): GeneratedLoop {
  const single = precision === 'single';
  const scopes = new Scopes({ pure: true, arithmetic: precision, inlines: !single });
  const step = writeLocalStep(problem, program, { scopes, writing: doubleWriting(single) });
  return {
    advance: source(step, 'advance', single),
    trace: () => source(step, 'trace', single),
    watch: () => source(step, 'watch', single),
    rows: () => source(step, 'rows', single),
    atOnce: 64 * CHECK_EVERY,
    stageWidth: step.stages.length,
    parameters: scopes.parameters,
    kernels: null,
  };
}

/** The loop over steps, with looks at whether it is still within the numbers where nobody else looks. */
function loopHead(purpose: Purpose): readonly string[] {
  if (purpose !== 'advance') return ['for (let n = first; n < last; n++) {'];
  return [
    'for (let n = first; n < last;) {',
    `const look = Math.min(last, n + ${CHECK_EVERY});`,
    'for (; n < look; n++) {',
  ];
}

function loopTail(purpose: Purpose, states: readonly string[]): readonly string[] {
  if (purpose !== 'advance') return ['}'];
  return ['}', `if (!(${states.map((name) => `${name} - ${name} === 0`).join(' && ')})) break;`, '}'];
}

/** Smallest and largest value of every component, with their grid points. */
const WATCH = {
  before: (states: readonly string[]): readonly string[] =>
    states.map((_, j) => `let a${j} = Infinity, b${j} = 0, c${j} = -Infinity, d${j} = 0;`),
  step: (states: readonly string[]): readonly string[] =>
    states.map(
      (name, j) =>
        `if (${name} < a${j}) { a${j} = ${name}; b${j} = n + 1; } if (${name} > c${j}) { c${j} = ${name}; d${j} = n + 1; }`,
    ),
  after: (states: readonly string[]): readonly string[] =>
    states.flatMap((_, j) => ['a', 'b', 'c', 'd'].map((name, i) => `OUT[${4 * j + i}] = ${name}${j};`)),
};

function source(step: LocalStep, purpose: Purpose, single: boolean): string {
  const { states, kept, newton } = step;
  const load = (name: string, at: number): string => `let ${name} = ${single ? `F(S[${at}])` : `S[${at}]`};`;
  return [
    '(function () {',
    ...(newton === null
      ? []
      : [
          `const M = new Float64Array(${newton.room ** 2});`,
          `const R = new Float64Array(${newton.room});`,
          `const D = new Float64Array(${newton.room});`,
          `const Q = new Float64Array(${3 * newton.room});`,
        ]),
    `return function (S, origin, h, first, count${purpose === 'advance' ? '' : ', OUT'}) {`,
    // or an engine looks in every step whether they are whole numbers
    `origin = +origin; h = ${single ? 'F(h)' : '+h'};`,
    ...step.before,
    ...states.map(load),
    ...kept.map(({ name, place }) => load(name, place)),
    ...(newton === null ? [] : [`let iterations = S[${newton.place}];`]),
    'const last = first + count;',
    ...(purpose === 'trace' || purpose === 'rows' ? ['let at = 0;'] : []),
    ...(purpose === 'watch' ? WATCH.before(states) : []),
    ...loopHead(purpose),
    single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
    ...step.lines,
    ...(purpose === 'trace' ? step.stages.map((piece) => `OUT[at++] = ${printed(piece)};`) : []),
    ...step.next.map((piece, j) => `const w${j} = ${printed(piece)};`),
    ...kept.map(({ name, from }) => `${name} = ${from};`).reverse(),
    ...states.map((name, j) => `${name} = w${j};`),
    ...(purpose === 'watch' ? WATCH.step(states) : []),
    ...(purpose === 'rows' ? states.map((name) => `OUT[at++] = ${name};`) : []),
    ...loopTail(purpose, states),
    ...(purpose === 'watch' ? WATCH.after(states) : []),
    ...states.map((name, j) => `S[${j}] = ${name};`),
    ...kept.map(({ name, place }) => `S[${place}] = ${name};`),
    ...(newton === null ? [] : [`S[${newton.place}] = iterations;`]),
    '};',
    '})()',
  ].join('\n');
}
