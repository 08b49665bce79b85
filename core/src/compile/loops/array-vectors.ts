import type { Bound, Tree } from '../../formula/expression.ts';
import { factorial } from '../../formula/factorial.ts';
import type { Block as ProblemBlock, Problem } from '../../problem/problem.ts';
import { typedDerivative } from '../../problem/typed-derivatives.ts';
import {
  type ArrayPlace,
  compileKernel,
  type ElementLeaf,
  type Kernel,
  kernelFormula,
  type KernelFormula,
} from '../kernel/kernel.ts';
import { bandedSystem } from '../newton/banded-system.ts';
import { newtonLoop } from '../newton/newton-loop.ts';
import { nameNode, type CodeNode, ZERO } from '../nodes/code-node.ts';
import { pieceOf } from '../nodes/node-of-tree.ts';
import { printed } from '../nodes/print.ts';
import type { Scopes } from '../nodes/scopes.ts';
import { type Block, frame } from '../nodes/statement.ts';
import type { Layout } from '../../program/layout.ts';
import type { Program } from '../../program/program.ts';
import { partialRhs, rhsTangent, type RhsTree, RhsTrees } from '../../program/rhs-tree.ts';
import { stateShape } from '../../program/state.ts';
import type { Register, StepLeaf, StepTree } from '../../program/step-tree.ts';
import { addressName } from './address-name.ts';
import { isInPlace } from './array-rotation.ts';
import { bandOf, type Interior, interiorOf } from './family-reach.ts';
import { runningElement, type Source, sourceNode } from './rhs-source.ts';
import type {
  Combination,
  NumberedSolve,
  Partial,
  RhsInstruction,
  StepLowering,
  StepParts,
  Vectors,
} from './step-lowering.ts';

/** What is written in place of a right-hand side: the right-hand side itself, or a derivative of it. */
type Change = (rhs: RhsTree) => RhsTree;

/** A stretch of elements that a loop sets: those from..to of a family, at `offset` in an array. */
interface Stretch {
  readonly into: string;
  readonly offset: number;
  readonly from: number;
  readonly to: number;
}

/**
 * Vectors of large systems: typed arrays, combinations as loops over all components, and a family as one loop over
 * its body, with the elements at its edges written out.
 */
export class ArrayVectors implements Vectors {
  readonly #problem: Problem;
  readonly #program: Program;
  readonly #layout: Layout;
  readonly #scopes: Scopes;
  readonly #lowering: StepLowering;
  readonly #trees: RhsTrees;
  readonly #inPlace: boolean;
  readonly #arrays = new Set<Register>();
  readonly #tangentArrays = new Set<Register>();
  readonly #moving = new Set<Register>();
  readonly #interiors = new Map<ProblemBlock, Interior>();
  readonly #room = new Map<string, string>();
  readonly kernels: Kernel[] = [];

  constructor({ problem, program, layout, scopes, lowering }: StepParts) {
    this.#problem = problem;
    this.#program = program;
    this.#layout = layout;
    this.#scopes = scopes;
    this.#lowering = lowering;
    this.#trees = new RhsTrees(problem);
    this.#inPlace = isInPlace(program);
  }

  get arrays(): readonly Register[] {
    return [...this.#arrays];
  }

  get tangentArrays(): readonly Register[] {
    return [...this.#tangentArrays];
  }

  /** What is set up once, before any step. */
  get room(): readonly string[] {
    return [...this.#room.values()];
  }

  /** The name of the array of a register. */
  array(register: Register): string {
    this.#arrays.add(register);
    return `R${register}`;
  }

  combine(into: Register, value: StepTree): void {
    this.#combine(value, this.#target(into));
  }

  /** The array that takes a vector: for new values that need no array of their own that of the present ones. */
  #target(into: Register): string {
    const isOver = this.#inPlace && into === this.#program.next[0];
    return this.array(isOver ? this.#program.present[0]! : into);
  }

  /**
   * The right-hand side of a single family, and what is made of it element by element, in one loop: each of its values
   * is used while it is at hand. False, and nothing is written, where that cannot be done.
   */
  rhsWith({ into, at }: RhsInstruction, when: () => CodeNode, combines: readonly Combination[]): boolean {
    const [rated, ...others] = this.#layout.rated;
    const { width } = this.#layout;
    if (rated === undefined || others.length > 0 || rated.block.size !== width) return false;
    const { block } = rated;
    const { from, to } = this.#interior(block);
    if (to <= from) return false;
    const source: Source = { at: at.map((register) => this.array(register)), along: [], when: when() };
    const formulas = [
      this.#rateFormula(this.#trees.running(block.rhs, block), source, {
        array: this.array(into),
        offset: 0,
      }),
      ...combines.map((one) => this.#stepFormula(one.value, this.#target(one.into))),
    ];
    const kernel = this.#kernel(formulas);
    if (kernel === null) return false;
    const edges = [
      { from: 0, to: from },
      { from: to, to: width },
    ];
    for (const edge of edges)
      for (let k = edge.from; k < edge.to; k += 1)
        this.#put(`${this.array(into)}[${k}]`, this.#trees.at(block.rhs, block, k), source);
    for (const one of combines)
      for (const edge of edges)
        if (edge.to > edge.from) this.#combineLoop(one.value, this.#target(one.into), edge);
    this.#callKernel(kernel, { from, to });
    return true;
  }

  rhs(into: Register, at: readonly Register[], when: CodeNode): void {
    this.#writeRates(
      { at: at.map((register) => this.array(register)), along: [], when },
      this.array(into),
      (tree) => tree,
    );
  }

  partial(of: Partial, when: CodeNode): void {
    const { along, into, at } = of;
    const source = { at: [this.array(at)], along: along === null ? [] : [this.array(along)], when };
    this.#writeRates(source, this.array(into), (tree) => partialRhs(tree, of));
  }

  /** Taylor coefficients of the whole system by one generated function; f^(k) is (k+1)! times coefficient k+1 of y. */
  derivative(into: Register, order: number, at: Register, when: CodeNode): void {
    const { width } = this.#layout;
    const [source, target] = [this.array(at), this.array(into)];
    this.#room.set(
      `jet ${order}`,
      `const J${order} = jet(${order + 1}), C${order} = new Float64Array(${(order + 2) * width});`,
    );
    const value = `${factorial(order + 1)} * C${order}[${(order + 1) * width} + j]`;
    this.#scopes.say(
      frame(
        `J${order}(${printed(when)}, ${source}, C${order});`,
        `for (let j = 0; j < ${width}; j++) ${target}[j] = ${this.#scopes.arithmetic === 'single' ? 'F' : ''}(${value});`,
      ),
    );
    for (const { block, offset } of this.#layout.rated) {
      const typed = typedDerivative(this.#problem, block, order);
      if (typed === null) continue;
      const tree = this.#trees.at(typed, block, 0);
      this.#put(`${target}[${offset}]`, tree, { at: [source], along: [], when });
    }
  }

