import type { StudyDocument } from '../src/document/document.ts';
import { LIBRARY } from '../src/method/library/library.ts';
import type { Random } from '../src/elementary/random.ts';
import { between, oneOf } from './random-choice.ts';

type At = NonNullable<NonNullable<StudyDocument['error']>['at']>;

/** A study that is made to be judged wrongly, with what is known of it. */
export interface HardStudy {
  readonly document: StudyDocument;
  /** What makes it hard. */
  readonly hard: Hardship;
}

/** What a hardship makes of a study; what it leaves out is chosen at random. */
interface Hard {
  readonly problem: string;
  readonly ladder?: StudyDocument['ladder'];
  readonly methods?: StudyDocument['methods'];
  readonly error?: StudyDocument['error'];
  readonly more?: Pick<StudyDocument, 'precision' | 'rounding' | 'lastStep' | 'start'>;
  /** Only methods that need no system of equations, which is long for many steps. */
  readonly isExplicit?: boolean;
}

function doubling(first: number, rungs: number): StudyDocument['ladder'] {
  return { counts: Array.from({ length: rungs }, (_, i) => first * 2 ** i) };
}

/** A smooth problem with a known solution, that begins at a time. */
function smooth(random: Random, from = 0): string {
  const c = between(random, 0.5, 2);
  const t = from === 0 ? 't' : `(t - ${from})`;
  const interval = (length: number): string => `${from} <= t <= ${from + length}`;
  return oneOf(random, [
    `y' = -${c}*y\ny(${from}) = 1\n${interval(1)}\ny(t) = exp(-${c}*${t})`,
    `y' = y*(1 - y)\ny(${from}) = 0.25\n${interval(2)}\ny(t) = 1/(1 + 3*exp(-${t}))`,
    `y' = -${c}*y^2\ny(${from}) = 1\n${interval(2)}\ny(t) = 1/(1 + ${c}*${t})`,
    `y' = -2*${t}*y^2\ny(${from}) = 1\n${interval(1)}\ny(t) = 1/(1 + ${t}^2)`,
  ]);
}

/** A solution that is zero on its way, or begins at zero. */
function crossing(random: Random): string {
  const c = between(random, 1, 3);
  return oneOf(random, [
    `y' = cos(${c}*t)\ny(0) = 0\n0 <= t <= 2\ny(t) = sin(${c}*t)/${c}`,
    `y' = -y + ${c}*t\ny(0) = ${c}\n0 <= t <= 2\ny(t) = ${c}*(t - 1) + 2*${c}*exp(-t)`,
    `x' = v\nv' = -${c}^2*x\nx(0) = 1\nv(0) = 0\n0 <= t <= 2\nx(t) = cos(${c}*t)\nv(t) = -${c}*sin(${c}*t)`,
  ]);
}

function kinked(random: Random, from = 0): string {
  const [at, c] = [between(random, 0.3, 0.7), between(random, 0.5, 2)];
  return oneOf(random, [
    `y' = abs(t - ${from} - ${at}) - y\ny(${from}) = 1\n${from} <= t <= ${from + 1}`,
    `y' = if(t - ${from} < ${at}, ${c}, 3) - y\ny(${from}) = 1\n${from} <= t <= ${from + 1}`,
    `y' = max(0, t - ${from} - ${at})*${c} - y/2\ny(${from}) = 1\n${from} <= t <= ${from + 1}`,
  ]);
}

/** Adams-Bashforth methods with a starting method that is not good enough. */
const STARTED = ['Adams-Bashforth 3', 'Adams-Bashforth 4', 'Adams-Bashforth 5'];
const EULER = 'y[n+1] = y + h*f(t, y)';

function fromLibrary(title: string): StudyDocument['methods'][number] {
  return { title, text: LIBRARY.find((entry) => entry.title === title)!.text };
}

