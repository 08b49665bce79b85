import { rhsSeries, type RhsSeries } from '../../compile/jets/rhs-series.ts';
import type { Problem } from '../../problem/problem.ts';
import type { LinearForm } from '../form/form.ts';
import { keptPlace } from '../form/kind.ts';
import type { FormStage, LinearMethod } from '../form/linear-method.ts';

/**
 * What one step from exact values makes, less the exact solution, as a series in h: coefficient k of component j at
 * [k*size + j]. The step goes from t; `solution` holds the Taylor coefficients of the exact solution there, likewise.
 */
export type StepExpansion = (t: number, solution: Float64Array) => Float64Array;

/** The vectors of a method: all components, or positions and velocities, by their places in the state. */
interface Places {
  readonly y: readonly number[];
  readonly x: readonly number[];
  readonly v: readonly number[];
}

function placesOf({ blocks, size }: Problem): Places {
  const of = (derivative: number): readonly number[] =>
    blocks.flatMap((block) =>
      block.derivative === derivative ? Array.from({ length: block.size }, (_, k) => block.offset + k) : [],
    );
  return { y: Array.from({ length: size }, (_, j) => j), x: of(0), v: of(1) };
}

function wholePower(base: number, exponent: number): number {
  let made = 1;
  for (let i = 0; i < exponent; i += 1) made *= base;
  return made;
}

/** One term of a form as a series: coefficient k of its source, times factors[k], goes to coefficient k + power. */
interface SeriesTerm {
  /** The slope of a stage; null for the exact solution. */
  readonly from: Float64Array | null;
  /** Components of the source, and where among them those of the form are. */
  readonly rows: number;
  readonly places: readonly number[];
  readonly power: number;
  readonly factors: readonly number[];
}

/** Follows a step through truncated series in h. */
class Expanding {
  readonly #method: LinearMethod;
  readonly #rightHandSides: RhsSeries;
  readonly #places: Places;
  readonly #size: number;
  readonly #order: number;
  readonly #width: number;
  readonly #slopes: readonly Float64Array[];
  readonly #state: Float64Array;
  readonly #out: Float64Array;
  readonly #form: Float64Array;
  readonly #error: Float64Array;
  readonly #terms = new Map<LinearForm, readonly SeriesTerm[]>();
  #solution: Float64Array;

  constructor(method: LinearMethod, problem: Problem, order: number) {
    this.#method = method;
    this.#rightHandSides = rhsSeries(problem, order);
    this.#places = placesOf(problem);
    this.#size = problem.size;
    this.#order = order;
    this.#width = 'y' in method.next ? problem.size : this.#places.x.length;
    const long = problem.size * (order + 1);
    this.#slopes = method.stages.map(() => new Float64Array(this.#width * (order + 1)));
    this.#state = new Float64Array(long);
    this.#out = new Float64Array(long);
    this.#form = new Float64Array(this.#width * (order + 1));
    this.#error = new Float64Array(long);
    this.#solution = new Float64Array(long);
  }

  at(t: number, solution: Float64Array): Float64Array {
    this.#solution = solution;
    const { stages, next, implicit } = this.#method;
    for (const slope of this.#slopes) slope.fill(0);
    // each round of an implicit formula makes one more coefficient right
    const rounds = implicit ? this.#order + 2 : 1;
    for (let round = 0; round < rounds; round += 1)
      for (let i = 0; i < stages.length; i += 1) this.#evaluate(t, stages[i]!, this.#slopes[i]!);
    if ('y' in next) this.#less(next.y, this.#places.y);
    else {
      this.#less(next.x, this.#places.x);
      this.#less(next.v, this.#places.v);
    }
    return this.#error;
  }

  #less(form: LinearForm, places: readonly number[]): void {
    this.#sum(form);
    for (let k = 0; k <= this.#order; k += 1)
      for (let j = 0; j < places.length; j += 1) {
        const at = k * this.#size + places[j]!;
        this.#error[at] = this.#form[k * this.#width + j]! - this.#solution[at]!;
      }
  }

  #evaluate(t: number, stage: FormStage, slope: Float64Array): void {
    if (stage.primes > 0) {
      this.#derivative(stage, slope);
      return;
    }
    const { y, x, v } = this.#places;
    if ('y' in stage.at) this.#put(stage.at.y, y);
    else {
      this.#put(stage.at.x, x);
      this.#put(stage.at.v, v);
    }
    this.#rightHandSides(t, stage.shift.value, this.#state, this.#out);
    const from = 'y' in stage.at ? y : v;
    for (let k = 0; k <= this.#order; k += 1)
      for (let j = 0; j < from.length; j += 1)
        slope[k * this.#width + j] = this.#out[k * this.#size + from[j]!]!;
  }

  /** The derivative of a right-hand side along the solution, where it is taken on the solution itself. */
  #derivative(stage: FormStage, slope: Float64Array): void {
    const back = keptPlace(stage) ?? 0;
    const rise = stage.primes + 1;
    for (let m = 0; m + rise <= this.#order; m += 1) {
      let factor = wholePower(-back, m);
      for (let i = m + 1; i <= m + rise; i += 1) factor *= i;
      for (let j = 0; j < this.#width; j += 1)
        slope[m * this.#width + j] = factor * this.#solution[(m + rise) * this.#size + j]!;
    }
  }

  #put(form: LinearForm, places: readonly number[]): void {
    this.#sum(form);
    for (let k = 0; k <= this.#order; k += 1)
      for (let j = 0; j < places.length; j += 1)
        this.#state[k * this.#size + places[j]!] = this.#form[k * this.#width + j]!;
  }

  /** A form as a series, into #form. */
  #sum(form: LinearForm): void {
    const [sum, width] = [this.#form, this.#width];
    sum.fill(0);
    for (const { from, rows, places, power, factors } of this.#termsOf(form)) {
      const source = from ?? this.#solution;
      for (let k = Math.max(0, -power); k + power <= this.#order; k += 1) {
        const [by, to, at] = [factors[k]!, (k + power) * width, k * rows];
        for (let j = 0; j < width; j += 1) sum[to + j]! += by * source[at + places[j]!]!;
      }
    }
  }

  #termsOf(form: LinearForm): readonly SeriesTerm[] {
    const known = this.#terms.get(form);
    if (known !== undefined) return known;
    const made: SeriesTerm[] = [];
    for (const { basis, factor } of form.values())
      for (const [power, { value }] of factor)
        if (basis.kind === 'stage')
          made.push({
            from: this.#slopes[basis.stage]!,
            rows: this.#width,
            places: Array.from({ length: this.#width }, (_, j) => j),
            power,
            factors: Array.from({ length: this.#order + 1 }, () => value),
          });
        else if (basis.kind === 'kept')
          made.push({
            from: null,
            rows: this.#size,
            places: this.#places[basis.variable],
            power,
            factors: Array.from({ length: this.#order + 1 }, (_, k) => value * wholePower(-basis.back, k)),
          });
    this.#terms.set(form, made);
    return made;
  }
}

/**
 * The error of one step from exact values as a power series in h, by carrying truncated series through the formula.
 *
 * @returns null for a method with partial derivatives, or with derivatives of f away from the solution
 * @throws Refusal for more than sixty components
 */
export function stepExpansion(method: LinearMethod, problem: Problem, order: number): StepExpansion | null {
  const isFollowed = method.stages.every(
    (stage) =>
      stage.partial === null && (stage.primes === 0 || ('y' in stage.at && keptPlace(stage) !== null)),
  );
  if (!isFollowed) return null;
  const expanding = new Expanding(method, problem, order);
  return (t, solution) => expanding.at(t, solution);
}
