import type { StudyDocument } from '../src/document/document.ts';
import { LIBRARY } from '../src/method/library/library.ts';
import type { Random } from '../src/elementary/random.ts';
import { between, oneOf } from './random-choice.ts';

/** A solution and its derivatives, as they are typed. */
interface Curve {
  readonly value: string;
  readonly slope: string;
  readonly bend: string;
}

function curve(random: Random): Curve {
  const [a, w, c] = [between(random, 1.2, 3), between(random, 0.5, 3), between(random, 0.2, 1.5)];
  return oneOf<Curve>(random, [
    { value: `(${a} + sin(${w}*t))`, slope: `${w}*cos(${w}*t)`, bend: `(-${w}^2*sin(${w}*t))` },
    { value: `(${a}*exp(-${c}*t))`, slope: `(-${a}*${c}*exp(-${c}*t))`, bend: `${a}*${c}^2*exp(-${c}*t)` },
    { value: `(${a} + ${c}*t + t^3/9)`, slope: `(${c} + t^2/3)`, bend: `2*t/3` },
    {
      value: `(${a}/(1 + ${c}*t))`,
      slope: `(-${a}*${c}/(1 + ${c}*t)^2)`,
      bend: `2*${a}*${c}^2/(1 + ${c}*t)^3`,
    },
    {
      value: `(ln(${a} + t) + ${c})`,
      slope: `1/(${a} + t)`,
      bend: `(-1/(${a} + t)^2)`,
    },
    {
      value: `(cos(${w}*t)*exp(-t/4) + ${a})`,
      slope: `(-${w}*sin(${w}*t) - cos(${w}*t)/4)*exp(-t/4)`,
      bend: `((1/16 - ${w}^2)*cos(${w}*t) + ${w}*sin(${w}*t)/2)*exp(-t/4)`,
    },
  ]);
}

/** A smooth function of t and one or two values, as it is typed. */
function coupling(random: Random, y: string, z: string): string {
  const c = between(random, 0.1, 1.2);
  return oneOf(random, [
    `${c}*${y}`,
    `(-${c}*${y})`,
    `${c}*${y}*cos(2*t)`,
    `(-${c}*${y}^2/3)`,
    `sin(${c}*${y})`,
    `${c}*${y}*${z}/3`,
    `(-${c}*t*${y}/2)`,
    `(-${y}^3/12)`,
  ]);
}

/** A problem with a known solution: its right-hand side is that of the solution, and a term that is zero along it. */
export function manufactured(random: Random): { readonly text: string; readonly names: readonly string[] } {
  const end = between(random, 0.8, 3, 1);
  const [one, two] = [curve(random), curve(random)];
  const interval = `0 <= t <= ${end}`;
  const at0 = (text: string): string => text.replace(/\bt\b/g, '0');
  const rhs = (
    [name, other]: readonly [string, string],
    own: Curve,
    others: Curve,
    slope: string,
  ): string => {
    const term = coupling(random, 'Y', 'Z');
    const put = (y: string, z: string): string => term.replaceAll('Y', y).replaceAll('Z', z);
    return `${slope} + ${put(name, other)} - ${put(own.value, others.value)}`;
  };
  switch (Math.floor(random() * 4)) {
    case 0:
    case 1:
      return {
        names: ['y'],
        text: [
          `y' = ${rhs(['y', 'y'], one, one, one.slope)}`,
          `y(0) = ${at0(one.value)}`,
          interval,
          `y(t) = ${one.value}`,
        ].join('\n'),
      };
    case 2:
      return {
        names: ['u', 'w'],
        text: [
          `u' = ${rhs(['u', 'w'], one, two, one.slope)}`,
          `w' = ${rhs(['w', 'u'], two, one, two.slope)}`,
          `u(0) = ${at0(one.value)}`,
          `w(0) = ${at0(two.value)}`,
          interval,
          `u(t) = ${one.value}`,
          `w(t) = ${two.value}`,
        ].join('\n'),
      };
    default:
      return {
        names: ['x', "x'"],
        text: [
          `x'' = ${rhs(['x', 'x'], one, one, one.bend)}`,
          `x(0) = ${at0(one.value)}`,
          `x'(0) = ${at0(one.slope)}`,
          interval,
          `x(t) = ${one.value}`,
        ].join('\n'),
      };
  }
}

function ladderOf(random: Random, heavy: boolean): StudyDocument['ladder'] {
  const first = Math.floor(between(random, 6, 16, 0));
  const factor = oneOf(random, [2, 2, 2, 1.5, 3]);
  const rungs = Math.floor(between(random, 4, heavy ? 6 : 8, 0));
  const counts = Array.from({ length: rungs }, (_, i) => Math.round(first * factor ** i)).filter(
    (n) => n <= (heavy ? 600 : 4000),
  );
  return { counts };
}

function errorOf(random: Random, names: readonly string[]): NonNullable<StudyDocument['error']> {
  const at = oneOf<NonNullable<NonNullable<StudyDocument['error']>['at']>>(random, [
    'end',
    'end',
    'end',
    'max',
    'rms',
  ]);
  const scale =
    at === 'end' ? oneOf<'absolute' | 'relative'>(random, ['absolute', 'absolute', 'relative']) : 'absolute';
  return { at, scale, of: oneOf(random, ['norm', ...names]) };
}

/** A smooth study as a file: a problem with known solution, some methods of the library, a ladder, an error. */
export function randomStudy(random: Random): StudyDocument {
  const { text, names } = manufactured(random);
  const isSecond = names.includes("x'");
  const usable = LIBRARY.filter(({ text: formula }) => isSecond || !/^v\[n\+1\]|\bx\[n\+1\]/m.test(formula));
  const method = oneOf(random, usable);
  const heavy = method.text.includes('solve');
  return {
    schritt: 1,
    kind: 'study',
    title: 'A random study',
    problem: { title: 'A random problem', text: random() < 0.15 ? withoutExact(text) : text },
    methods: [{ title: method.title, text: method.text }],
    ladder: ladderOf(random, heavy),
    error: errorOf(random, names),
  };
}

/** A problem without its solution, for which a reference is computed then. */
export function withoutExact(text: string): string {
  return text
    .split('\n')
    .filter((line) => !/^\w+\(t\) = /.test(line))
    .join('\n');
}
