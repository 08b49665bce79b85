import type { Decimal } from 'decimal.js';
import type { CompiledRun } from '../compile/compile.ts';
import { storedRegisters } from '../compile/decimal/decimal-loop.ts';
import { decimalJets } from '../compile/jets/decimal-jets.ts';
import { jetFunction } from '../compile/jets/jet-function.ts';
import { isDecimal, rounding } from '../compile/precision.ts';
import type { Instruction, SolveInstruction } from '../program/program.ts';
import { type PartialKind, partialRhs, type RhsLeaf, type RhsTree, RhsTrees } from '../program/rhs-tree.ts';
import type { Register, StepLeaf, StepTree } from '../program/step-tree.ts';
import { type Arithmetic, roundedDoubles } from '../formula/arithmetic.ts';
import { factorial, factorialDigits } from '../formula/factorial.ts';
import { evaluateIn, type Operation } from '../formula/evaluate.ts';
import type { Expression } from '../formula/expression.ts';
import { type Block, componentName } from '../problem/problem.ts';
import { typedDerivative } from '../problem/typed-derivatives.ts';
import { type DecimalState, decimalTime } from './decimal-state.ts';

/** A constant of a formula: by its name, or a number that has none. */
type Constant = (RhsLeaf | StepLeaf) & { readonly kind: 'constant' };

/** What the formulas of one step are evaluated with. */
export interface StepNumbers<V> {
  readonly arithmetic: Arithmetic<V>;
  /** The step size. */
  readonly h: V;
  /** The time of the grid point `offset` steps from the present one. */
  readonly time: (offset: number) => V;
  readonly constant: (leaf: Constant) => V;
  readonly notANumber: V;
  readonly isFinite: (value: V) => boolean;
  /** The total derivative of f of an order, component by component. */
  readonly derivative: (order: number, when: V, at: readonly V[]) => readonly V[];
  /** The value of a register as the step stores it. */
  readonly stored: (register: Register, value: V) => V;
}

/** Which step is done: from grid point n of a grid of step size h that begins at `origin`. */
export interface StepPlace {
  readonly origin: number;
  readonly n: number;
  readonly h: number;
}

/** A step in doubles, or in single precision. */
export function stepInDoubles(
  { problem, layout, precision }: CompiledRun,
  { origin, n, h }: StepPlace,
): StepNumbers<number> {
  return {
    arithmetic: roundedDoubles(rounding(isDecimal(precision) ? 'double' : precision)),
    h,
    time: (offset) => origin + (n + offset) * h,
    constant: ({ value }) => value,
    notANumber: NaN,
    isFinite: Number.isFinite,
    derivative: (order, when, at) => {
      const { width } = layout;
      const out = new Float64Array((order + 2) * width);
      jetFunction(problem, order + 1)(when, at, out);
      const factor = factorial(order + 1);
      return at.map((_, j) => factor * (out[(order + 1) * width + j] ?? NaN));
    },
    stored: (_, value) => value,
  };
}

/** The step of a run in decimals from grid point n on. */
export function stepInDecimals(
  { problem, program }: CompiledRun,
  at: DecimalState,
  n: number,
): StepNumbers<Decimal> {
  const { decimals, numbers } = at.loop;
  const stored = storedRegisters(program, decimals.precision);
  const isShorter = at.shorter !== null && n === at.steps - 1;
  return {
    arithmetic: decimals,
    h: isShorter ? at.shorter : at.h,
    time: (offset) => {
      if (!isShorter) return decimalTime(at, decimals, n + offset);
      return offset === 0 ? decimalTime(at, decimals, n) : decimalTime(at, decimals, n + 1);
    },
    constant: numbers.constant,
    notANumber: decimals.notANumber,
    isFinite: (value) => value.isFinite(),
    derivative: (order, when, values) => {
      const found = decimalJets(problem, order + 1, decimals)(when, values);
      const factor = decimals.typed(factorialDigits(order + 1));
      return values.map((_, j) => factor.times(found[order + 1]?.[j] ?? decimals.notANumber));
    },
    stored: (register, value) => (stored.has(register) ? decimals.stored(value) : value),
  };
}

/** What is seen of a step while it is interpreted. */
export interface StepObserver<V> {
  /** An operation of a line; `where` says for which component, where there are several. */
  readonly operation: (line: string, where: string, operation: Operation<V>) => void;
  /** A total derivative of f, component by component. */
  readonly derivative: (line: string, order: number, values: readonly V[]) => void;
  /** The formulas of an implicit line at the values of its unknowns. */
  readonly solved: (line: string) => void;
}

const SILENT: StepObserver<unknown> = {
  operation: () => undefined,
  derivative: () => undefined,
  solved: () => undefined,
};

/** What a step begins with. */
export interface StepStart<V> {
  readonly run: CompiledRun;
  readonly numbers: StepNumbers<V>;
  /** Values of the registers that hold the present values and those kept from before. */
  readonly vectors: ReadonlyMap<Register, readonly V[]>;
  /** The values of an unknown of an implicit line: the solution, or a first guess. */
  readonly unknown: (solve: SolveInstruction, register: Register, present: readonly V[]) => readonly V[];
  readonly observer?: StepObserver<V>;
}

/** Where a right-hand side is taken. */
export interface RhsPlace<V> {
  readonly when: V;
  /** The vectors of the method: y, or x and v. */
  readonly at: readonly (readonly V[])[];
  /** The vector along which the right-hand side moves, where a derivative is applied to one. */
  readonly along?: readonly V[];
}

