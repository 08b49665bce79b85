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

const HARDSHIPS = [
  'floor',
  'growth',
  'stiff',
  'oscillation',
  'kink',
  'jump',
  'coarse',
  'slip',
  'far',
  'single',
] as const;
export type Hardship = (typeof HARDSHIPS)[number];

function doubling(first: number, rungs: number): StudyDocument['ladder'] {
  return { counts: Array.from({ length: rungs }, (_, i) => first * 2 ** i) };
}

function problemOf(random: Random, hard: Hardship): string {
  const c = between(random, 0.5, 2);
  switch (hard) {
    case 'floor':
    case 'single':
    case 'slip':
    case 'coarse':
      return oneOf(random, [
        `y' = -${c}*y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-${c}*t)`,
        `y' = y*(1 - y)\ny(0) = 0.25\n0 <= t <= 2\ny(t) = 1/(1 + 3*exp(-t))`,
        `y' = -${c}*y^2\ny(0) = 1\n0 <= t <= 2\ny(t) = 1/(1 + ${c}*t)`,
        `y' = -2*t*y^2\ny(0) = 1\n0 <= t <= 1\ny(t) = 1/(1 + t^2)`,
      ]);
    case 'growth':
      return `y' = ${5 + 3 * c}*(y - 1/(1 + t)) - 1/(1 + t)^2\ny(0) = 1\n0 <= t <= 2\ny(t) = 1/(1 + t)`;
    case 'stiff':
      return `p' = -${20 * c}*(p - cos(t)) - sin(t)\np(0) = ${between(random, 0, 1) < 0.5 ? 1 : 0.5}\n0 <= t <= 1.5`;
    case 'oscillation':
      return `x' = ${20 * c}*v\nv' = -${20 * c}*x\nx(0) = 1\nv(0) = 0\n0 <= t <= 1\nx(t) = cos(${20 * c}*t)\nv(t) = -sin(${20 * c}*t)`;
    case 'kink':
      return `y' = abs(t - ${between(random, 0.3, 0.7)}) - y\ny(0) = 1\n0 <= t <= 1`;
    case 'jump':
      return `y' = if(t < ${between(random, 0.3, 0.7)}, ${c}, 3) - y\ny(0) = 1\n0 <= t <= 1`;
    case 'far':
      return `y' = -${c}*y + t - 100000\ny(100000) = 1\n100000 <= t <= 100002`;
  }
}

function ladderOf(random: Random, hard: Hardship): StudyDocument['ladder'] {
  switch (hard) {
    case 'coarse':
      return { counts: [1, 2, 3, 4, 5, 6, 8].slice(0, 4 + Math.floor(4 * random())) };
    case 'floor':
      return doubling(8, 9);
    case 'single':
      return doubling(4, 8);
    case 'growth':
      return doubling(8, 8);
    default:
      return doubling(5 + Math.floor(8 * random()), 6);
  }
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
 * A study of a kind that is easily judged wrongly: floors, growth, stiffness, kinks, jumps, coarse ladders, mistakes.
 */
export function hardStudy(random: Random): HardStudy {
  const hard = oneOf(random, HARDSHIPS);
  const usable = LIBRARY.filter(({ text }) => !/\b[xv]\[n\+1\]/.test(text) && !text.includes("f'"));
  const explicit = usable.filter(({ text }) => !text.includes('solve'));
  const method = oneOf(random, hard === 'floor' || hard === 'growth' ? explicit : usable);
  const [title, text] = hard === 'slip' ? oneOf(random, SLIPS) : [method.title, method.text];
  const at = oneOf<At>(random, ['end', 'end', 'max']);
  return {
    hard,
    document: {
      schritt: 1,
      kind: 'study',
      title: `Hard: ${hard}`,
      problem: { title: hard, text: problemOf(random, hard) },
      methods: [
        { title, text },
        ...(random() < 0.3 ? [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }] : []),
      ],
      ladder: ladderOf(random, hard),
      error: { at, of: 'norm', scale: 'absolute' },
      ...(hard === 'single' ? { precision: 'single' as const } : {}),
    },
  };
}
