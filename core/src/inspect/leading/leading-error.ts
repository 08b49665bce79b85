import { jetFunction } from '../../compile/jets/jet-function.ts';
import { MAX_SERIES_COMPONENTS, rhsSeries } from '../../compile/jets/rhs-series.ts';
import type { Problem } from '../../problem/problem.ts';
import { lazily } from '../../text/lazily.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { type ProvedOrder, weightOfSlopes } from '../order/prove-order.ts';
import { stepExpansion } from './step-expansion.ts';

/** The error that a method must make on a problem: e(t) h^order, and higher powers of h. */
export interface LeadingError {
  /** The order on this problem; above that of the method where its leading term is zero all along the solution. */
  readonly order: number;
  readonly start: number;
  readonly end: number;
  /** Components. */
  readonly size: number;
  /** e at equal distances from start to end: component j at [i*size + j]. */
  readonly values: Float64Array;
  /** How far e may be off at every second of these times, likewise; null where that was not looked at. */
  readonly doubts: Float64Array | null;
}

/** A solution to expand about: writes all components at a time. */
export type SolutionAt = (t: number, out: Float64Array) => void;

/** Powers above that of the method that are looked at where the leading term is zero. */
const MORE = 2;
/** Places at which local errors are made, at first and at most; and parts of the interval in which e is followed. */
const PLACES = 64;
const MAX_PLACES = 4096;
const PARTS = 32;
const MAX_PARTS = 8192;
/** How near e in so many parts and in twice as many must be, relative to its largest value. */
const ENOUGH = 2e-4;
/** How near a cubic through every second local error must be to those between, likewise. */
const SMOOTH = 2e-2;
/** Below this part of what it is the difference of, a coefficient is zero. */
const ZERO = 1e-9;
/** So far beside the solution, relative to it, coefficients are the same but for this part of the largest, or they are noise. */
const BESIDE = 2 ** -48;
const NOISE = 0.1;

/** d at equal distances: the coefficients of one power of h in the local errors. */
interface Local {
  readonly power: number;
  readonly values: Float64Array;
}

/**
 * Writes the series of the local error and of the solution at a time; coefficient k of component j at [k*size + j].
 * The state that it is expanded about is that of the solution times a factor.
 */
type LocalSeries = (
  t: number,
  factor?: number,
) => { readonly error: Float64Array; readonly solution: Float64Array };

/** Along which solution of which problem an error is followed, and how far. */
interface Along {
  readonly problem: Problem;
  readonly solution: SolutionAt;
  readonly end: number;
}

function localSeries(method: LinearMethod, order: number, { problem, solution }: Along): LocalSeries | null {
  const expand = stepExpansion(method, problem, order);
  if (expand === null) return null;
  const jet = jetFunction(problem, order);
  const [state, series] = [new Float64Array(problem.size), new Float64Array(problem.size * (order + 1))];
  return (t, factor = 1) => {
    solution(t, state);
    for (let j = 0; j < problem.size; j += 1) state[j]! *= factor;
    jet(t, state, series);
    return { error: expand(t, series), solution: series };
  };
}

/** Makes the coefficients of one power of h in the local error, at ever more places. */
class PowerOfError {
  readonly #series: LocalSeries | null;
  readonly #power: number;
  readonly #along: Along;
  #values = new Float64Array(0);
  #scale = 0;

  constructor(method: LinearMethod, power: number, along: Along) {
    // coefficients of higher powers take no part in this one
    this.#series = localSeries(method, power, along);
    this.#power = power;
    this.#along = along;
  }

