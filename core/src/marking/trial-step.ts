import { largest, solveDense } from '../compile/newton/linear-system.ts';
import type { Layout } from '../program/layout.ts';
import type { Instruction, Program, SolveInstruction } from '../program/program.ts';
import type { Register, StepLeaf, StepTree } from '../program/step-tree.ts';
import { Refusal } from '../text/refusal.ts';
import { roundedDoubles } from '../formula/arithmetic.ts';
import { evaluateIn } from '../formula/evaluate.ts';
import { type Evaluated, evaluated } from './closures.ts';
import type { TrialRhs } from './trial-rhs.ts';

/** Most unknown numbers that one step is solved for. */
const MAX_UNKNOWNS = 40;
/** Corrections of Newton's method at most, and the relative size at which they are none. */
const MAX_CORRECTIONS = 25;
const SMALLEST = 1e-15;
/** Change of an unknown for a difference quotient. */
const CHANGE = 1e-7;

/** Numbers by place: faster than to make them from a list, for the few that a trial has. */
function filled(count: number, value: (place: number) => number): Float64Array {
  const made = new Float64Array(count);
  for (let i = 0; i < count; i += 1) made[i] = value(i);
  return made;
}

/** Where a step is done. */
export interface TrialPlace {
  readonly n: number;
  readonly h: number;
  /** The time of a grid point. */
  readonly timeOf: (n: number) => number;
}

/** States of the problem at grid points, the present one first. */
export type Past = readonly ArrayLike<number>[];

/**
 * Steps of one method, done instruction by instruction: the same numbers as the generated loop but for the last places, made
 * without compiling. Registers keep what they hold from step to step, so that what is used before it is computed is that of the
 * step before, and 0 at first.
 */
export class TrialStep {
  readonly #program: Program;
  readonly #layout: Layout;
  #rhs: TrialRhs;
  readonly #round: ((x: number) => number) | null;
  #registers: Float64Array[] = [];
  /** Formulas that were evaluated before: null for one that was evaluated once. */
  readonly #trees = new Map<StepTree, Evaluated | null>();
  #place: TrialPlace = { n: 0, h: 0, timeOf: () => 0 };
  #component = 0;

  constructor(program: Program, layout: Layout, rhs: TrialRhs, round: ((x: number) => number) | null) {
    this.#program = program;
    this.#layout = layout;
    this.#rhs = rhs;
    this.#round = round;
  }

  /** Begins again, for a run of the same method with these right-hand sides. */
  begin(rhs: TrialRhs): this {
    this.#rhs = rhs;
    this.#registers = [];
    return this;
  }

  get depth(): number {
    return this.#program.depth;
  }

  /** The state one step on. */
  step(past: Past, place: TrialPlace): Float64Array {
    this.#place = place;
    const { present, kept, instructions, next } = this.#program;
    present.forEach((register, vector) => this.#set(register, this.#vectorOf(past[0] ?? [], vector)));
    for (const { of, back, register } of kept) {
      const state = past[back] ?? [];
      if (of === 'f') {
        const at = this.#layout.places.map((_, vector) => this.#vectorOf(state, vector));
        this.#set(register, this.#rhs.at(place.timeOf(place.n - back), at));
      } else this.#set(register, this.#vectorOf(state, of === 'v' ? 1 : 0));
    }
    for (const instruction of instructions) this.#do(instruction);
    return filled(this.#layout.of.length, (i) => {
      const { vector, index } = this.#layout.of[i] ?? { vector: -1, index: 0 };
      const register = next[vector];
      return register === undefined ? NaN : this.#value(register, index);
    });
  }

  /** The stages of the last step, in the order of the program, a vector as its components. */
  stages(): readonly number[] {
    return this.#program.stages.flatMap(({ register, shape }) =>
      shape === 'scalar'
        ? [this.#value(register, 0)]
        : Array.from({ length: this.#layout.width }, (_, j) => this.#value(register, j)),
    );
  }

  #vectorOf(state: ArrayLike<number>, vector: number): Float64Array {
    const places = this.#layout.places[vector] ?? [];
    return filled(places.length, (i) => state[places[i] ?? -1] ?? NaN);
  }

  #set(register: Register, values: Float64Array): void {
    this.#registers[register] = values;
  }

  #vector(register: Register): Float64Array {
    const known = this.#registers[register];
    if (known !== undefined) return known;
    const zeros = new Float64Array(this.#layout.width);
    this.#registers[register] = zeros;
    return zeros;
  }

