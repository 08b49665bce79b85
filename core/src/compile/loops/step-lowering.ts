import type { Instruction, Program, SolveInstruction } from '../../program/program.ts';
import { type Register, type StepLeaf, stepTangent, type StepTree } from '../../program/step-tree.ts';
import { nameNode, constantNode, operation, type CodeNode } from '../nodes/code-node.ts';
import { parameterNode, pieceOf } from '../nodes/node-of-tree.ts';
import type { Scopes } from '../nodes/scopes.ts';
import type { Block } from '../nodes/statement.ts';
import type { Problem } from '../../problem/problem.ts';
import type { Layout } from '../../program/layout.ts';

/** A partial derivative as an instruction. */
export type Partial = Instruction & { readonly kind: 'partial' };

/** A right-hand side as an instruction. */
export type RhsInstruction = Instruction & { readonly kind: 'rhs' };

/** A vector that is made of others, component by component. */
export type Combination = Instruction & { readonly kind: 'combine' };

/** Where the vectors of a step are: every component a local number, or arrays with inner loops over them. */
export interface Vectors {
  /** Makes a vector of others, component by component. */
  readonly combine: (into: Register, value: StepTree) => void;
  /** f (or a) at a time and at the values of registers. */
  readonly rhs: (into: Register, at: readonly Register[], when: CodeNode) => void;
  /** A right-hand side and what is made of it right behind, at once; false where that is to be done one by one. */
  readonly rhsWith: (rhs: RhsInstruction, when: () => CodeNode, combines: readonly Combination[]) => boolean;
  /** The total derivative of f of an order from 1 on. */
  readonly derivative: (into: Register, order: number, at: Register, when: CodeNode) => void;
  /** A partial derivative of f. */
  readonly partial: (of: Partial, when: CodeNode) => void;
  /** How fast a register moves. */
  readonly moves: (register: Register) => boolean;
  readonly combineTangent: (into: Register, tangent: StepTree) => void;
  readonly rhsTangent: (into: Register, at: readonly Register[], when: CodeNode) => void;
  /** Gives the unknowns of a solve their first guess. */
  readonly guess: (solve: NumberedSolve) => void;
  /** Sets the unknowns going, one at a time. */
  readonly setGoing: (solve: NumberedSolve) => void;
  readonly resultsOf: (registers: readonly Register[]) => readonly CodeNode[];
  readonly tangentsOf: (registers: readonly Register[]) => readonly CodeNode[];
  /** Newton's method with what computes the formulas and how they move; afterwards nothing moves. */
  readonly newton: (solve: NumberedSolve, residual: Block, column: Block) => void;
}

/** What the code of a step is made of, wherever its vectors are. */
export interface StepParts {
  readonly problem: Problem;
  readonly program: Program;
  readonly layout: Layout;
  readonly scopes: Scopes;
  readonly lowering: StepLowering;
}

/** A solve with its number within the step. */
export interface NumberedSolve extends SolveInstruction {
  readonly id: number;
}

/** The time of a grid point, `offset` steps from the present one. */
function timeNode(offset: number, scopes: Scopes): CodeNode {
  if (offset === 0) return nameNode('t');
  const steps = operation('*', operation('+', nameNode('n'), constantNode(offset)), nameNode('h', true));
  const time = operation('+', nameNode('origin', true), steps);
  return scopes.keep(scopes.arithmetic === 'single' ? operation('single', time) : time);
}

/** The combinations to vectors that follow one another from a place in a program on. */
function vectorsFrom(instructions: readonly Instruction[], from: number): readonly Combination[] {
  const found: Combination[] = [];
  for (const instruction of instructions.slice(from)) {
    if (instruction.kind !== 'combine' || instruction.shape === 'scalar') break;
    found.push(instruction);
  }
  return found;
}

/** Turns the instructions of a step into code, one after another; where vectors are is another's business. */
export class StepLowering {
  readonly #program: Program;
  readonly #scopes: Scopes;
  readonly #scalars = new Map<Register, CodeNode>();
  readonly #stored: ReadonlySet<Register>;
  #solves = 0;