  moves(register: Register): boolean {
    return this.#moving.has(register);
  }

  combineTangent(into: Register, tangent: StepTree): void {
    this.#combine(tangent, this.#tangentArray(into));
    this.#moving.add(into);
  }

  rhsTangent(into: Register, at: readonly Register[], when: CodeNode): void {
    const along = at.map((register) => (this.#moving.has(register) ? this.#tangentArray(register) : null));
    const source = { at: at.map((register) => this.array(register)), along, when };
    this.#writeRates(source, this.#tangentArray(into), rhsTangent);
    this.#moving.add(into);
  }

  guess({ unknowns, guess }: NumberedSolve): void {
    const names = unknowns.map((register) => this.array(register));
    const present = this.array(this.#program.present[0]!);
    const first = guess === 'present' ? `.set(${present});` : '.fill(0);';
    this.#scopes.say(frame(...names.map((name) => `${name}${first}`)));
  }

  /** The size of the values at the start of a step, over h where slopes are looked for. */
  #scale(guess: NumberedSolve['guess']): string {
    const sizes = this.#program.present.map((register) => `largest(${this.array(register)})`);
    return `Math.max(${sizes.join(', ')})${guess === 'present' ? '' : ' / h'}`;
  }

  setGoing({ unknowns }: NumberedSolve): void {
    for (const register of unknowns) {
      this.#moving.add(register);
      this.#tangentArray(register);
    }
  }

  resultsOf(registers: readonly Register[]): readonly CodeNode[] {
    return registers.map((register) => nameNode(this.array(register)));
  }

  tangentsOf(registers: readonly Register[]): readonly CodeNode[] {
    return registers.map((register) =>
      this.#moving.has(register) ? nameNode(this.#tangentArray(register)) : ZERO,
    );
  }

  newton({ id, unknowns, guess }: NumberedSolve, residual: Block, column: Block): void {
    this.#moving.clear();
    const { room, system } = bandedSystem({
      id,
      width: this.#layout.width,
      band: bandOf(this.#layout, this.#trees),
      names: unknowns.map((register) => this.array(register)),
      directions: unknowns.map((register) => this.#tangentArray(register)),
      residual,
      column,
    });
    const { newton } = stateShape(this.#problem, this.#program, this.#layout);
    const [single, scale] = [this.#scopes.arithmetic === 'single', this.#scale(guess)];
    room.forEach((line, i) => this.#room.set(`newton ${id} ${i}`, line));
    this.#scopes.say(...newtonLoop({ id, residual, newton, single, scale }, system));
  }

  #tangentArray(register: Register): string {
    this.#tangentArrays.add(register);
    return `T${register}`;
  }

  #combine(value: StepTree, into: string): void {
    const all = { from: 0, to: this.#layout.width };
    const kernel = this.#kernel([this.#stepFormula(value, into)]);
    if (kernel === null) this.#combineLoop(value, into, all);
    else this.#callKernel(kernel, all);
  }

  #combineLoop(value: StepTree, into: string, { from, to }: Interior): void {
    const body = this.#scopes.within(() => [this.#stepPiece(value)]);
    const put = { kind: 'put', into: `${into}[j]`, value: body.result[0] ?? ZERO } as const;
    this.#scopes.say({ kind: 'loop', index: 'j', from, to, body: [...body.statements, put] });
  }

  #stepPiece(tree: StepTree): CodeNode {
    return pieceOf(tree, this.#scopes, (leaf) =>
      this.#lowering.leaf(leaf, (r, isTangent) => this.#element(r, isTangent)),
    );
  }

  #stepFormula(value: StepTree, array: string): KernelFormula | null {
    return this.#formula(
      value,
      { array, offset: 0 },
      (leaf) => this.#stepElement(leaf),
      (part) => this.#stepPiece(part),
    );
  }

  /** Component j of a vector, or how fast it moves. */
  #element(register: Register, isTangent: boolean): CodeNode {
    if (!isTangent) return nameNode(`${this.array(register)}[j]`);
    return this.#moving.has(register) ? nameNode(`${this.#tangentArray(register)}[j]`) : ZERO;
  }

  /** A leaf of a method's formula as an element of an array; null for what is the same for all components. */
  #stepElement(leaf: StepLeaf): ElementLeaf | null {
    if (leaf.kind !== 'register' && leaf.kind !== 'tangent') return null;
    const { register } = leaf;
    if (this.#lowering.scalar(register) !== undefined) return null;
    if (leaf.kind === 'register') return { kind: 'element', array: this.array(register), shift: 0 };
    return this.#moving.has(register)
      ? { kind: 'element', array: this.#tangentArray(register), shift: 0 }
      : null;
  }

  #writeRates(source: Source, into: string, change: Change): void {
    for (const { block, offset } of this.#layout.rated) {
      const { from, to } = this.#interior(block);
      const element = (k: number): void => {
        const tree = this.#trees.at(block.rhs, block, k);
        this.#put(`${into}[${offset + k}]`, change(tree), source);
      };
      for (let k = 0; k < from; k += 1) element(k);
      if (to > from) this.#writeBody(block, source, { into, offset, from, to }, change);
      for (let k = to; k < block.size; k += 1) element(k);
    }
  }

  #interior(block: ProblemBlock): Interior {
    const known = this.#interiors.get(block) ?? interiorOf(block, this.#trees);
    this.#interiors.set(block, known);
    return known;
  }

