import { LIBRARY } from '../../method/library/library.ts';
import type { Method } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { formKey } from '../form/form.ts';
import { type Inspection, inspectMethod } from '../inspect-method.ts';
import { findSlips } from './find-slips.ts';

/** One kind of mistake: what is looked for in a text, and what is written instead. */
interface Mistake {
  readonly name: string;
  readonly pattern: RegExp;
  readonly instead: (match: RegExpMatchArray) => readonly (string | null)[];
}

const group = (match: RegExpMatchArray, place: number): string => match[place] ?? '';

const MISTAKES: readonly Mistake[] = [
  { name: 'a forgotten h', pattern: /h\*/g, instead: () => [''] },
  { name: 'a forgotten h above a fraction', pattern: /h(?=\/\d)/g, instead: () => ['1'] },
  { name: 'h twice', pattern: /(?<![\w^])h\*/g, instead: () => ['h^2*'] },
  {
    name: 'a power of h too low',
    pattern: /h\^(\d)/g,
    instead: (m) => [group(m, 1) === '2' ? 'h' : `h^${Number(group(m, 1)) - 1}`],
  },
  {
    name: 'another stage',
    pattern: /(?<=[*(+\- ])k(\d)(?=[*/), ]|$)/gm,
    instead: (m) => [`k${Number(group(m, 1)) - 1}`, `k${Number(group(m, 1)) + 1}`],
  },
  {
    name: 'another index into the history',
    pattern: /\[n-(\d)\]/g,
    instead: (m) => {
      const back = Number(group(m, 1));
      return [`[n-${back + 1}]`, back > 1 ? `[n-${back - 1}]` : '[n]'];
    },
  },
  {
    name: 'a wrong number',
    pattern: /(?<![\w[^.])(\d+)(?=[*/])/g,
    instead: (m) => [
      String(Number(group(m, 1)) + 1),
      Number(group(m, 1)) > 1 ? String(Number(group(m, 1)) - 1) : null,
    ],
  },
  {
    name: 'a wrong denominator',
    pattern: /\/(\d+)/g,
    instead: (m) => [`/${Number(group(m, 1)) + 1}`, `/${2 * Number(group(m, 1))}`],
  },
  {
    name: 'a wrong sign',
    pattern: / ([+-]) (?=[\dhkf(])/g,
    instead: (m) => [group(m, 1) === '+' ? ' - ' : ' + '],
  },
  {
    name: 'another time',
    pattern: /\(t \+ ([^,]*),/g,
    instead: (m) => ['(t,', group(m, 1) === 'h' ? '(t + h/2,' : '(t + h,'],
  },
  {
    name: 'a dropped term',
    pattern: / [+-] (?:\d+(?:\/\d+)?\*)?[kf](?:\d|\[n(?:-\d)?\])(?=[ )])/g,
    instead: () => [''],
  },
  { name: 'a dropped derivative by t', pattern: /f_t\(t, y\) \+ /g, instead: () => [''] },
  {
    name: 'swapped weights',
    pattern: /(\d+)\*(k\d|f\[n[^\]]*\]) ([+-]) (\d+)\*(k\d|f\[n[^\]]*\])/g,
    instead: (m) => [`${group(m, 4)}*${group(m, 2)} ${group(m, 3)} ${group(m, 1)}*${group(m, 5)}`],
  },
];

/** Methods of the library, but for the longest, and the same formulas in other layouts. */
const METHODS: readonly (readonly [string, string])[] = [
  ...LIBRARY.filter(({ title }) => !['RK6', 'RK8', 'Order 2, one parameter'].includes(title)).map(
    ({ title, text }) => [title, text] as const,
  ),
  [
    'RK4 with h*f',
    'k1 = h*f(t, y)\nk2 = h*f(t + h/2, y + k1/2)\nk3 = h*f(t + h/2, y + k2/2)\nk4 = h*f(t + h, y + k3)\ny[n+1] = y + (k1 + 2*k2 + 2*k3 + k4)/6',
  ],
  ['Heun with h*f', 'k1 = h*f(t, y)\nk2 = h*f(t + h, y + k1)\ny[n+1] = y + (k1 + k2)/2'],
  [
    'Kutta 3 with h*f',
    'k1 = h*f(t, y)\nk2 = h*f(t + h/2, y + k1/2)\nk3 = h*f(t + h, y - k1 + 2*k2)\ny[n+1] = y + (k1 + 4*k2 + k3)/6',
  ],
  ['Taylor 2 in partial derivatives', 'y[n+1] = y + h*f(t, y) + h^2/2*(f_t(t, y) + f_y(t, y)*f(t, y))'],
  [
    'RK4 in single terms',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + 1/6*h*k1 + 1/3*h*k2 + 1/3*h*k3 + 1/6*h*k4',
  ],
];

function read(text: string): Method | null {
  const reading = parseMethod(text);
  return reading.ok ? reading.value : null;
}

function inspect(text: string): Inspection | null {
  const method = read(text);
  return method && inspectMethod(method);
}

function orderOf({ order, orderWithoutVelocity }: Inspection): number {
  return order?.zero?.stable === false ? -1 : Math.max(order?.order ?? -1, orderWithoutVelocity?.order ?? -1);
}

/** What a text computes, whatever it looks like. */
function meaningOf({ linear }: Inspection): string {
  if (linear === null) return '';
  const { next, stages } = linear;
  const forms = 'y' in next ? [next.y] : [next.x, next.v];
  const places = stages.map(({ at, shift }) => [
    shift.value,
    ...('y' in at ? [at.y] : [at.x, at.v]).map(formKey),
  ]);
  return JSON.stringify([forms.map(formKey), places]);
}

/** Every third planted mistake that lowers the order, with what the first repair comes to. */
function planted(): readonly {
  readonly bad: string;
  readonly isNoticed: boolean;
  readonly isMended: boolean;
}[] {
  const found: { readonly bad: string; readonly isNoticed: boolean; readonly isMended: boolean }[] = [];
  let count = 0;
  for (const [, text] of METHODS) {
    const right = inspect(text)!;
    for (const { pattern, instead } of MISTAKES)
      for (const match of text.matchAll(pattern))
        for (const other of instead(match)) {
          count += 1;
          if (other === null || count % 3 !== 0) continue;
          const bad = text.slice(0, match.index) + other + text.slice(match.index + match[0].length);
          const method = read(bad);
          if (method === null) continue;
          const inspection = inspectMethod(method);
          if (inspection.kind === null || orderOf(inspection) >= orderOf(right)) continue;
          const { order } = inspection;
          const { slips, nearMisses } = findSlips(method);
          const [first] = [
            ...slips.flatMap(({ repairs }) => repairs),
            ...nearMisses.map(({ repair }) => repair),
          ];
          const mended =
            first === undefined ? null : inspect(bad.slice(0, first.from) + first.text + bad.slice(first.to));
          // a repair never lowers the order
          if (mended !== null) expect(orderOf(mended)).toBeGreaterThan(orderOf(inspection));
          found.push({
            bad,
            isNoticed: slips.length + nearMisses.length > 0 || order === null || order.failing.length > 0,
            isMended: mended !== null && meaningOf(mended) === meaningOf(right),
          });
        }
  }
  return found;
}

test('of 300 planted mistakes all are noticed, and nine in ten have the right repair first', () => {
  const all = planted();
  expect(all.length).toBeGreaterThanOrEqual(300);
  expect(all.filter(({ isNoticed }) => !isNoticed)).toEqual([]);
  const share = all.filter(({ isMended }) => isMended).length / all.length;
  expect(share).toBeGreaterThan(0.9);
});
