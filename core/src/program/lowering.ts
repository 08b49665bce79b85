import { holdsValue } from './holds-value.ts';
import {
  bind,
  type Call,
  type Expression,
  type IndexedLeaf,
  name,
  type NameLeaf,
  walk,
} from '../formula/expression.ts';
import { CONSTANTS } from '../formula/functions.ts';
import {
  type Given,
  givenText,
  type Method,
  type MethodStatement,
  partialOf,
  stepsBack,
  valuesOf,
  type Variable,
} from '../method/method.ts';
import {
  bareRegister,
  constantTree,
  type Register,
  registerTree,
  type StepTree,
  stepTree,
  timeTree,
} from './step-tree.ts';

import { type Around, applied, holdsOperator, type Operator, operatorOf } from './operators.ts';
import type { Instruction, PastValue, Program, ProgramLine, Stage, ValueShape } from './program.ts';

/**
 * Lowers a method to instructions: every call of f becomes one of its own, in the order of the text,
 * so that f is evaluated exactly as often as the text says; f[n] is evaluated once a step and kept.
 *
 * @param isOne whether the problem has one equation: then a Jacobian is a number like any other
 */
export function lower(method: Method, isOne: boolean = method.oneEquation): Program {
  return new Lowering(method, isOne).program();
}

/** Stands in for an input that a text lacks; such a text is refused before. */
const NOWHERE: Expression = name('t');

class Lowering {
  readonly #method: Method;
  readonly #variables: readonly Variable[];
  readonly #stages: Stage[] = [];
  readonly #lines: ProgramLine[] = [];
  readonly #named = new Map<string, Register>();
  readonly #kept: PastValue[] = [];
  readonly #next = new Map<Variable, Register>();
  readonly #present: readonly Register[];
  readonly #isOne: boolean;
  readonly #functions = new Map<string, MethodStatement & { readonly kind: 'function' }>();
  readonly #operators = new Map<string, Operator>();
  /** What the inputs of a function represent, while its body is substituted. */
  #inputs: ReadonlyMap<string, StepTree> = new Map();
  #instructions: Instruction[] = [];
  #presentRhs: Register | null = null;
  #registers = 0;

  constructor(method: Method, isOne: boolean) {
    this.#method = method;
    this.#isOne = isOne;
    this.#variables = method.form === 'first order' ? ['y'] : ['x', 'v'];
    this.#present = this.#variables.map(() => this.#registers++);
    this.#variables.forEach((variable, i) => this.#named.set(variable, this.#present[i]!));
  }

