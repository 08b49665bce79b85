import { literal } from '../javascript.ts';
import { LARGE, QUARTER, THIRD } from './circular.ts';
import { HALF_LN2, INVERSE_LN2, LN2_HIGH, LN2_LOW, MORE_LN2 } from './exponential.ts';
import { ENOUGH, MEDIUM, PART_1, PART_1T, ROUNDER, TWO_OVER_PI } from './reduce.ts';

/**
 * Elementary functions written out within a generated loop: a call would have to wrap its numbers, which costs
 * more than the function itself. Operation by operation they are those of the functions they stand for, to which
 * they leave the rare cases.
 */
export type Inline = (name: string, input: string, constant: (code: string) => string) => readonly string[];

/**
 * Numbers of many digits are read before the loop: within it a number written out is moved to a register by two
 * instructions wherever it stands, one that is kept costs nothing.
 */
const LONG_NUMBER = /(?:(?<=\(|\* )-)?(?<![\w.])\d[\d.]{4,}(e[+-]?\d+)?(?![\w.])/g;

const coefficients = new Map<string, number>();

/** Marks the one-letter names of a template, so that they cannot meet names of the code around it. */
function marked(lines: readonly string[]): Inline {
  const template = lines.map((line) =>
    line
      .replace(/\b[a-z]\b/g, (letter) => `$${letter}`)
      .replace(LONG_NUMBER, (written) => {
        if (!coefficients.has(written)) coefficients.set(written, coefficients.size);
        return `#${coefficients.get(written)!}#`;
      }),
  );
  return (name, input, constant) =>
    template.map((line) =>
      line
        .replaceAll('NAME', name)
        .replaceAll('INPUT', input)
        .replace(/#(\d+)#/g, (_, place: string) => constant(`COEFFICIENTS[${place}]`)),
    );
}

const n = (value: number): string => literal(value).text;

const SIN_TAIL = `8.33333333332248946124e-3 + z * (-1.98412698298579493134e-4 + z * (2.75573137070700676789e-6 + z * (-2.50507602534068634195e-8 + z * 1.58969099521155010221e-10)))`;
const COS_TAIL = `z * (4.16666666666666019037e-2 + z * (-1.38888888888741095749e-3 + z * (2.48015872894767294178e-5 + z * (-2.75573143513906633035e-7 + z * (2.0875723212981748279e-9 + z * -1.13596475577881948265e-11)))))`;

function circular(which: 'sin' | 'cos'): Inline {
  const turn = which === 'sin' ? '' : ' + 1';
  const cosine = [
    `const r = ${COS_TAIL};`,
    `if (b < ${n(THIRD)}) e = 1 - (0.5 * z - (z * r - y * l)); else {`,
    'const g = b * 0.25;',
    `const k = b >= ${n(LARGE)} ? 0.28125 : g < 0.125 ? Math.floor(g * 16777216) * ${n(2 ** -24)} : Math.floor(g * 8388608) * ${n(2 ** -23)};`,
    'e = 1 - k - (0.5 * z - k - (z * r - y * l));',
    '}',
  ];
  return marked([
    'let NAME;',
    '{ const x = INPUT, t = Math.abs(x);',
    `if (t < ${n(QUARTER)}) {`,
    'const z = x * x;',
    ...(which === 'sin'
      ? [`NAME = x + z * x * (-1.66666666666666324348e-1 + z * (${SIN_TAIL}));`]
      : ['const y = x, b = t, l = 0; let e;', ...cosine, 'NAME = e;']),
    `} else if (t < ${n(MEDIUM)}) {`,
    `const m = t * ${n(TWO_OVER_PI)} + ${ROUNDER} - ${ROUNDER};`,
    `const u = t - m * ${n(PART_1)}, w = m * ${n(PART_1T)};`,
    'const y = u - w, b = Math.abs(y);',
    `if (b > t * ${n(ENOUGH)}) {`,
    `const l = u - y - w, q = (m${turn}) & 3, z = y * y;`,
    'let e;',
    'if ((q & 1) === 0) {',
    `const p = z * y, r = ${SIN_TAIL};`,
    'e = y - (z * (0.5 * l - p * r) - l - p * -1.66666666666666324348e-1);',
    '} else {',
    ...cosine,
    '}',
    which === 'sin' ? 'NAME = x < 0 ? (q > 1 ? e : -e) : q > 1 ? -e : e;' : 'NAME = q > 1 ? -e : e;',
    `} else NAME = ${which}(x);`,
    `} else NAME = ${which}(x); }`,
  ]);
}

const exponential = marked([
  'let NAME;',
  `{ const x = INPUT, a = Math.abs(x);`,
  `if (a < 700 && a > 1e-8 && x !== 1) {`,
  `const k = a < ${n(HALF_LN2)} ? 0 : a < ${n(MORE_LN2)} ? (x > 0 ? 1 : -1) : Math.trunc(${n(INVERSE_LN2)} * x + (x < 0 ? -0.5 : 0.5));`,
  `const g = x - k * ${n(LN2_HIGH)}, l = k * ${n(LN2_LOW)}, y = k === 0 ? x : g - l, z = y * y;`,
  'const c = y - z * (1.66666666666666019037e-1 + z * (-2.77777777770155933842e-3 + z * (6.61375632143793436117e-5 + z * (-1.6533902205465251539e-6 + z * 4.13813679705723846039e-8))));',
  `NAME = k === 0 ? 1 - ((y * c) / (c - 2) - y) : (1 - (l - (y * c) / (2 - c) - g)) * POWERS[k + 1022];`,
  `} else NAME = exp(x); }`,
]);

/** The functions that are written out, by name. */
export const INLINE: ReadonlyMap<string, Inline> = new Map<string, Inline>([
  ['sin', circular('sin')],
  ['cos', circular('cos')],
  ['exp', exponential],
]);

/** The coefficients of the functions above, by their place in generated code. */
export const COEFFICIENTS = Float64Array.from(coefficients.keys(), Number);
