import {
  COSINE_SERIES,
  FIRST_OF_SINE,
  LARGE,
  QUARTER,
  SINE_SERIES,
  THIRD,
} from '../../elementary/trigonometric.ts';
import { HALF_LN2, INVERSE_LN2, LN2_HIGH, LN2_LOW, MORE_LN2 } from '../../elementary/exponential.ts';
import { ENOUGH, PART_1, PART_1T, ROUNDER, TWO_OVER_PI } from '../../elementary/reduce.ts';

/**
 * An elementary function written out within a generated loop: a call would have to wrap its numbers, which costs more
 * than the function itself. Operation by operation it is the function it represents, to which it leaves the rare cases.
 */
export interface Inlined {
  /** Lines of code with holes. */
  readonly parts: readonly (string | Hole)[];
  /** Places of its coefficients in the table of all, in the order in which the holes count them. */
  readonly coefficients: readonly number[];
  /** What it remembers from one step to the next: a line before the loop, with holes. */
  readonly memory: readonly (string | Hole)[];
}

/** Where a result, the input, a coefficient or the number of the place at which it is written out goes. */
type Hole = { readonly hole: 'result' | 'second' | 'input' | 'place' } | { readonly coefficient: number };

const RESULT: Hole = { hole: 'result' };
const SECOND: Hole = { hole: 'second' };
const INPUT: Hole = { hole: 'input' };
const PLACE: Hole = { hole: 'place' };
/** A node of a template; names of its own begin with $, so that they cannot meet names of the code around it. */
type Fragment = readonly (string | Hole)[];
type Filling = Hole | number | Fragment;

/**
 * Coefficients are read from this table before the loop: within it a number written out is moved to a register by two
 * instructions wherever it occurs, one that is kept costs nothing.
 */
const table = new Map<number, number>();

function placeInTable(value: number): number {
  const place = table.get(value) ?? table.size;
  table.set(value, place);
  return place;
}

function partsOf(filling: Filling): Fragment {
  if (typeof filling === 'number') return [{ coefficient: placeInTable(filling) }];
  return 'hole' in filling || 'coefficient' in filling ? [filling] : filling;
}

/** A stretch of code; numbers put into it are coefficients. */
function code(strings: TemplateStringsArray, ...fillings: readonly Filling[]): Fragment {
  return strings.flatMap((text, i) => {
    const filling = fillings[i];
    return filling === undefined ? [text] : [text, ...partsOf(filling)];
  });
}

function inlined(fragment: Fragment, memory: Fragment = []): Inlined {
  const used = fragment.flatMap((part) =>
    typeof part === 'object' && 'coefficient' in part ? [part.coefficient] : [],
  );
  return { parts: fragment, coefficients: [...new Set(used)], memory };
}

/** The names that take the place of holes. */
export interface InlinedNames {
  readonly result: string;
  /** The name of the second result of a pair. */
  readonly second: string;
  readonly input: string;
  /** Tells what is remembered here from what is remembered elsewhere in the same loop. */
  readonly place: string;
  /** Those of its coefficients, in its own order. */
  readonly coefficients: readonly string[];
}

export function inlinedLines(of: Inlined, names: InlinedNames): readonly string[] {
  const { coefficients } = names;
  const placed = new Map(of.coefficients.map((place, i) => [place, coefficients[i] ?? '']));
  const written = of.parts.map((part) => {
    if (typeof part === 'string') return part;
    if ('coefficient' in part) return placed.get(part.coefficient) ?? '';
    return names[part.hole];
  });
  return [written.join('')];
}

/** The line that declares before a loop what a function remembers at one place; none where it remembers nothing. */
export function memoryLines({ memory }: Inlined, place: string): readonly string[] {
  return memory.length === 0
    ? []
    : [memory.map((part) => (typeof part === 'string' ? part : place)).join('')];
}

/** c[0] + $z*(c[1] + $z*(c[2] + ...)) */
function series(coefficients: readonly number[]): Fragment {
  const [last, ...lower] = coefficients.toReversed();
  return lower.reduce<Fragment>((sum, coefficient) => code`${coefficient} + $z * (${sum})`, code`${last!}`);
}

const SIN_TAIL = series(SINE_SERIES);
const COS_TAIL = code`$z * (${series(COSINE_SERIES)})`;
const COSINE = code`const $b = Math.abs($y), $r = ${COS_TAIL};
if ($b < ${THIRD}) $e = 1 - (0.5 * $z - ($z * $r - $y * $l)); else {
const $g = $b * 0.25;
const $k = $b >= ${LARGE} ? 0.28125 : $g < 0.125 ? Math.floor($g * ${2 ** 24}) * ${2 ** -24} : Math.floor($g * ${2 ** 23}) * ${2 ** -23};
$e = 1 - $k - (0.5 * $z - $k - ($z * $r - $y * $l));
}`;
/** What is taken off the head to get the sine, as $e is its cosine in COSINE. */
const SINE = code`const $p = $z * $y, $r = ${SIN_TAIL};
$d = $z * (0.5 * $l - $p * $r) - $l - $p * ${FIRST_OF_SINE};`;
/** Both of a small argument; the sum would take the sign of minus zero away. */
const SMALL_SINE = code`$x === 0 ? $x : $x + $z * $x * (${FIRST_OF_SINE} + $z * (${SIN_TAIL}))`;
const SMALL_COSINE = code`const $y = $x, $l = 0; let $e;
${COSINE}`;

