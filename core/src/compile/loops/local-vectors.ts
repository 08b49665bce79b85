import { factorial, factorialDigits } from '../../formula/factorial.ts';
import { typedDerivative } from '../../problem/typed-derivatives.ts';
import type { Problem } from '../../problem/problem.ts';
import { solutionJets } from '../jets/jet-function.ts';
import { isAtom, nameNode, constantNode, operation, type CodeNode, ZERO } from '../nodes/code-node.ts';
import { pieceOf, problemConstant } from '../nodes/node-of-tree.ts';
import type { Scopes } from '../nodes/scopes.ts';
import { type Block, frame, type Statement } from '../nodes/statement.ts';
import type { Layout } from '../../program/layout.ts';
import type { Program } from '../../program/program.ts';
import { partialRhs, rhsTangent, type RhsLeaf, type RhsTree, RhsTrees } from '../../program/rhs-tree.ts';
import { stateShape } from '../../program/state.ts';
import type { Register, StepTree } from '../../program/step-tree.ts';
import type { NumberedSolve, Partial, StepLowering, StepParts, Vectors } from './step-lowering.ts';

const NOT_A_NUMBER = constantNode(NaN);

/** Equations of a step whose unknowns are local numbers. */
export interface LocalSolve {
  /** The number of the solve within the step. */
  readonly id: number;
  /** Names of the unknowns. */
  readonly names: readonly string[];
  /** The formulas at the present guess. */
  readonly residual: Block;
  /** How the formulas move when the unknowns move along D. */
  readonly column: Block;
  readonly guess: NumberedSolve['guess'];
  /** Names of the values at the start of the step. */
  readonly states: readonly string[];
  /** Where the numbers about Newton's method are in the state. */
  readonly newton: number;
}

/** How a step of local numbers is written: in doubles or in decimals. */
export interface LocalWriting {
  readonly print: (piece: CodeNode) => string;
  /** Newton's method on the equations of a step; afterwards the unknowns hold their solution. */
  readonly solve: (solve: LocalSolve) => readonly Statement[];
}

/** Vectors of some components, every one of them a local number. */
export class LocalVectors implements Vectors {
  readonly #writing: LocalWriting;
  readonly #problem: Problem;
  readonly #program: Program;
  readonly #layout: Layout;
  readonly #scopes: Scopes;
  readonly #lowering: StepLowering;
  readonly #trees: RhsTrees;
  readonly #vectors = new Map<Register, readonly CodeNode[]>();
  readonly #tangents = new Map<Register, readonly CodeNode[]>();
  #rightHandSides: readonly RhsTree[] | null = null;
  #rhsTangents: readonly RhsTree[] | null = null;
  #solveRoom = 0;

  constructor({ problem, program, layout, scopes, lowering }: StepParts, writing: LocalWriting) {
    this.#writing = writing;
    this.#problem = problem;
    this.#program = program;
    this.#layout = layout;
    this.#scopes = scopes;
    this.#lowering = lowering;
    this.#trees = new RhsTrees(problem);
  }

  /** Unknown numbers of the largest system that is solved. */
  get solveRoom(): number {
    return this.#solveRoom;
  }

  set(register: Register, pieces: readonly CodeNode[]): void {
    this.#vectors.set(register, pieces);
  }

  /** The components of a vector, or the one number. */
  pieces(register: Register): readonly CodeNode[] {
    const scalar = this.#lowering.scalar(register);
    return scalar === undefined ? (this.#vectors.get(register) ?? []) : [scalar];
  }

  combine(into: Register, value: StepTree): void {
    this.#keep(
      into,
      this.#each((j) => this.#value(value, j)),
    );
  }