  program(): Program {
    const { statements, form, depth, called } = this.#method;
    if (this.#usesKeptRhs()) {
      this.#presentRhs = this.#registers++;
      this.#instructions.push({
        kind: 'rhs',
        into: this.#presentRhs,
        time: timeTree(0),
        at: this.#present,
        typedAt: [],
        line: 'f[n]',
        span: { from: 0, to: 0 },
      });
    }
    for (const statement of statements)
      if (statement.kind === 'let') this.#let(statement);
      else if (statement.kind === 'function') this.#functions.set(statement.name, statement);
      else this.#solve(statement);
    return {
      form,
      called,
      instructions: this.#instructions,
      lines: this.#lines,
      present: this.#present,
      next: this.#variables.map((variable) => this.#next.get(variable) ?? 0),
      stages: this.#stages,
      kept: this.#keptInOrder(),
      presentRhs: this.#presentRhs,
      depth,
    };
  }

  #usesKeptRhs(): boolean {
    let found = false;
    for (const value of this.#method.statements.flatMap(valuesOf))
      walk(value, (node) => (found ||= node.kind === 'indexed' && node.name === 'f'));
    return found;
  }

  /** All values back to the deepest that is used, so that they can move up by one per step. */
  #keptInOrder(): readonly PastValue[] {
    const deepest = new Map<PastValue['of'], number>();
    for (const { of, back } of this.#kept) deepest.set(of, Math.max(deepest.get(of) ?? 0, back));
    return [...deepest].flatMap(([of, most]) =>
      Array.from({ length: most }, (_, i) => ({ of, back: i + 1, register: this.#keptRegister(of, i + 1) })),
    );
  }

  #keptRegister(of: PastValue['of'], back: number): Register {
    const known = this.#kept.find((kept) => kept.of === of && kept.back === back);
    if (known !== undefined) return known.register;
    const register = this.#registers++;
    this.#kept.push({ of, back, register });
    return register;
  }

  #let({ given, value, shape, at: span }: MethodStatement & { readonly kind: 'let' }): void {
    const line = givenText(given);
    if (shape === 'operator' && !this.#isOne && given.kind === 'name') {
      this.#operators.set(given.name, operatorOf(value, this.#around(line)));
      return;
    }
    const single = shape === 'scalar' ? 'scalar' : 'vector';
    const expanded = this.#expand(value, line);
    const register = this.#place(expanded, single, line);
    this.#lines.push({ given, span, register, source: value, value: expanded, isSolved: false });
    this.#give(given, register, single);
  }

  #give(given: Given, register: Register, shape: ValueShape): void {
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
    const span = statement.at;
    statement.given.forEach((given, i) => this.#give(given, unknowns[i]!, 'vector'));
    const outer = this.#instructions;
    this.#instructions = [];
    const results = statement.values.map((source, i) => {
      const value = this.#expand(source, line);
      const given = statement.given[i];
      if (given !== undefined)
        this.#lines.push({ given, span, register: unknowns[i] ?? 0, source, value, isSolved: true });
      return this.#place(value, 'vector', line);
    });
    const values = this.#instructions;
    this.#instructions = outer;
    const isValue =
      statement.given.some((given) => given.kind === 'next') || statement.values.some(holdsValue);
    const guess = isValue ? 'present' : 'zero';
    this.#instructions.push({ kind: 'solve', unknowns, values, results, guess, line, span });
  }

  /** The register of a value: its own where it is just a register, a new one otherwise. */
  #place(value: StepTree, shape: ValueShape, line: string): Register {
    const bare = bareRegister(value);
    if (bare !== null) return bare;
    const into = this.#registers++;
    this.#instructions.push({ kind: 'combine', into, shape, value, line, span: value.at });
    return into;
  }

  #expand(expression: Expression, line: string): StepTree {
    if (!this.#isOne && holdsOperator(expression, this.#operators))
      return applied(expression, this.#around(line));
    return bind(
      expression,
      (leaf) => this.#leaf(leaf),
      (node) => this.#called(node, line),
    );
  }

  /** What the code of Jacobians asks of the step around it. */
  #around(line: string): Around {
    return {
      expand: (part) => this.#expand(part, line),
      place: (value) => this.#place(value, 'vector', line),
      isOperator: (part) => this.#method.shapes.get(part) === 'operator',
      named: this.#operators,
      jacobian: (node) => this.#jacobian(node, line),
      called: (node) => this.#called(node, line),
    };
  }

  #jacobian(node: Call<NameLeaf | IndexedLeaf>, line: string): Operator {
    const { time, at } = this.#inputsOf(node, line);
    const { times = 0, values = 1 } = partialOf(node.name) ?? {};
    return (along) => {
      const into = this.#registers++;
      const span = node.at;
      this.#instructions.push({ kind: 'partial', times, values, along, into, time, at, line, span });
      return registerTree(into, span);
    };
  }

  #leaf(leaf: NameLeaf | IndexedLeaf): StepTree {
    const { at } = leaf;
    if (leaf.kind === 'indexed') return this.#indexed(leaf, stepsBack(leaf) ?? 0);
    const input = this.#inputs.get(leaf.name);
    if (input !== undefined) return input;
    const register = this.#named.get(leaf.name);
    if (register !== undefined) return registerTree(register, at);
    if (leaf.name === 't') return timeTree(0, at);
    return leaf.name === 'h' ? stepTree(at) : constantTree(CONSTANTS.get(leaf.name) ?? NaN, leaf.name, at);
  }

  /** Time and value of a call of f or one of its derivatives. */
  #inputsOf(
    node: Call<NameLeaf | IndexedLeaf>,
    line: string,
  ): { readonly time: StepTree; readonly at: Register } {
    const [time = NOWHERE, value = NOWHERE] = node.inputs;
    const at = this.#place(this.#expand(value, line), 'vector', line);
    return { time: this.#expand(time, line), at };
  }

  /** A call of f, of a, or of a derivative: an instruction of its own; null for a function of the notation. */
  #called(node: Call<NameLeaf | IndexedLeaf>, line: string): StepTree | null {
    const typed = this.#functions.get(node.name);
    if (typed !== undefined) return this.#typed(typed, node, line);
    const partial = partialOf(node.name);
    if (node.name !== 'f' && node.name !== 'a' && partial === null) return null;
    const [time, ...values] = node.inputs;
    if (time === undefined) return null;
    const at = values.map((value) => this.#place(this.#expand(value, line), 'vector', line));
    const when = this.#expand(time, line);
    const into = this.#registers++;
    const [first] = at;
    if (first === undefined) return null;
    const common = { into, time: when, line, span: node.at };
    if (partial !== null)
      this.#instructions.push({ kind: 'partial', ...partial, along: null, at: first, ...common });
    else if (node.primes > 0)
      this.#instructions.push({ kind: 'derivative', order: node.primes, at: first, ...common });
    else this.#instructions.push({ kind: 'rhs', at, typedAt: values, ...common });
    return registerTree(into, node.at);
  }

  /** A derivative that the text types out, its inputs put in for their names. */
  #typed(
    typed: MethodStatement & { readonly kind: 'function' },
    node: Call<NameLeaf | IndexedLeaf>,
    line: string,
  ): StepTree {
    const { time, at } = this.#inputsOf(node, line);
    const when = time.kind === 'bound' ? time : registerTree(this.#place(time, 'scalar', line));
    const around = this.#inputs;
    const [first, second] = typed.inputs;
    this.#inputs = new Map([
      [first, when],
      [second, registerTree(at)],
    ]);
    const value = this.#expand(typed.value, typed.name);
    this.#inputs = around;
    const into = this.#registers++;
    this.#instructions.push({ kind: 'typed', into, value, line: typed.name, span: node.at });
    return registerTree(into, node.at);
  }

  #indexed({ name, at }: IndexedLeaf, back: number): StepTree {
    if (name === 't') return timeTree(-back, at);
    if (back < 0) return registerTree(this.#named.get(`${name}[n+1]`) ?? 0, at);
    if (name === 'f')
      return registerTree(back === 0 ? (this.#presentRhs ?? 0) : this.#keptRegister('f', back), at);
    const variable = this.#variables.find((v) => v === name) ?? 'y';
    if (back === 0) return registerTree(this.#named.get(variable) ?? 0, at);
    return registerTree(this.#keptRegister(variable, back), at);
  }
}