  #value(register: Register, component: number): number {
    const values = this.#vector(register);
    return values[values.length === 1 ? 0 : component] ?? NaN;
  }

  #leaf(to: StepLeaf): Evaluated {
    switch (to.kind) {
      case 'time':
        return () => this.#place.timeOf(this.#place.n + to.offset);
      case 'step':
        return () => this.#place.h;
      case 'constant':
        return () => to.value;
      case 'register':
        return () => this.#value(to.register, this.#component);
      case 'tangent':
        return () => NaN;
    }
  }

  #formula(tree: StepTree, component: number): number {
    this.#component = component;
    const known = this.#trees.get(tree);
    if (known === undefined) {
      // most trials end after one step: what is evaluated once is not worth a function of its own
      this.#trees.set(tree, null);
      return evaluateIn(roundedDoubles(this.#round ?? ((x) => x)), tree, (node) =>
        node.kind === 'bound' ? this.#leaf(node.to)() : NaN,
      );
    }
    const made = known ?? evaluated(tree, (to) => this.#leaf(to), this.#round);
    this.#trees.set(tree, made);
    return made();
  }

  #do(instruction: Instruction): void {
    switch (instruction.kind) {
      case 'rhs': {
        const when = this.#formula(instruction.time, 0);
        this.#set(
          instruction.into,
          this.#rhs.at(
            when,
            instruction.at.map((register) => this.#vector(register)),
          ),
        );
        return;
      }
      case 'derivative': {
        const when = this.#formula(instruction.time, 0);
        this.#set(instruction.into, this.#rhs.derivative(instruction, when, this.#vector(instruction.at)));
        return;
      }
      case 'partial': {
        const { along, at, time, into } = instruction;
        const moving = along === null ? [] : this.#vector(along);
        this.#set(into, this.#rhs.partial(instruction, this.#formula(time, 0), [this.#vector(at)], moving));
        return;
      }
      case 'typed':
      case 'combine': {
        const isScalar = instruction.kind === 'combine' && instruction.shape === 'scalar';
        const width = isScalar ? 1 : this.#layout.width;
        const { value, into } = instruction;
        this.#set(
          into,
          filled(width, (j) => this.#formula(value, j)),
        );
        return;
      }
      case 'solve':
        this.#solve(instruction);
    }
  }

  /** Newton's method with difference quotients: its end is the root, whatever the way there. */
  #solve({ unknowns, values, results, guess, line }: SolveInstruction): void {
    const { width } = this.#layout;
    const count = unknowns.length * width;
    if (count > MAX_UNKNOWNS)
      throw new Refusal('size', `marking solves for at most ${MAX_UNKNOWNS} numbers in a step, not ${count}`);
    const { next, present } = this.#program;
    const first = unknowns.flatMap((register) => {
      const own = present[Math.max(0, next.indexOf(register))] ?? 0;
      return guess === 'zero' ? Array.from({ length: width }, () => 0) : [...this.#vector(own)];
    });
    const residual = (at: readonly number[]): number[] => {
      unknowns.forEach((register, i) =>
        this.#set(register, Float64Array.from(at.slice(i * width, (i + 1) * width))),
      );
      for (const inner of values) this.#do(inner);
      return results.flatMap((register, i) =>
        Array.from({ length: width }, (_, j) => this.#value(register, j) - (at[i * width + j] ?? NaN)),
      );
    };
    const fault = `Newton's method does not converge for ${line}`;
    let at: readonly number[] = first;
    let off = residual(at);
    for (let round = 0; round < MAX_CORRECTIONS; round += 1) {
      const base = off;
      const matrix = new Float64Array(count * count);
      at.forEach((value, j) => {
        const change = CHANGE * (1 + Math.abs(value));
        const moved = residual(at.map((one, k) => (k === j ? one + change : one)));
        moved.forEach((one, i) => {
          matrix[i * count + j] = (one - (base[i] ?? NaN)) / change;
        });
      });
      const correction = Float64Array.from(base);
      if (!solveDense(matrix, correction, count)) throw new Refusal('form', fault);
      at = at.map((value, j) => value - (correction[j] ?? NaN));
      off = residual(at);
      const size = Math.max(...at.map(Math.abs));
      if (!(largest(correction) > SMALLEST * size)) break;
    }
    if (!off.every((one, i) => Math.abs(one) <= 1e-9 * (1 + Math.abs(at[i] ?? 0))))
      throw new Refusal('form', fault);
  }
}
