import {
  bind,
  type Call,
  type Expression,
  type IndexedLeaf,
  type NameLeaf,
  walk,
} from '../../formula/expression.ts';
import { CONSTANTS } from '../../formula/functions.ts';
import {
  type Given,
  givenText,
  type Method,
  type MethodStatement,
  type Shape,
  stepsBack,
  valuesOf,
  type Variable,
} from '../../method/method.ts';
import {
  bareRegister,
  constantTree,
  type Register,
  registerTree,
  STEP_TREE,
  type StepTree,
  timeTree,
} from './step-tree.ts';

/** One instruction of a step. */
export type Instruction =
  | {
      /** A number, or a vector made of others component by component. */
      readonly kind: 'combine';
      readonly into: Register;
      readonly shape: Shape;
      readonly value: StepTree;
      readonly line: string;
    }
  | {
      /** f (or a) at a time and a value (or a position and a velocity). */
      readonly kind: 'rate';
      readonly into: Register;
      readonly time: StepTree;
      readonly at: readonly Register[];
      readonly line: string;
    }
  | {
      /** The total derivative of f of an order from 1 on. */
      readonly kind: 'derivative';
      readonly order: number;
      readonly into: Register;
      readonly time: StepTree;
      readonly at: Register;
      readonly line: string;
    }
  | SolveInstruction;

/** Values that their own formulas hold: find `unknowns` so that each equals its `results`. */
export interface SolveInstruction {
  readonly kind: 'solve';
  readonly unknowns: readonly Register[];
  /** Compute the results from the unknowns. */
  readonly values: readonly Instruction[];
  readonly results: readonly Register[];
  /** What Newton's method starts from: the present value for a value, f there for a slope. */
  readonly guess: 'present' | 'formula';
  readonly line: string;
}

/** A named quantity of a step, to be shown in a table of steps. */
export interface Stage {
  readonly name: string;
  readonly shape: Shape;
  readonly register: Register;
}

/** A value kept from step to step: variable or f at n - back. */
export interface Kept {
  readonly of: Variable | 'f';
  readonly back: number;
  readonly register: Register;
}

/** A method as instructions, whatever the size of the problem. */
export interface Program {
  readonly form: Method['form'];
  readonly instructions: readonly Instruction[];
  /** Registers of the present values: y, or x and v. */
  readonly present: readonly Register[];
  /** Registers of the new values after the last instruction, in the same order. */
  readonly next: readonly Register[];
  readonly stages: readonly Stage[];
  /** Values from before, the most recent first; none for a one-step method. */
  readonly kept: readonly Kept[];
  /** The register of f[n], where f is kept; null where it is not. */
  readonly presentRate: Register | null;
  readonly depth: number;
}

/**
 * Lowers a method to instructions: every call of f becomes one of its own, in the order of the text,
 * so that f is evaluated exactly as often as the text says; f[n] is evaluated once a step and kept.
 */
export function lower(method: Method): Program {
  return new Lowering(method).program();
}

class Lowering {
  readonly #method: Method;
  readonly #variables: readonly Variable[];
  readonly #stages: Stage[] = [];
  readonly #named = new Map<string, Register>();
  readonly #kept: Kept[] = [];
  readonly #next = new Map<Variable, Register>();
  readonly #present: readonly Register[];
  #instructions: Instruction[] = [];
  #presentRate: Register | null = null;
  #registers = 0;

  constructor(method: Method) {
    this.#method = method;
    this.#variables = method.form === 'first order' ? ['y'] : ['x', 'v'];
    this.#present = this.#variables.map(() => this.#registers++);
    this.#variables.forEach((variable, i) => this.#named.set(variable, this.#present[i]!));
  }