  /** What a line gives, as the step stores it. */
  #keep(into: Register, pieces: readonly CodeNode[]): void {
    this.#vectors.set(
      into,
      pieces.map((piece) => this.#lowering.stored(into, piece)),
    );
  }

  rhs(into: Register, at: readonly Register[], when: CodeNode): void {
    this.#keep(into, this.#rhsOf(this.#rhsTrees(), at, when, []));
  }

  /** Every component is a number of its own: there is no loop to share. */
  rhsWith(): boolean {
    return false;
  }

  derivative(into: Register, order: number, at: Register, when: CodeNode): void {
    const { blocks } = this.#problem;
    const present = this.pieces(at);
    const byHand = blocks.flatMap((block) => {
      const typed = typedDerivative(this.#problem, block, order);
      return Array.from({ length: block.size }, (_, element) =>
        typed === null
          ? null
          : this.#scopes.keep(this.#rhs(this.#trees.at(typed, block, element), present, when, [])),
      );
    });
    const isByHand = byHand.every((typed) => typed !== null);
    const { rhs } = solutionJets(this.#problem, {
      order: isByHand ? 0 : order,
      when,
      at: present,
      declare: (piece) => this.#declare(piece),
      constant: (leaf) => (leaf.value === 0 ? null : problemConstant(leaf, this.#scopes)),
    });
    const factor = constantNode(factorial(order), order > 22 ? factorialDigits(order) : null);
    this.#keep(
      into,
      byHand.map((typed, j) => {
        if (typed !== null) return typed;
        const piece = rhs(j, order);
        if (piece === null) return ZERO;
        return order === 1 ? piece : this.#declare(operation('*', factor, piece));
      }),
    );
  }

  partial(of: Partial, when: CodeNode): void {
    const { along, into, at } = of;
    const trees = this.#rhsTrees().map((tree) => partialRhs(tree, of));
    const direction = along === null ? [] : this.pieces(along);
    this.#keep(into, this.#rhsOf(trees, [at], when, direction));
  }

  moves(register: Register): boolean {
    return this.#tangents.has(register);
  }

  combineTangent(into: Register, tangent: StepTree): void {
    this.#tangents.set(
      into,
      this.#each((j) => this.#value(tangent, j)),
    );
  }

  rhsTangent(into: Register, at: readonly Register[], when: CodeNode): void {
    this.#rhsTangents ??= this.#rhsTrees().map(rhsTangent);
    const along = this.#layout.of.map(
      ({ vector, index }) => this.#tangents.get(at[vector] ?? -1)?.[index] ?? ZERO,
    );
    this.#tangents.set(into, this.#rhsOf(this.#rhsTangents, at, when, along));
  }

  guess({ id, unknowns, guess }: NumberedSolve): void {
    const { width } = this.#layout;
    const present = this.pieces(this.#program.present[0]!);
    const names = unknowns.map((_, u) => this.#each((j) => nameNode(`z${id}_${u * width + j}`)));
    const given = names
      .flatMap((own) =>
        own.map(
          ({ name }, j) =>
            `${name} = ${this.#writing.print(guess === 'present' ? (present[j] ?? ZERO) : ZERO)}`,
        ),
      )
      .join(', ');
    this.#scopes.say(frame(`let ${given};`));
    unknowns.forEach((register, u) => this.#vectors.set(register, names[u] ?? []));
  }

  setGoing({ unknowns }: NumberedSolve): void {
    const { width } = this.#layout;
    unknowns.forEach((register, u) =>
      this.#tangents.set(
        register,
        this.#each((j) => nameNode(`D[${u * width + j}]`)),
      ),
    );
  }

  resultsOf(registers: readonly Register[]): readonly CodeNode[] {
    return registers.flatMap((register) => this.pieces(register));
  }

  tangentsOf(registers: readonly Register[]): readonly CodeNode[] {
    return registers.flatMap((register) => this.#each((j) => this.#tangents.get(register)?.[j] ?? ZERO));
  }

  newton({ id, unknowns, values, results, guess }: NumberedSolve, residual: Block, column: Block): void {
    this.#tangents.clear();
    const names = unknowns.flatMap((register) =>
      this.pieces(register).map((piece) => this.#writing.print(piece)),
    );
    const { newton } = stateShape(this.#problem, this.#program, this.#layout);
    const states = this.#layout.of.map((_, j) => `y${j}`);
    this.#solveRoom = Math.max(this.#solveRoom, names.length);
    this.#scopes.say(...this.#writing.solve({ id, names, residual, column, guess, states, newton }));
    // what was found inside the iteration holds there alone
    for (const inner of values) if (inner.kind !== 'solve') this.#vectors.delete(inner.into);
    results.forEach((register, u) => {
      if (!this.#vectors.has(register)) this.#vectors.set(register, this.pieces(unknowns[u]!));
    });
  }

  #each<T>(make: (component: number) => T): readonly T[] {
    return Array.from({ length: this.#layout.width }, (_, j) => make(j));
  }

  #value(value: StepTree, component: number): CodeNode {
    const vector = (register: Register, isTangent: boolean): CodeNode =>
      isTangent
        ? (this.#tangents.get(register)?.[component] ?? ZERO)
        : (this.#vectors.get(register)?.[component] ?? NOT_A_NUMBER);
    return this.#scopes.keep(pieceOf(value, this.#scopes, (leaf) => this.#lowering.leaf(leaf, vector)));
  }

  #rhsTrees(): readonly RhsTree[] {
    this.#rightHandSides ??= this.#layout.rated.flatMap(({ block }) =>
      Array.from({ length: block.size }, (_, element) => this.#trees.at(block.rhs, block, element)),
    );
    return this.#rightHandSides;
  }

  #rhsOf(
    trees: readonly RhsTree[],
    at: readonly Register[],
    when: CodeNode,
    along: readonly CodeNode[],
  ): readonly CodeNode[] {
    const vectors = at.map((register) => this.pieces(register));
    const state = this.#layout.of.map(({ vector, index }) => vectors[vector]?.[index] ?? NOT_A_NUMBER);
    return trees.map((tree) => this.#scopes.keep(this.#rhs(tree, state, when, along)));
  }

  #rhs(tree: RhsTree, at: readonly CodeNode[], when: CodeNode, along: readonly CodeNode[]): CodeNode {
    return pieceOf(tree, this.#scopes, (leaf: RhsLeaf) => {
      switch (leaf.kind) {
        case 'time':
          return when;
        case 'constant':
          return problemConstant(leaf, this.#scopes);
        case 'component':
          return at[leaf.place] ?? ZERO;
        case 'tangent':
          return leaf.of.kind === 'component' ? (along[leaf.of.place] ?? ZERO) : ZERO;
        default:
          return NOT_A_NUMBER;
      }
    });
  }

  /** Puts a node of a series aside, a function written out where it can be. */
  #declare(piece: CodeNode): CodeNode {
    if (!isAtom(piece) && typeof piece.op === 'object' && 'call' in piece.op) {
      const [input, ...more] = piece.inputs;
      const written =
        input === undefined || more.length > 0 ? null : this.#scopes.inlined(piece.op.call, input);
      if (written !== null) return written;
    }
    return this.#scopes.keep(this.#scopes.arithmetic === 'single' ? operation('single', piece) : piece);
  }
}