  /** The coefficients at places + 1 times, every second of which may be known; false where there are none. */
  lookAt(places: number): boolean {
    if (this.#series === null) return false;
    const { size } = this.#along.problem;
    const earlier = this.#values.length === (places / 2 + 1) * size ? this.#values : null;
    const values = new Float64Array((places + 1) * size);
    for (let i = 0; i <= places; i += 1) {
      if (earlier !== null && i % 2 === 0)
        values.set(earlier.subarray((i / 2) * size, (i / 2 + 1) * size), i * size);
      else if (!this.#makeAt(this.#series, i, places, values)) return false;
    }
    this.#values = values;
    return true;
  }

  #makeAt(series: LocalSeries, i: number, places: number, values: Float64Array): boolean {
    const { size } = this.#along.problem;
    const { error, solution } = series(this.#timeAt(i, places));
    for (let j = 0; j < size; j += 1) {
      const d = error[this.#power * size + j]!;
      if (!Number.isFinite(d)) return false;
      values[i * size + j] = d;
      this.#scale = Math.max(this.#scale, Math.abs(d), Math.abs(solution[this.#power * size + j]!));
    }
    return true;
  }

  #timeAt(i: number, places: number): number {
    const { end, problem } = this.#along;
    return problem.start + ((end - problem.start) * i) / places;
  }

  get isZero(): boolean {
    return this.#values.every((d) => !(Math.abs(d) > ZERO * this.#scale));
  }

  /** Whether the coefficients are what rounding leaves of terms that cancel: those beside the solution are others. */
  isNoise(): boolean {
    if (this.#series === null) return false;
    const { size } = this.#along.problem;
    const places = this.#values.length / size - 1;
    let [most, largest] = [0, 0];
    for (let i = 0; i <= places; i += 1) {
      const { error } = this.#series(this.#timeAt(i, places), 1 + BESIDE);
      for (let j = 0; j < size; j += 1) {
        const d = this.#values[i * size + j]!;
        most = Math.max(most, Math.abs(error[this.#power * size + j]! - d));
        largest = Math.max(largest, Math.abs(d));
      }
    }
    return most > NOISE * largest;
  }

  get local(): Local {
    return { power: this.#power, values: this.#values };
  }
}

/** A value between equidistant ones, `at` distances from the first, by a cubic through the four points about it. */
function between(values: Float64Array, size: number, place: number, at: number): number {
  const last = values.length / size - 1;
  const first = Math.min(last - 3, Math.max(0, Math.floor(at) - 1));
  const e = (i: number): number => values[(first + i) * size + place]!;
  const [a, b, c, d] = [at - first, at - first - 1, at - first - 2, at - first - 3];
  return (-b * c * d * e(0)) / 6 + (a * c * d * e(1)) / 2 - (a * b * d * e(2)) / 2 + (a * b * c * e(3)) / 6;
}

/** Whether local errors lie so close that a cubic between them is good enough. */
function isClose(local: Local, size: number): boolean {
  const { values } = local;
  const places = values.length / size - 1;
  const { values: coarse } = halved(local, size);
  let [most, largest] = [0, 0];
  for (let i = 1; i < places; i += 2)
    for (let j = 0; j < size; j += 1) {
      const value = values[i * size + j]!;
      most = Math.max(most, Math.abs(value - between(coarse, size, j, i / 2)));
      largest = Math.max(largest, Math.abs(value));
    }
  return most <= SMOOTH * largest;
}

/** The lowest power of h that is not zero all along at so many places; null where all are, or where one is not finite. */
function lowest(powers: readonly (() => PowerOfError)[], places: number): PowerOfError | null {
  for (const power of powers) {
    const own = power();
    if (!own.lookAt(places)) return null;
    if (!own.isZero) return own;
  }
  return null;
}

/** Local errors at so many places that those between are known as well; null where they are not smooth. */
function smoothErrors(method: LinearMethod, first: number, along: Along): Local | null {
  const powers = Array.from({ length: MORE + 1 }, (_, m) =>
    lazily(() => new PowerOfError(method, first + m, along)),
  );
  for (let places = PLACES; places <= MAX_PLACES; places *= 2) {
    const found = lowest(powers, places);
    if (found === null) return null;
    if (isClose(found.local, along.problem.size)) return found.local;
    // more places would show no more of it
    if (places === PLACES && found.isNoise()) return null;
  }
  return null;
}

/** e from e' = J e + d by the classical Runge-Kutta method; J e comes from a series of the right-hand sides. */
function globalError(
  { problem, solution, end }: Along,
  local: Local,
  weight: number,
  parts: number,
): Float64Array {
  const { size, start } = problem;
  const rightHandSides = rhsSeries(problem, 1);
  const [pair, out] = [new Float64Array(2 * size), new Float64Array(2 * size)];
  const [state, d] = [new Float64Array(size), new Float64Array(size)];
  const width = (end - start) / parts;
  const values = new Float64Array((parts + 1) * size);
  const places = local.values.length / size - 1;
  /** The state and d at i half parts; the two stages in the middle of a part share them. */
  let [t, known] = [start, -1];
  const goTo = (i: number): void => {
    if (i === known) return;
    known = i;
    t = start + (width * i) / 2;
    solution(t, state);
    const at = (i * places) / (2 * parts);
    for (let j = 0; j < size; j += 1)
      d[j] =
        (Number.isInteger(at) ? local.values[at * size + j]! : between(local.values, size, j, at)) / weight;
  };
  const slope = (i: number, e: Float64Array, into: Float64Array): void => {
    goTo(i);
    pair.set(state);
    pair.set(e, size);
    rightHandSides(t, 0, pair, out);
    for (let j = 0; j < size; j += 1) into[j] = out[size + j]! + d[j]!;
  };
  const k = Array.from({ length: 4 }, () => new Float64Array(size));
  const [e, at] = [new Float64Array(size), new Float64Array(size)];
  const moved = (by: number, along: Float64Array): Float64Array => {
    for (let j = 0; j < size; j += 1) at[j] = e[j]! + by * along[j]!;
    return at;
  };
  for (let n = 0; n < parts; n += 1) {
    slope(2 * n, e, k[0]!);
    slope(2 * n + 1, moved(width / 2, k[0]!), k[1]!);
    slope(2 * n + 1, moved(width / 2, k[1]!), k[2]!);
    slope(2 * n + 2, moved(width, k[2]!), k[3]!);
    for (let j = 0; j < size; j += 1)
      e[j]! += (width / 6) * (k[0]![j]! + 2 * k[1]![j]! + 2 * k[2]![j]! + k[3]![j]!);
    if (!Number.isFinite(e[0]!)) return e;
    values.set(e, (n + 1) * size);
  }
  return values;
}

/** Local errors at every second time alone. */
function halved({ power, values }: Local, size: number): Local {
  const places = values.length / size - 1;
  const half = new Float64Array((places / 2 + 1) * size);
  for (let i = 0; i <= places; i += 2) half.set(values.subarray(i * size, (i + 1) * size), (i / 2) * size);
  return { power, values: half };
}

/** By how much a cubic through all local errors is nearer to those between than one through every second; a half of 2^4. */
const NEARER = 8;

/** How far e may be off: by what half as many parts change of it, and by what half as many local errors do. */
function doubtsOf(
  size: number,
  { coarse, fine, fewer }: Readonly<Record<'coarse' | 'fine' | 'fewer', Float64Array>>,
): Float64Array {
  return coarse.map((value, k) => {
    const at = 2 * Math.floor(k / size) * size + (k % size);
    return Math.abs(value - fine[at]!) + Math.abs(fewer[at]! - fine[at]!) / NEARER;
  });
}

function difference(coarse: Float64Array, fine: Float64Array, size: number): number {
  let [most, largest] = [0, 0];
  for (let i = 0; i < coarse.length / size; i += 1)
    for (let j = 0; j < size; j += 1) {
      const [a, b] = [coarse[i * size + j]!, fine[2 * i * size + j]!];
      most = Math.max(most, Math.abs(a - b));
      largest = Math.max(largest, Math.abs(b));
    }
  return largest > 0 ? most / largest : most;
}

/**
 * The leading term of the global error of a method on a problem: e' = J e + d with the Jacobian J and the coefficient d
 * of the local error along the solution.
 *
 * Source: P. Henrici, Discrete Variable Methods in Ordinary Differential Equations (1962), chapter 2; E. Hairer,
 * S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section II.8, III.9.
 *
 * @param proof the proved order of the method; its starting method must have that order
 * @param along the exact solution or a reference, without kinks up to `end`
 * @returns null where the order is not proved or the method does not converge, where no series exists, for more than
 *   sixty components, and where e could not be followed to four digits
 *
 * @example Euler on y' = a y, y(0) = 1: e(T) = -a^2/2 T exp(a T)
 */
export function leadingError(method: LinearMethod, proof: ProvedOrder, along: Along): LeadingError | null {
  const { problem, end } = along;
  const { size, start } = problem;
  if (size > MAX_SERIES_COMPONENTS || proof.atLeast || proof.order < 1 || proof.zero?.stable === false)
    return null;
  const weight = weightOfSlopes(method).value;
  const local = smoothErrors(method, proof.order + 1, along);
  if (local === null) return null;
  let before: Float64Array | null = null;
  for (let parts = PARTS; parts <= MAX_PARTS; parts *= 2) {
    const values = globalError(along, local, weight, parts);
    if (!values.every((value) => Number.isFinite(value))) {
      before = null;
      continue;
    }
    if (before !== null && difference(before, values, size) <= ENOUGH) {
      const fewer = globalError(along, halved(local, size), weight, parts);
      const doubts = doubtsOf(size, { coarse: before, fine: values, fewer });
      return { order: local.power - 1, start, end, size, values, doubts };
    }
    before = values;
  }
  return null;
}

/** Places at which the terms of an error are made, and parts in which they are followed: an estimate to a per cent. */
const TERM_PLACES = 128;
const TERM_PARTS = 512;

/**
 * The terms of the global error that come from some powers of h in the local error, each followed as a leading error is.
 *
 * @param powers of h in the local error, the first and the last
 * @returns null where no series exists
 */
export function errorTerms(
  method: LinearMethod,
  powers: { readonly first: number; readonly last: number },
  along: Along,
): readonly LeadingError[] | null {
  const { problem, end } = along;
  const { size, start } = problem;
  const series = size > MAX_SERIES_COMPONENTS ? null : localSeries(method, powers.last, along);
  if (series === null) return null;
  const places = Array.from({ length: TERM_PLACES + 1 }, (_, i) =>
    series(start + ((end - start) * i) / TERM_PLACES).error.slice(),
  );
  const weight = weightOfSlopes(method).value;
  const terms = Array.from({ length: powers.last - powers.first + 1 }, (_, m): LeadingError => {
    const power = powers.first + m;
    const local = new Float64Array((TERM_PLACES + 1) * size);
    places.forEach((error, i) => local.set(error.subarray(power * size, (power + 1) * size), i * size));
    const values = globalError(along, { power, values: local }, weight, TERM_PARTS);
    return { order: power - 1, start, end, size, values, doubts: null };
  });
  return terms.every(({ values }) => values.every(Number.isFinite)) ? terms : null;
}

/** How far e of a component may be off at a time; 0 where that was not looked at. */
export function doubtAt({ start, end, size, doubts }: LeadingError, place: number, t: number): number {
  if (doubts === null) return 0;
  const last = doubts.length / size - 1;
  const at = Math.min(last, Math.max(0, ((t - start) / (end - start)) * last));
  return Math.max(doubts[Math.floor(at) * size + place]!, doubts[Math.ceil(at) * size + place]!);
}

/** e of a component at a time. */
export function leadingAt({ start, end, size, values }: LeadingError, place: number, t: number): number {
  const last = values.length / size - 1;
  return between(values, size, place, Math.min(last, Math.max(0, ((t - start) / (end - start)) * last)));
}
