import {
  COSINE_SERIES,
  FIRST_OF_SINE,
  LARGE,
  QUARTER,
  SINE_SERIES,
  THIRD,
} from '../../elementary/trigonometric.ts';
import { HALF_LN2, INVERSE_LN2, LN2_HIGH, LN2_LOW, MORE_LN2 } from '../../elementary/exponential.ts';
import { ENOUGH, MEDIUM, PART_1, PART_1T, ROUNDER, TWO_OVER_PI } from '../../elementary/reduce.ts';

/**
 * An elementary function written out within a generated loop: a call would have to wrap its numbers, which costs more
 * than the function itself. Operation by operation it is the function it represents, to which it leaves the rare cases.
 */
export interface Inlined {
  /** Lines of code with holes. */
  readonly parts: readonly (string | Hole)[];
  /** Places of its coefficients in the table of all, in the order in which the holes count them. */
  readonly coefficients: readonly number[];
}

/** Where a result, the input or a coefficient goes. */
type Hole = { readonly hole: 'result' | 'second' | 'input' } | { readonly coefficient: number };

const RESULT: Hole = { hole: 'result' };
const SECOND: Hole = { hole: 'second' };
const INPUT: Hole = { hole: 'input' };
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

function inlined(...fragments: readonly Fragment[]): Inlined {
  const parts = fragments.flat();
  const used = parts.flatMap((part) =>
    typeof part === 'object' && 'coefficient' in part ? [part.coefficient] : [],
  );
  return { parts, coefficients: [...new Set(used)] };
}

/** The names that take the place of holes. */
export interface InlinedNames {
  readonly result: string;
  /** The name of the second result of a pair. */
  readonly second: string;
  readonly input: string;
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

/** c[0] + $z*(c[1] + $z*(c[2] + ...)) */
function series(coefficients: readonly number[]): Fragment {
  const [last, ...lower] = coefficients.toReversed();
  return lower.reduce<Fragment>((sum, coefficient) => code`${coefficient} + $z * (${sum})`, code`${last!}`);
}

const SIN_TAIL = series(SINE_SERIES);
const COS_TAIL = code`$z * (${series(COSINE_SERIES)})`;
const COSINE = code`const $r = ${COS_TAIL};
if ($b < ${THIRD}) $e = 1 - (0.5 * $z - ($z * $r - $y * $l)); else {
const $g = $b * 0.25;
const $k = $b >= ${LARGE} ? 0.28125 : $g < 0.125 ? Math.floor($g * ${2 ** 24}) * ${2 ** -24} : Math.floor($g * ${2 ** 23}) * ${2 ** -23};
$e = 1 - $k - (0.5 * $z - $k - ($z * $r - $y * $l));
}`;

/** What is left of a larger argument: a head $y and its tail, by how many quarter turns $m. */
const REDUCTION = code`const $m = $t * ${TWO_OVER_PI} + ${ROUNDER} - ${ROUNDER};
const $u = $t - $m * ${PART_1}, $w = $m * ${PART_1T};
const $y = $u - $w, $b = Math.abs($y);`;
/** The sine of what is left, as $e is its cosine in COSINE. */
const SINE = code`const $p = $z * $y, $r = ${SIN_TAIL};
$s = $y - ($z * (0.5 * $l - $p * $r) - $l - $p * ${FIRST_OF_SINE});`;
/** Both of a small argument; the sum would take the sign of minus zero away. */
const SMALL_SINE = code`$x === 0 ? $x : $x + $z * $x * (${FIRST_OF_SINE} + $z * (${SIN_TAIL}))`;
const SMALL_COSINE = code`const $y = $x, $b = $t, $l = 0; let $e;
${COSINE}`;

function trigonometric(small: Fragment, turn: string, sign: Fragment, call: string): Inlined {
  return inlined(
    code`let ${RESULT};
{ const $x = ${INPUT}, $t = Math.abs($x);
if ($t < ${QUARTER}) {
const $z = $x * $x;
${small}
} else if ($t < ${MEDIUM}) {
${REDUCTION}
if ($b > $t * ${ENOUGH}) {
const $l = $u - $y - $w, $q = (${[turn]}) & 3, $z = $y * $y;
let $e;
if (($q & 1) === 0) { let $s;
${SINE}
$e = $s; } else {
${COSINE}
}
${sign}
} else ${RESULT} = ${[call]}($x);
} else ${RESULT} = ${[call]}($x); }`,
  );
}

const sine = trigonometric(
  code`${RESULT} = ${SMALL_SINE};`,
  '$m',
  code`${RESULT} = $x < 0 ? ($q > 1 ? $e : -$e) : $q > 1 ? -$e : $e;`,
  'sin',
);

const cosine = trigonometric(
  code`${SMALL_COSINE}
${RESULT} = $e;`,
  '$m + 1',
  code`${RESULT} = $q > 1 ? -$e : $e;`,
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
} else if ($t < ${MEDIUM}) {
${REDUCTION}
if ($b > $t * ${ENOUGH}) {
const $l = $u - $y - $w, $q = $m & 3, $z = $y * $y;
let $s, $e;
{ ${SINE} }
${COSINE}
if (($q & 1) === 0) {
${RESULT} = ($x < 0) === ($q > 1) ? $s : -$s;
${SECOND} = $q > 1 ? -$e : $e;
} else {
${RESULT} = ($x < 0) === ($q > 1) ? $e : -$e;
${SECOND} = $q > 1 ? $s : -$s;
}
} else { ${RESULT} = sin($x); ${SECOND} = cos($x); }
} else { ${RESULT} = sin($x); ${SECOND} = cos($x); } }`,
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
