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

/**
 * A form as a series: to each of its coefficients, products of factors and coefficients of what is known, in the order
 * of the form. Places are those in an array of known series, and in an array of all components.
 */
interface SeriesSum {
  /** All places of its coefficients. */
  readonly places: Int32Array;
  readonly to: Int32Array;
  readonly factors: Float64Array;
  readonly from: Int32Array;
}

/** A stage, and what its argument is. */
interface Argument {
  readonly stage: FormStage;
  readonly sums: readonly SeriesSum[];
  /** The components that its slope has. */
  readonly components: readonly number[];
}

function add({ places, to, factors, from }: SeriesSum, known: Float64Array, into: Float64Array): void {
  for (let i = 0; i < places.length; i += 1) into[places[i]!] = 0;
  for (let i = 0; i < to.length; i += 1) into[to[i]!]! += factors[i]! * known[from[i]!]!;
}

/** Follows a step through truncated series in h. */
class Expanding {
  readonly #method: LinearMethod;
  readonly #rightHandSides: RhsSeries;
  readonly #places: Places;
  readonly #size: number;
  readonly #order: number;
  readonly #width: number;
  /** The series of the solution, then those of the slopes. */
  readonly #known: Float64Array;
  readonly #solution: Float64Array;
  readonly #slopes: readonly Float64Array[];
  readonly #arguments: readonly Argument[];
  readonly #next: readonly SeriesSum[];
  readonly #state: Float64Array;
  readonly #out: Float64Array;
  readonly #error: Float64Array;

  constructor(method: LinearMethod, problem: Problem, order: number) {
    this.#method = method;
    this.#rightHandSides = rhsSeries(problem, order);
    this.#places = placesOf(problem);
    this.#size = problem.size;
    this.#order = order;
    this.#width = 'y' in method.next ? problem.size : this.#places.x.length;
    const [long, wide] = [problem.size * (order + 1), this.#width * (order + 1)];
    this.#known = new Float64Array(long + wide * method.stages.length);
    this.#solution = this.#known.subarray(0, long);
    this.#slopes = method.stages.map((_, i) => this.#known.subarray(long + i * wide, long + (i + 1) * wide));
    this.#arguments = method.stages.map((stage) => ({
      stage,
      // a derivative along the solution has no argument
      sums: stage.primes > 0 ? [] : this.#sumsOf(stage.at),
      components: 'y' in stage.at ? this.#places.y : this.#places.v,
    }));
    this.#next = this.#sumsOf(method.next);
    this.#state = new Float64Array(long);
    this.#out = new Float64Array(long);
    this.#error = new Float64Array(long);
  }

  at(t: number, solution: Float64Array): Float64Array {
    this.#known.fill(0);
    this.#solution.set(solution);
    // each round of an implicit formula makes one more coefficient right
    const rounds = this.#method.implicit ? this.#order + 2 : 1;
    for (let round = 0; round < rounds; round += 1)
      for (let i = 0; i < this.#arguments.length; i += 1)
        this.#evaluate(t, this.#arguments[i]!, this.#slopes[i]!);
    for (const sum of this.#next) add(sum, this.#known, this.#error);
    for (let i = 0; i < this.#error.length; i += 1) this.#error[i]! -= this.#solution[i]!;
    return this.#error;
  }

  #evaluate(t: number, { stage, sums, components }: Argument, slope: Float64Array): void {
    if (stage.primes > 0) {
      this.#derivative(stage, slope);
      return;
    }
    for (const sum of sums) add(sum, this.#known, this.#state);
    this.#rightHandSides(t, stage.shift.value, this.#state, this.#out);
    for (let k = 0; k <= this.#order; k += 1)
      for (let j = 0; j < components.length; j += 1)
        slope[k * this.#width + j] = this.#out[k * this.#size + components[j]!]!;
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

  #sumsOf(at: FormStage['at']): readonly SeriesSum[] {
    const { y, x, v } = this.#places;
    return 'y' in at ? [this.#sumOf(at.y, y)] : [this.#sumOf(at.x, x), this.#sumOf(at.v, v)];
  }

  /** A form as a series of some components. */
  #sumOf(form: LinearForm, components: readonly number[]): SeriesSum {
    const [to, factors, from]: [number[], number[], number[]] = [[], [], []];
    const [size, order] = [this.#size, this.#order];
    /** One term: coefficient k of its source, times factor(k), goes to coefficient k + power. */
    const put = (power: number, factor: (k: number) => number, source: (k: number, j: number) => number) => {
      for (let k = Math.max(0, -power); k + power <= order; k += 1)
        for (let j = 0; j < components.length; j += 1) {
          to.push((k + power) * size + components[j]!);
          factors.push(factor(k));
          from.push(source(k, j));
        }
    };
    for (const { basis, factor } of form.values())
      for (const [power, { value }] of factor)
        if (basis.kind === 'stage') {
          const first = (size + basis.stage * this.#width) * (order + 1);
          put(
            power,
            () => value,
            (k, j) => first + k * this.#width + j,
          );
        } else if (basis.kind === 'kept') {
          const places = this.#places[basis.variable];
          put(
            power,
            (k) => value * wholePower(-basis.back, k),
            (k, j) => k * size + places[j]!,
          );
        }
    const all = Array.from({ length: order + 1 }, (_, k) => components.map((place) => k * size + place));
    return {
      places: Int32Array.from(all.flat()),
      to: Int32Array.from(to),
      factors: Float64Array.from(factors),
      from: Int32Array.from(from),
    };
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