const HARDSHIPS = {
  floor: (random) => ({ problem: smooth(random), ladder: doubling(8, 9), isExplicit: true }),
  growth: (random) => {
    const c = 5 + 3 * between(random, 0.5, 2);
    return {
      problem: `y' = ${c}*(y - 1/(1 + t)) - 1/(1 + t)^2\ny(0) = 1\n0 <= t <= 2\ny(t) = 1/(1 + t)`,
      ladder: doubling(8, 8),
      isExplicit: true,
    };
  },
  stiff: (random) => {
    const [c, first] = [20 * between(random, 0.5, 2), random() < 0.5 ? 1 : 0.5];
    return { problem: `p' = -${c}*(p - cos(t)) - sin(t)\np(0) = ${first}\n0 <= t <= 1.5` };
  },
  oscillation: (random) => {
    const c = 20 * between(random, 0.5, 2);
    return {
      problem: `x' = ${c}*v\nv' = -${c}*x\nx(0) = 1\nv(0) = 0\n0 <= t <= 1\nx(t) = cos(${c}*t)\nv(t) = -sin(${c}*t)`,
    };
  },
  kink: (random) => ({ problem: kinked(random) }),
  coarse: (random) => ({
    problem: smooth(random),
    ladder: { counts: [1, 2, 3, 4, 5, 6, 8].slice(0, 4 + Math.floor(4 * random())) },
  }),
  slip: (random) => {
    const [title, text] = oneOf(random, SLIPS);
    return { problem: smooth(random), methods: [{ title, text }] };
  },
  far: (random) => {
    const c = between(random, 0.5, 2);
    return { problem: `y' = -${c}*y + t - 100000\ny(100000) = 1\n100000 <= t <= 100002` };
  },
  year: (random) => {
    const from = oneOf(random, [1000, 2024]);
    const c = between(random, 1, 3);
    return {
      problem: oneOf(random, [
        smooth(random, from),
        kinked(random, from),
        `y' = cos(${c}*(t - ${from}))\ny(${from}) = 0\n${from} <= t <= ${from + 2}\ny(t) = sin(${c}*(t - ${from}))/${c}`,
      ]),
      error: { at: oneOf<At>(random, ['end', 'max', { t: from + 0.4 }]), of: 'y', scale: 'absolute' },
    };
  },
  single: (random) => ({ problem: smooth(random), ladder: doubling(4, 8), more: { precision: 'single' } }),
  relative: (random) => ({
    problem: crossing(random),
    error: { at: oneOf<At>(random, ['end', 'max', 'rms']), of: 'norm', scale: 'relative' },
  }),
  mean: (random) => ({ problem: crossing(random), error: { at: 'rms', of: 'norm', scale: 'absolute' } }),
  irregular: (random) => ({
    problem: oneOf(random, [smooth, crossing])(random),
    ladder: { sizes: [0.3, 0.17, 0.11, 0.07, 0.05, 0.03].slice(0, 3 + Math.floor(4 * random())) },
    more: { lastStep: oneOf(random, ['fit', 'shorten', 'overrun'] as const) },
  }),
  starter: (random) => ({
    problem: smooth(random),
    methods: [fromLibrary(oneOf(random, STARTED)), { title: 'Euler', text: EULER }],
    more: { start: 'Euler' },
  }),
  struck: (random) => {
    const { title, text } = oneOf(
      random,
      LIBRARY.filter(({ text: own }) => isUsable(own)),
    );
    return {
      problem: smooth(random),
      methods: [
        { title, text, struck: [1, 3] },
        { title: 'Euler, again', text: EULER },
      ],
    };
  },
  local: (random) => ({ problem: smooth(random), error: { at: 'local', of: 'norm', scale: 'absolute' } }),
  between: (random) => ({
    problem: smooth(random),
    error: { at: { t: between(random, 0.2, 0.8) }, of: 'norm', scale: 'absolute' },
  }),
  'wrong exact': (random) => {
    const c = between(random, 0.5, 2);
    return {
      problem: oneOf(random, [
        `y' = -${c}*y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(${c}*t)`,
        `y' = -${c}*y\ny(0) = 2\n0 <= t <= 1\ny(t) = exp(-${c}*t)`,
      ]),
    };
  },
  newton: (random) => ({
    problem: `x' = v\nv' = ${between(random, 3, 8, 1)}*(1 - x^2)*v - x\nx(0) = 2\nv(0) = 0\n0 <= t <= 10`,
    methods: [fromLibrary('Backward Euler')],
    ladder: doubling(oneOf(random, [5, 7]), 6),
  }),
  better: (random) => {
    const c = between(random, 0.5, 2);
    return {
      problem: `y' = ${c}/(1 + t^2)\ny(0) = 0\n0 <= t <= 1\ny(t) = ${c}*atan(t)`,
      methods: [fromLibrary('RK4')],
      ladder: doubling(4, 5),
    };
  },
  typed: (random) => {
    const c = between(random, 0.5, 2);
    return {
      problem: `y' = -${c}*y + t\ny'' = ${c}*y - ${c}*t + 1\ny(0) = 1\n0 <= t <= 1`,
      methods: [fromLibrary('Taylor 2')],
    };
  },
  repeated: (random) => ({
    problem: smooth(random),
    ladder: { counts: [4, 8, 8, 16, 16, 32, 64].slice(0, 3 + Math.floor(5 * random())) },
  }),
  leap: () => ({
    problem: `x' = v\nv' = 5*(1 - x^2)*v - x\nx(0) = 2\nv(0) = 0\n0 <= t <= 10`,
    methods: [fromLibrary('Backward Euler')],
    ladder: doubling(5, 5),
  }),
  'exact run': (random) => {
    const c = between(random, 0.5, 2);
    return { problem: `y' = ${c}\ny(0) = 0\n0 <= t <= 1\ny(t) = ${c}*t`, isExplicit: true };
  },
  'zero at first': (random) => ({
    problem: `y' = cos(t)\ny(0) = 0\n0 <= t <= ${between(random, 1, 3)}\ny(t) = sin(t)`,
    error: { at: 'max', of: 'norm', scale: 'relative' },
  }),
  passing: (random) => ({
    problem: `y' = ${between(random, 1, 2)}*cos(t)\ny(0) = 0\n0 <= t <= 3.2`,
    methods: [fromLibrary(oneOf(random, ['Heun', 'RK4', 'Kutta 3']))],
    error: { at: 'end', of: 'y', scale: 'absolute' },
  }),
  'near zero': (random) => ({
    problem: `x'' = -x\nx(0) = ${between(random, 1, 2)}\nx'(0) = 0\n0 <= t <= pi/2`,
    ladder: { counts: [5, 10] },
    error: { at: 'end', of: 'x', scale: 'relative' },
  }),
  few: (random) => ({
    problem: oneOf(random, [smooth, crossing, kinked])(random),
    ladder: doubling(4 + Math.floor(12 * random()), 3),
  }),
  beside: (random) => {
    const { title, text } = fromLibrary(oneOf(random, ['Heun', 'Kutta 3', 'RK4', 'RK6']));
    return {
      problem: smooth(random),
      methods: [
        { title, text },
        { title: `${title}, 40 digits`, text, precision: { digits: 40 } },
      ],
      ladder: doubling(64, 5),
      error: { at: 'end', of: 'norm', scale: oneOf(random, ['absolute', 'relative']) },
    };
  },
  calculator: (random) => ({
    problem: smooth(random),
    isExplicit: true,
    ladder: doubling(4, 7),
    more: {
      precision: { digits: 3 + Math.floor(5 * random()) },
      rounding: oneOf(random, ['half-even', 'half-up', 'chop']),
    },
  }),
} as const satisfies Readonly<Record<string, (random: Random) => Hard>>;
export type Hardship = keyof typeof HARDSHIPS;

