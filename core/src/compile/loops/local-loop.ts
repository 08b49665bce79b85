import type { Problem } from '../../problem/problem.ts';
import { CHECK_EVERY } from '../check-interval.ts';
import { nameNode, type CodeNode } from '../nodes/code-node.ts';
import { printed } from '../nodes/print.ts';
import { Scopes } from '../nodes/scopes.ts';
import { linesOf } from '../nodes/statement.ts';
import type { Precision } from '../precision.ts';
import { layOut } from '../../program/layout.ts';
import type { Program } from '../../program/program.ts';
import { NEWTON, stateShape } from '../../program/state.ts';
import type { GeneratedLoop } from './generated-loop.ts';
import { LocalVectors } from './local-vectors.ts';
import { StepLowering } from './step-lowering.ts';

/** What a loop is for: to go on, to show the stages of every step, or to watch for extremes. */
type Purpose = 'advance' | 'trace' | 'watch';

/** The code of one step, and the names around it. */
interface Step {
  readonly single: boolean;
  /** Before the loop over steps. */
  readonly before: readonly string[];
  readonly lines: readonly string[];
  readonly stages: readonly CodeNode[];
  readonly next: readonly CodeNode[];
  /** Present values. */
  readonly states: readonly string[];
  /** Values kept from earlier steps, the most recent first, with their places in the state. */
  readonly kept: readonly { readonly name: string; readonly place: number; readonly from: string }[];
  readonly newton: { readonly room: number; readonly place: number } | null;
}

/** Straight-line code for one step in a loop over steps: for problems of a few components. */
export function localLoop(problem: Problem, program: Program, precision: Precision): GeneratedLoop {
  const step = writeStep(problem, program, precision === 'single');
  return {
    advance: source(step, 'advance'),
    trace: () => source(step, 'trace'),
    watch: () => source(step, 'watch'),
    atOnce: 64 * CHECK_EVERY,
    stageWidth: step.stages.length,
    kernels: null,
  };
}

function writeStep(problem: Problem, program: Program, single: boolean): Step {
  const layout = layOut(problem, program);
  const shape = stateShape(problem, program, layout);
  const scopes = new Scopes({ pure: true, single, inlines: !single });
  const lowering = new StepLowering(program, scopes);
  const vectors = new LocalVectors({ problem, program, layout, scopes, lowering });
  const { present, kept, presentRhs } = program;
  const keptName = (k: number, j: number): string => `q${k}_${j}`;
  const components = Array.from({ length: layout.width }, (_, j) => j);
  present.forEach((register, i) =>
    vectors.set(
      register,
      (layout.places[i] ?? []).map((place) => nameNode(`y${place}`)),
    ),
  );
  kept.forEach(({ register }, k) =>
    vectors.set(
      register,
      components.map((j) => nameNode(keptName(k, j))),
    ),
  );
  lowering.step(vectors);
  const made = program.next.map((register) => vectors.pieces(register));
  const next = layout.of.map(({ vector, index }) => made[vector]?.[index] ?? nameNode('NaN'));
  const newest = kept.map(({ of }) =>
    vectors.pieces(of === 'f' ? presentRhs! : present[of === 'v' ? 1 : 0]!),
  );
  return {
    single,
    before: linesOf(scopes.before),
    lines: linesOf(scopes.statements),
    stages: program.stages.flatMap(({ register }) => vectors.pieces(register)),
    next,
    states: next.map((_, j) => `y${j}`),
    kept: kept.flatMap(({ back }, k) =>
      components.map((j) => {
        const own = newest[k]?.[j];
        return {
          name: keptName(k, j),
          place: shape.kept + k * layout.width + j,
          from: back > 1 ? keptName(k - 1, j) : own === undefined ? 'NaN' : printed(own),
        };
      }),
    ),
    newton:
      lowering.solves === 0 ? null : { room: vectors.solveRoom, place: shape.newton + NEWTON.iterations },
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

function source(step: Step, purpose: Purpose): string {
  const { single, states, kept, newton } = step;
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
    `return function (S, origin, h${single ? '64' : ''}, first, count${purpose === 'advance' ? '' : ', OUT'}) {`,
    ...(single ? ['const h = F(h64);'] : []),
    ...step.before,
    ...states.map(load),
    ...kept.map(({ name, place }) => load(name, place)),
    ...(newton === null ? [] : [`let iterations = S[${newton.place}];`]),
    'const last = first + count;',
    ...(purpose === 'trace' ? ['let at = 0;'] : []),
    ...(purpose === 'watch' ? WATCH.before(states) : []),
    ...loopHead(purpose),
    single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
    ...step.lines,
    ...(purpose === 'trace' ? step.stages.map((piece) => `OUT[at++] = ${printed(piece)};`) : []),
    ...step.next.map((piece, j) => `const w${j} = ${printed(piece)};`),
    ...kept.map(({ name, from }) => `${name} = ${from};`).reverse(),
    ...states.map((name, j) => `${name} = w${j};`),
    ...(purpose === 'watch' ? WATCH.step(states) : []),
    ...loopTail(purpose, states),
    ...(purpose === 'watch' ? WATCH.after(states) : []),
    ...states.map((name, j) => `S[${j}] = ${name};`),
    ...kept.map(({ name, place }) => `S[${place}] = ${name};`),
    ...(newton === null ? [] : [`S[${newton.place}] = iterations;`]),
    '};',
    '})()',
  ].join('\n');
}