  /** The elements of a family all of whose neighbours lie inside. */
  #writeBody(block: ProblemBlock, source: Source, { into, offset, from, to }: Stretch, change: Change): void {
    const tree = change(this.#trees.running(block.rhs, block));
    const kernel = this.#kernel([this.#rateFormula(tree, source, { array: into, offset })]);
    if (kernel !== null) {
      this.#callKernel(kernel, { from, to });
      return;
    }
    const body = this.#scopes.within(() => [this.#ratePiece(tree, source)]);
    const place = offset === 0 ? 'i' : `i + ${offset}`;
    const put = { kind: 'put', into: `${into}[${place}]`, value: body.result[0] ?? ZERO } as const;
    this.#scopes.say({ kind: 'loop', index: 'i', from, to, body: [...body.statements, put] });
  }

  #ratePiece(tree: RhsTree, source: Source): CodeNode {
    return pieceOf(tree, this.#scopes, (leaf) => sourceNode(leaf, source, this.#layout, this.#scopes));
  }

  #rateFormula(tree: RhsTree, source: Source, into: ArrayPlace): KernelFormula | null {
    return this.#formula(
      tree,
      into,
      (leaf) => runningElement(leaf, source, this.#layout),
      (part) => this.#ratePiece(part, source),
    );
  }

  #put(into: string, tree: RhsTree, source: Source): void {
    this.#scopes.say({ kind: 'put', into, value: this.#ratePiece(tree, source) });
  }

  /** A formula of an inner loop in WebAssembly, where every operation of it has an instruction of its own. */
  #formula<B>(
    tree: Tree<Bound<B>>,
    into: ArrayPlace,
    element: (leaf: B) => ElementLeaf | null,
    piece: (part: Tree<Bound<B>>) => CodeNode,
  ): KernelFormula | null {
    if (this.#scopes.arithmetic === 'single') return null;
    return kernelFormula(tree, into, element, (part) => this.#scopes.keep(piece(part)));
  }

  /** The inner loop of some formulas; null where one of them is none. */
  #kernel(formulas: readonly (KernelFormula | null)[]): Kernel | null {
    const all = formulas.filter((formula) => formula !== null);
    return all.length < formulas.length ? null : compileKernel(all);
  }

  #callKernel(kernel: Kernel, { from, to }: Interior): void {
    const number = this.kernels.length;
    this.kernels.push(kernel);
    const address = (array: string, shift: number): string =>
      shift === 0 ? addressName(array) : `${addressName(array)} + ${8 * shift}`;
    const inputs = [
      `${from}`,
      `${to}`,
      ...kernel.outputs.map(({ array, offset }) => address(array, offset)),
      ...kernel.arrays.map(({ name, least }) => address(name, least)),
      ...kernel.scalars.map((piece) => printed(piece)),
    ];
    this.#scopes.say(frame(`K[${number}](${inputs.join(', ')});`));
  }
}
