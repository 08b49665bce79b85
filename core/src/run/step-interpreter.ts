import type { CompiledRun } from '../compile/compile.ts';
import { jetFunction } from '../compile/jets/jet-function.ts';
import { rounding } from '../compile/precision.ts';
import type { Instruction, SolveInstruction } from '../program/program.ts';
import { type PartialKind, partialRhs, type RhsLeaf, type RhsTree, RhsTrees } from '../program/rhs-tree.ts';
import type { Register, StepLeaf, StepTree } from '../program/step-tree.ts';
import { factorial } from '../formula/factorial.ts';
import { evaluate, type Operation } from '../formula/evaluate.ts';
import type { Expression } from '../formula/expression.ts';
import { type Block, componentName } from '../problem/problem.ts';
import { typedDerivative } from '../problem/typed-derivatives.ts';

/** Which step is done: from grid point n of a grid of step size h that begins at `origin`. */
export interface StepPlace {
  readonly origin: number;
  readonly n: number;
  readonly h: number;
}

/** What is seen of a step while it is interpreted. */
export interface StepObserver {
  /** An operation of a line; `where` says for which component, where there are several. */
  readonly operation: (line: string, where: string, operation: Operation) => void;
  /** A total derivative of f, component by component. */
  readonly derivative: (line: string, order: number, values: readonly number[]) => void;
  /** The formulas of an implicit line at the values of its unknowns. */
  readonly solved: (line: string) => void;
}

const SILENT: StepObserver = {
  operation: () => undefined,
  derivative: () => undefined,
  solved: () => undefined,
};

/** What a step begins with. */
export interface StepStart {
  readonly run: CompiledRun;
  readonly place: StepPlace;
  /** Values of the registers that hold the present values and those kept from before. */
  readonly vectors: ReadonlyMap<Register, readonly number[]>;
  /** The values of an unknown of an implicit line: the solution, or a first guess. */
  readonly unknown: (
    solve: SolveInstruction,
    register: Register,
    present: readonly number[],
  ) => readonly number[];
  readonly observer?: StepObserver;
}

/** The time of a leaf of a step's formula. */
export function timeOf({ origin, n, h }: StepPlace, offset: number): number {
  return origin + (n + offset) * h;
}

/** A component of the state from vectors as a method sees them. */
function inVectors(
  { layout }: CompiledRun,
  vectors: readonly (readonly number[])[],
): (leaf: RhsLeaf) => number {
  return (leaf) => {
    const place = leaf.kind === 'component' ? layout.of[leaf.place] : undefined;
    return place === undefined ? NaN : (vectors[place.vector]?.[place.index] ?? NaN);
  };
}

/** Where a right-hand side is taken. */
export interface RhsPlace {
  readonly when: number;
  /** The vectors of the method: y, or x and v. */
  readonly at: readonly (readonly number[])[];
  /** The vector along which the right-hand side moves, where a derivative is applied to one. */
  readonly along?: readonly number[];
}

/** The number behind a leaf of a right-hand side, or of how it moves. */
export function rhsLeafValue(
  run: CompiledRun,
  { when, at, along = [] }: RhsPlace,
): (leaf: RhsLeaf) => number {
  const component = inVectors(run, at);
  return (leaf) => {
    switch (leaf.kind) {
      case 'time':
        return when;
      case 'constant':
        return leaf.value;
      case 'component':
        return component(leaf);
      case 'tangent':
        return leaf.of.kind === 'component' ? (along[leaf.of.place] ?? NaN) : NaN;
      default:
        return NaN;
    }
  };
}

/**
 * Does one step instruction by instruction, with the arithmetic of the generated loop, and keeps what every register
 * holds. Total derivatives that are not typed may differ from those of the loop in their last digits.
 */
export class StepInterpreter {
  readonly #start: StepStart;
  readonly #observer: StepObserver;
  readonly #trees: RhsTrees;
  readonly #round: (x: number) => number;
  readonly #vectors: Map<Register, readonly number[]>;
  readonly #scalars = new Map<Register, number>();

  constructor(start: StepStart) {
    this.#start = start;
    this.#observer = start.observer ?? SILENT;
    this.#trees = new RhsTrees(start.run.problem);
    this.#round = rounding(start.run.precision);
    this.#vectors = new Map(start.vectors);
  }