/**
 * The multiple of pi/2 that is taken off an argument, in two parts, and by how many quarters the rest is turned. From step to
 * step it is seldom another one. Where it is not, it need not be known before the rest is computed, and four
 * operations are saved of those that wait for one another.
 */
const HEAD: Fragment = ['$head', PLACE];
const TAIL: Fragment = ['$tail', PLACE];
const TURN: Fragment = ['$turn', PLACE];
const MEMORY = code`let ${HEAD} = NaN, ${TAIL} = 0, ${TURN} = 0;`;

/**
 * An argument that is nearer than this to a multiple of pi/2 has a quotient that is rounded to that multiple. Where the quotient is too
 * large to be rounded so, one subtraction always cancels too much, and the function itself is called.
 */
const NEAREST = 0.78;

/** What is left of an argument that is not small: a head $y and its tail $l, where one subtraction does not cancel too much. */
function reduction(turn: string, within: Fragment, otherwise: Fragment): Fragment {
  return code`let $u = $x - ${HEAD};
if (!(Math.abs($u) < ${NEAREST})) {
const $m = $x * ${TWO_OVER_PI} + ${ROUNDER} - ${ROUNDER};
${HEAD} = $m * ${PART_1}; ${TAIL} = $m * ${PART_1T}; ${TURN} = ${[turn]} & 3;
$u = $x - ${HEAD};
}
const $y = $u - ${TAIL};
if (Math.abs($y) > $t * ${ENOUGH}) {
const $l = $u - $y - ${TAIL}, $z = $y * $y;
${within}
} else { ${otherwise} }`;
}

function trigonometric(small: Fragment, turn: string, call: string): Inlined {
  const within = code`if (${TURN} & 1) { let $e;
${COSINE}
${RESULT} = ${TURN} & 2 ? -$e : $e;
} else { let $d;
${SINE}
${RESULT} = ${TURN} & 2 ? $d - $y : $y - $d;
}`;
  return inlined(
    code`let ${RESULT};
{ const $x = ${INPUT}, $t = Math.abs($x);
if ($t < ${QUARTER}) {
const $z = $x * $x;
${small}
} else {
${reduction(turn, within, code`${RESULT} = ${[call]}($x);`)}
} }`,
    MEMORY,
  );
}

const sine = trigonometric(code`${RESULT} = ${SMALL_SINE};`, '$m', 'sin');

const cosine = trigonometric(
  code`${SMALL_COSINE}
${RESULT} = $e;`,
  '($m + 1)',
  'cos',
);

/** Sine and cosine of one input: its reduction and both series are computed once. */
const sineAndCosine = inlined(
  code`let ${RESULT}, ${SECOND};
{ const $x = ${INPUT}, $t = Math.abs($x);
if ($t < ${QUARTER}) {
const $z = $x * $x;
${RESULT} = ${SMALL_SINE};
${SMALL_COSINE}
${SECOND} = $e;
} else {
${reduction(
  '$m',
  code`let $d, $e;
{ ${SINE} }
${COSINE}
const $s = $y - $d;
if (${TURN} & 1) {
${RESULT} = ${TURN} & 2 ? -$e : $e;
${SECOND} = ${TURN} & 2 ? $s : -$s;
} else {
${RESULT} = ${TURN} & 2 ? -$s : $s;
${SECOND} = ${TURN} & 2 ? -$e : $e;
}`,
  code`${RESULT} = sin($x); ${SECOND} = cos($x);`,
)}
} }`,
  MEMORY,
);

const exponential = inlined(
  code`let ${RESULT};
{ const $x = ${INPUT}, $a = Math.abs($x);
if ($a < 700 && $a > 1e-8 && $x !== 1) {
const $k = $a < ${HALF_LN2} ? 0 : $a < ${MORE_LN2} ? ($x > 0 ? 1 : -1) : Math.trunc(${INVERSE_LN2} * $x + ($x < 0 ? -0.5 : 0.5));
const $g = $x - $k * ${LN2_HIGH}, $l = $k * ${LN2_LOW}, $y = $k === 0 ? $x : $g - $l, $z = $y * $y;
const $c = $y - $z * (${1.66666666666666019037e-1} + $z * (${-2.77777777770155933842e-3} + $z * (${6.61375632143793436117e-5} + $z * (${-1.6533902205465251539e-6} + $z * ${4.13813679705723846039e-8}))));
${RESULT} = $k === 0 ? 1 - (($y * $c) / ($c - 2) - $y) : (1 - ($l - ($y * $c) / (2 - $c) - $g)) * POWERS[$k + 1022];
} else ${RESULT} = exp($x); }`,
);

/** The functions that are written out, by name. */
export const INLINED: ReadonlyMap<string, Inlined> = new Map([
  ['sin', sine],
  ['cos', cosine],
  ['exp', exponential],
]);

/** Functions that are cheaper together, with what each is the partner of: of the pair, the first is the result. */
export const PAIR = { first: 'sin', second: 'cos', of: sineAndCosine } as const;

/** The coefficients of the functions above, by their place in generated code. */
export const COEFFICIENTS = Float64Array.from(table.keys());