/** Hardships of runs in decimals. */
export const DECIMAL_HARDSHIPS: readonly Hardship[] = ['beside', 'calculator'];

/** The names of all others. */
export const ALL_HARDSHIPS = Object.keys(HARDSHIPS).filter(
  (name): name is Hardship => name in HARDSHIPS && !DECIMAL_HARDSHIPS.some((own) => own === name),
);

function isUsable(text: string): boolean {
  return !/\b[xv]\[n\+1\]/.test(text) && !text.includes("f'");
}

const SLIPS: readonly (readonly [string, string])[] = [
  [
    'RK4, digits',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h*(0.1667*k1 + 0.3333*k2 + 0.3333*k3 + 0.1667*k4)',
  ],
  ['Heun, no h', 'k1 = f(t, y)\nk2 = f(t + h, y + k1)\ny[n+1] = y + h/2*(k1 + k2)'],
  [
    'RK4, index',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k1)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)',
  ],
  ['Theta', 'solve y[n+1] = y + h*(0.49*f(t, y) + 0.51*f(t + h, y[n+1]))'],
  ['Half', 'y[n+1] = y + h/2*f(t, y)'],
  ['Unstable', 'start with RK4\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])'],
];

/**
 * A study of a kind that is easily judged wrongly: floors, growth, stiffness, kinks, few and irregular step sizes,
 * times far from zero, relative and mean errors, poor starting methods, mistakes.
 */
export function hardStudy(random: Random, hard: Hardship = oneOf(random, ALL_HARDSHIPS)): HardStudy {
  const made: Hard = HARDSHIPS[hard](random);
  const usable = LIBRARY.filter(
    ({ text }) => isUsable(text) && !(made.isExplicit === true && text.includes('solve')),
  );
  const { title, text } = oneOf(random, usable);
  const euler = random() < 0.3 ? [{ title: 'Euler', text: EULER }] : [];
  return {
    hard,
    document: {
      schritt: 1,
      kind: 'study',
      title: `Hard: ${hard}`,
      problem: { title: hard, text: made.problem },
      methods: made.methods ?? [{ title, text }, ...euler],
      ladder: made.ladder ?? doubling(5 + Math.floor(8 * random()), 6),
      error: made.error ?? { at: oneOf<At>(random, ['end', 'end', 'max']), of: 'norm', scale: 'absolute' },
      ...made.more,
    },
  };
}