/** The number behind a leaf of a right-hand side, or of how it moves. */
export function rhsLeafValue<V>(
  { layout }: CompiledRun,
  { constant, notANumber }: Pick<StepNumbers<V>, 'constant' | 'notANumber'>,
  { when, at, along = [] }: RhsPlace<V>,
): (leaf: RhsLeaf) => V {
  return (leaf) => {
    switch (leaf.kind) {
      case 'time':
        return when;
      case 'constant':
        return constant(leaf);
      case 'component': {
        const place = layout.of[leaf.place];
        return (place === undefined ? undefined : at[place.vector]?.[place.index]) ?? notANumber;
      }
      case 'tangent':
        return (leaf.of.kind === 'component' ? along[leaf.of.place] : undefined) ?? notANumber;
      default:
        return notANumber;
    }
  };
}

/**
 * Does one step instruction by instruction, with the arithmetic of the generated loop, and keeps what every register
 * holds. Total derivatives that are not typed may differ from those of the loop in their last digits.
 */
export class StepInterpreter<V> {
  readonly #start: StepStart<V>;
  readonly #observer: StepObserver<V>;
  readonly #trees: RhsTrees;
  readonly #vectors: Map<Register, readonly V[]>;
  readonly #scalars = new Map<Register, V>();

  constructor(start: StepStart<V>) {
    this.#start = start;
    this.#observer = start.observer ?? SILENT;
    this.#trees = new RhsTrees(start.run.problem);
    this.#vectors = new Map(start.vectors);
  }

  /** All instructions of the step, in their order. */
  step(): this {
    for (const instruction of this.#start.run.program.instructions) this.#do(instruction);
    return this;
  }

  /** The values of a vector register; none before it was computed. */
  vector(register: Register): readonly V[] {
    return this.#vectors.get(register) ?? [];
  }

  /** A register's number, or that of one of its components. */
  valueAt(register: Register, component: number): V {
    return this.#scalars.get(register) ?? this.vector(register)[component] ?? this.#start.numbers.notANumber;
  }

  /** The number behind a leaf of a step's formula. */
  leafValue(leaf: StepLeaf, component: number): V {
    const { numbers } = this.#start;
    switch (leaf.kind) {
      case 'time':
        return numbers.time(leaf.offset);
      case 'step':
        return numbers.h;
      case 'constant':
        return numbers.constant(leaf);
      case 'register':
        return this.valueAt(leaf.register, component);
      case 'tangent':
        return numbers.notANumber;
    }
  }

  /** A formula of the step for one component. */
  formula(value: StepTree, component: number, line: string): V {
    const { numbers, run } = this.#start;
    const { problem } = run;
    const where = problem.size === 1 ? '' : ` for ${componentName(problem, component)}`;
    return evaluateIn(
      numbers.arithmetic,
      value,
      (node) => (node.kind === 'bound' ? this.leafValue(node.to, component) : numbers.notANumber),
      (operation) => this.#observer.operation(line, where, operation),
    );
  }

  #each(make: (component: number) => V): readonly V[] {
    return Array.from({ length: this.#start.run.layout.width }, (_, j) => make(j));
  }

  /** An expression of the problem, such as a right-hand side, for one element of a block. */
  #rhs(
    {
      block,
      element,
      expression,
    }: { readonly block: Block; readonly element: number; readonly expression: Expression },
    place: RhsPlace<V>,
    line: string,
    change: (tree: RhsTree) => RhsTree = (tree) => tree,
  ): V {
    const { run, numbers } = this.#start;
    const leaf = rhsLeafValue(run, numbers, place);
    const where = ` in ${componentName(run.problem, block.offset + element)}'`;
    return evaluateIn(
      numbers.arithmetic,
      change(this.#trees.at(expression, block, element)),
      (node) => (node.kind === 'bound' ? leaf(node.to) : numbers.notANumber),
      (operation) => this.#observer.operation(line, where, operation),
    );
  }

  #rightHandSides(place: RhsPlace<V>, line: string, change?: (tree: RhsTree) => RhsTree): readonly V[] {
    return this.#start.run.layout.rated.flatMap(({ block }) =>
      Array.from({ length: block.size }, (_, element) =>
        this.#rhs({ block, element, expression: block.rhs }, place, line, change),
      ),
    );
  }

  #derivative({ order, at, time, line }: Instruction & { readonly kind: 'derivative' }): readonly V[] {
    const { numbers, run } = this.#start;
    const { problem, layout } = run;
    const when = this.formula(time, 0, line);
    const present = this.vector(at);
    const values = [...numbers.derivative(order, when, present)];
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

  #partial(instruction: Instruction & { readonly kind: 'partial' } & PartialKind): readonly V[] {
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

  /** Keeps a vector as the step stores it. */
  #keep(register: Register, values: readonly V[]): void {
    const { stored } = this.#start.numbers;
    this.#vectors.set(
      register,
      values.map((value) => stored(register, value)),
    );
  }

  #do(instruction: Instruction): void {
    switch (instruction.kind) {
      case 'rhs': {
        const { time, at, line, into } = instruction;
        const place = { when: this.formula(time, 0, line), at: at.map((register) => this.vector(register)) };
        this.#keep(into, this.#rightHandSides(place, line));
        return;
      }
      case 'derivative':
        this.#keep(instruction.into, this.#derivative(instruction));
        return;
      case 'partial':
        this.#keep(instruction.into, this.#partial(instruction));
        return;
      case 'typed':
      case 'combine': {
        const { into, value, line } = instruction;
        if (instruction.kind === 'combine' && instruction.shape === 'scalar')
          this.#scalars.set(into, this.#start.numbers.stored(into, this.formula(value, 0, line)));
        else
          this.#keep(
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