  /** All instructions of the step, in their order. */
  step(): this {
    for (const instruction of this.#start.run.program.instructions) this.#do(instruction);
    return this;
  }

  /** The values of a vector register; none before it was computed. */
  vector(register: Register): readonly number[] {
    return this.#vectors.get(register) ?? [];
  }

  /** A register's number, or that of one of its components. */
  valueAt(register: Register, component: number): number {
    return this.#scalars.get(register) ?? this.vector(register)[component] ?? NaN;
  }

  /** The number behind a leaf of a step's formula. */
  leafValue(leaf: StepLeaf, component: number): number {
    const { place } = this.#start;
    switch (leaf.kind) {
      case 'time':
        return timeOf(place, leaf.offset);
      case 'step':
        return place.h;
      case 'constant':
        return leaf.value;
      case 'register':
        return this.valueAt(leaf.register, component);
      case 'tangent':
        return NaN;
    }
  }

  /** A formula of the step for one component. */
  formula(value: StepTree, component: number, line: string): number {
    const { problem } = this.#start.run;
    const where = problem.size === 1 ? '' : ` for ${componentName(problem, component)}`;
    return evaluate(
      value,
      (node) => (node.kind === 'bound' ? this.leafValue(node.to, component) : NaN),
      this.#round,
      (operation) => this.#observer.operation(line, where, operation),
    );
  }

  #each(make: (component: number) => number): readonly number[] {
    return Array.from({ length: this.#start.run.layout.width }, (_, j) => make(j));
  }

  /** An expression of the problem, such as a right-hand side, for one element of a block. */
  #rhs(
    {
      block,
      element,
      expression,
    }: { readonly block: Block; readonly element: number; readonly expression: Expression },
    place: RhsPlace,
    line: string,
    change: (tree: RhsTree) => RhsTree = (tree) => tree,
  ): number {
    const { run } = this.#start;
    const leaf = rhsLeafValue(run, place);
    const where = ` in ${componentName(run.problem, block.offset + element)}'`;
    return evaluate(
      change(this.#trees.at(expression, block, element)),
      (node) => (node.kind === 'bound' ? leaf(node.to) : NaN),
      this.#round,
      (operation) => this.#observer.operation(line, where, operation),
    );
  }

  #rightHandSides(place: RhsPlace, line: string, change?: (tree: RhsTree) => RhsTree): readonly number[] {
    return this.#start.run.layout.rated.flatMap(({ block }) =>
      Array.from({ length: block.size }, (_, element) =>
        this.#rhs({ block, element, expression: block.rhs }, place, line, change),
      ),
    );
  }

  #derivative({ order, at, time, line }: Instruction & { readonly kind: 'derivative' }): readonly number[] {
    const { problem, layout } = this.#start.run;
    const { width } = layout;
    const out = new Float64Array((order + 2) * width);
    const when = this.formula(time, 0, line);
    const present = this.vector(at);
    jetFunction(problem, order + 1)(when, present, out);
    const factor = factorial(order + 1);
    const values = [...this.#each((j) => factor * (out[(order + 1) * width + j] ?? NaN))];
    for (const { block, offset } of layout.rated) {
      const typed = typedDerivative(problem, block, order);
      if (typed === null) continue;
      const place = { when, at: [present] };
      for (let element = 0; element < block.size; element += 1)
        values[offset + element] = this.#rhs({ block, element, expression: typed }, place, line);
    }
    this.#observer.derivative(line, order, values);
    return values;
  }

  #partial(instruction: Instruction & { readonly kind: 'partial' } & PartialKind): readonly number[] {
    const { along, at, time, line } = instruction;
    const place = {
      when: this.formula(time, 0, line),
      at: [this.vector(at)],
      along: along === null ? [] : this.vector(along),
    };
    return this.#rightHandSides(place, line, (tree) => partialRhs(tree, instruction));
  }

  #solve(solve: SolveInstruction): void {
    const [first] = this.#start.run.program.present;
    const present = first === undefined ? [] : this.vector(first);
    for (const register of solve.unknowns)
      this.#vectors.set(register, this.#start.unknown(solve, register, present));
    for (const inner of solve.values) this.#do(inner);
    this.#observer.solved(solve.line);
  }

  #do(instruction: Instruction): void {
    switch (instruction.kind) {
      case 'rhs': {
        const { time, at, line, into } = instruction;
        const place = { when: this.formula(time, 0, line), at: at.map((register) => this.vector(register)) };
        this.#vectors.set(into, this.#rightHandSides(place, line));
        return;
      }
      case 'derivative':
        this.#vectors.set(instruction.into, this.#derivative(instruction));
        return;
      case 'partial':
        this.#vectors.set(instruction.into, this.#partial(instruction));
        return;
      case 'typed':
      case 'combine': {
        const { into, value, line } = instruction;
        if (instruction.kind === 'combine' && instruction.shape === 'scalar')
          this.#scalars.set(into, this.formula(value, 0, line));
        else
          this.#vectors.set(
            into,
            this.#each((j) => this.formula(value, j, line)),
          );
        return;
      }
      case 'solve':
        this.#solve(instruction);
    }
  }
}