  program(): Program {
    const { statements, form, depth } = this.#method;
    if (this.#usesKeptRate()) {
      this.#presentRate = this.#registers++;
      this.#instructions.push({
        kind: 'rate',
        into: this.#presentRate,
        time: timeTree(0),
        at: this.#present,
        line: 'f[n]',
      });
    }
    for (const statement of statements)
      if (statement.kind === 'let') this.#let(statement.given, statement.value, statement.shape);
      else this.#solve(statement);
    return {
      form,
      instructions: this.#instructions,
      present: this.#present,
      next: this.#variables.map((variable) => this.#next.get(variable) ?? 0),
      stages: this.#stages,
      kept: this.#keptInOrder(),
      presentRate: this.#presentRate,
      depth,
    };
  }

  #usesKeptRate(): boolean {
    let found = false;
    for (const value of this.#method.statements.flatMap(valuesOf))
      walk(value, (node) => (found ||= node.kind === 'indexed' && node.name === 'f'));
    return found;
  }

  /** All values back to the deepest that is used, so that they can move up by one a step. */
  #keptInOrder(): readonly Kept[] {
    const deepest = new Map<Kept['of'], number>();
    for (const { of, back } of this.#kept) deepest.set(of, Math.max(deepest.get(of) ?? 0, back));
    return [...deepest].flatMap(([of, most]) =>
      Array.from({ length: most }, (_, i) => ({ of, back: i + 1, register: this.#keptRegister(of, i + 1) })),
    );
  }

  #keptRegister(of: Kept['of'], back: number): Register {
    const known = this.#kept.find((kept) => kept.of === of && kept.back === back);
    if (known !== undefined) return known.register;
    const register = this.#registers++;
    this.#kept.push({ of, back, register });
    return register;
  }

  #let(given: Given, value: Expression, shape: Shape): void {
    const line = givenText(given);
    this.#give(given, this.#place(this.#expand(value, line), shape, line), shape);
  }

  #give(given: Given, register: Register, shape: Shape): void {
    if (given.kind === 'next') {
      this.#next.set(given.variable, register);
      this.#named.set(`${given.variable}[n+1]`, register);
      return;
    }
    this.#named.set(given.name, register);
    this.#stages.push({ name: given.name, shape, register });
  }

  #solve(statement: MethodStatement & { readonly kind: 'solve' }): void {
    const unknowns = statement.given.map(() => this.#registers++);
    const line = statement.given.map(givenText).join(', ');
    statement.given.forEach((given, i) => this.#give(given, unknowns[i]!, 'vector'));
    const outer = this.#instructions;
    this.#instructions = [];
    const results = statement.values.map((value) => this.#place(this.#expand(value, line), 'vector', line));
    const values = this.#instructions;
    this.#instructions = outer;
    const guess = statement.given.some((given) => given.kind === 'next') ? 'present' : 'formula';
    this.#instructions.push({ kind: 'solve', unknowns, values, results, guess, line });
  }

  /** The register of a value: its own where it is just a register, a new one otherwise. */
  #place(value: StepTree, shape: Shape, line: string): Register {
    const bare = bareRegister(value);
    if (bare !== null) return bare;
    const into = this.#registers++;
    this.#instructions.push({ kind: 'combine', into, shape, value, line });
    return into;
  }

  #expand(expression: Expression, line: string): StepTree {
    return bind(
      expression,
      (leaf) => this.#leaf(leaf),
      (node) => (node.name === 'f' || node.name === 'a' ? this.#called(node, line) : null),
    );
  }

  #leaf(leaf: NameLeaf | IndexedLeaf): StepTree {
    if (leaf.kind === 'indexed') return this.#indexed(leaf.name, stepsBack(leaf) ?? 0);
    const register = this.#named.get(leaf.name);
    if (register !== undefined) return registerTree(register);
    if (leaf.name === 't') return timeTree(0);
    return leaf.name === 'h' ? STEP_TREE : constantTree(CONSTANTS.get(leaf.name) ?? NaN);
  }

  /** A call of f or a: an instruction of its own. */
  #called(node: Call<NameLeaf | IndexedLeaf>, line: string): StepTree | null {
    const [time, ...values] = node.inputs;
    if (time === undefined) return null;
    const at = values.map((value) => this.#place(this.#expand(value, line), 'vector', line));
    const when = this.#expand(time, line);
    const into = this.#registers++;
    const [first] = at;
    if (node.primes > 0 && first !== undefined)
      this.#instructions.push({ kind: 'derivative', order: node.primes, into, time: when, at: first, line });
    else this.#instructions.push({ kind: 'rate', into, time: when, at, line });
    return registerTree(into);
  }

  #indexed(name: string, back: number): StepTree {
    if (name === 't') return timeTree(-back);
    if (back < 0) return registerTree(this.#named.get(`${name}[n+1]`) ?? 0);
    if (name === 'f')
      return registerTree(back === 0 ? (this.#presentRate ?? 0) : this.#keptRegister('f', back));
    const variable = this.#variables.find((v) => v === name) ?? 'y';
    if (back === 0) return registerTree(this.#named.get(variable) ?? 0);
    return registerTree(this.#keptRegister(variable, back));
  }
}