  /** @param stored registers whose values are rounded, where single operations are not */
  constructor(program: Program, scopes: Scopes, stored: ReadonlySet<Register> = new Set()) {
    this.#program = program;
    this.#scopes = scopes;
    this.#stored = stored;
  }

  /** The value of a register as the step stores it. */
  stored(register: Register, piece: CodeNode): CodeNode {
    return this.#stored.has(register) ? this.#scopes.keep(operation({ call: 'stored' }, piece)) : piece;
  }

  /** How many systems of equations a step solves. */
  get solves(): number {
    return this.#solves;
  }

  /** The number behind a register; undefined for a vector. */
  scalar(register: Register): CodeNode | undefined {
    return this.#scalars.get(register);
  }

  /**
   * The node of a leaf of a method's formula.
   *
   * @param vector the node of a vector's component, or of how fast it moves
   */
  leaf(leaf: StepLeaf, vector: (register: Register, isTangent: boolean) => CodeNode): CodeNode {
    switch (leaf.kind) {
      case 'time':
        return timeNode(leaf.offset, this.#scopes);
      case 'step':
        return nameNode('h', true);
      case 'constant':
        return parameterNode(leaf.value, this.#scopes, leaf.name);
      case 'register':
        return this.#scalars.get(leaf.register) ?? vector(leaf.register, false);
      case 'tangent':
        return vector(leaf.register, true);
    }
  }

  /** The whole step. */
  step(vectors: Vectors): void {
    const { instructions } = this.#program;
    for (let i = 0; i < instructions.length; i += 1) {
      const instruction = instructions[i]!;
      const combines = instruction.kind === 'rhs' ? vectorsFrom(instructions, i + 1) : [];
      if (
        instruction.kind === 'rhs' &&
        combines.length > 0 &&
        vectors.rhsWith(instruction, () => this.#number(instruction.time), combines)
      )
        i += combines.length;
      else this.#run(instruction, vectors);
    }
  }

  #number(value: StepTree): CodeNode {
    const none = (): CodeNode => constantNode(NaN);
    return this.#scopes.keep(pieceOf(value, this.#scopes, (leaf) => this.leaf(leaf, none)));
  }

  #run(instruction: Instruction, vectors: Vectors): void {
    switch (instruction.kind) {
      case 'rhs':
        vectors.rhs(instruction.into, instruction.at, this.#number(instruction.time));
        return;
      case 'derivative':
        vectors.derivative(
          instruction.into,
          instruction.order,
          instruction.at,
          this.#number(instruction.time),
        );
        return;
      case 'partial':
        vectors.partial(instruction, this.#number(instruction.time));
        return;
      case 'typed':
        vectors.combine(instruction.into, instruction.value);
        return;
      case 'combine':
        if (instruction.shape === 'scalar')
          this.#scalars.set(instruction.into, this.stored(instruction.into, this.#number(instruction.value)));
        else vectors.combine(instruction.into, instruction.value);
        return;
      case 'solve':
        this.#solve({ ...instruction, id: this.#solves++ }, vectors);
    }
  }

  #solve(solve: NumberedSolve, vectors: Vectors): void {
    vectors.guess(solve);
    const residual = this.#scopes.within(() => {
      solve.values.forEach((inner) => this.#run(inner, vectors));
      return vectors.resultsOf(solve.results);
    });
    const column = this.#scopes.within(() => {
      vectors.setGoing(solve);
      solve.values.forEach((inner) => this.#tangent(inner, vectors));
      return vectors.tangentsOf(solve.results);
    }, residual.statements);
    vectors.newton(solve, residual, column);
  }

  /** The directional derivative of an instruction, where anything in it moves. */
  #tangent(instruction: Instruction, vectors: Vectors): void {
    if (instruction.kind === 'combine')
      vectors.combineTangent(
        instruction.into,
        stepTangent(instruction.value, (register) => vectors.moves(register)),
      );
    if (instruction.kind === 'rhs' && instruction.at.some((register) => vectors.moves(register)))
      vectors.rhsTangent(instruction.into, instruction.at, this.#number(instruction.time));
  }
}
