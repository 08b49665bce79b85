import { CONSTANTS } from '../formula/functions.ts';
import type { Expression, IndexedLeaf, NameLeaf } from '../formula/expression.ts';
import { type Code, type CodeTarget, emit, literal } from '../formula/javascript.ts';
import { Meanings } from '../problem/meaning.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { typedDerivative } from '../problem/typed-derivatives.ts';
import { isInPlace, rotationLines } from './array-rotation.ts';
import { bandedNewton } from './banded-newton.ts';
import { bandOf, interiorOf } from './family-reach.ts';
import type { GeneratedLoop } from './generated-loop.ts';
import { type Layout, layOut } from './layout.ts';
import type { Precision } from './precision.ts';
import { LOOK_EVERY } from './look.ts';
import {
  type Instruction,
  type Program,
  type Register,
  registerOf,
  type SolveInstruction,
  timeOffsetOf,
} from './program.ts';
import { compileKernel, type ElementLeaf, type Kernel } from './kernel/kernel.ts';
import { constantCode, STEP, TIME, timeCode, ZERO } from './loop-codes.ts';
import { Placing } from './rate-leaf.ts';
import { Scopes } from './scopes.ts';
import { NEWTON, stateShape } from './state.ts';
import { combinationTangent, tangentOf, unmarked } from './tangent.ts';

/** Where the values of a rate come from: arrays by vector, and how fast they move where that is asked for. */
interface Source {
  readonly at: readonly string[];
  readonly along: readonly (string | null)[] | null;
  readonly when: Code;
}

/**
 * Code for large systems: vectors are typed arrays, combinations are loops over all components, and a
 * family is one loop over its body, with the elements at its edges written out. Values kept from earlier
 * steps move up by exchanging arrays, not by copying.
 */
export function arrayLoop(problem: Problem, program: Program, precision: Precision): GeneratedLoop {
  return new ArrayLoop(problem, program, precision).generate();
}

class ArrayLoop {
  readonly #problem: Problem;
  readonly #program: Program;
  readonly #single: boolean;
  readonly #layout: Layout;
  readonly #meanings: Meanings;
  readonly #placing: Placing;
  readonly #scopes = new Scopes(false);
  readonly #arrays = new Set<Register>();
  readonly #tangentArrays = new Set<Register>();
  readonly #moving = new Set<Register>();
  readonly #scalars = new Map<Register, Code>();
  readonly #room: string[] = [];
  readonly #kernels: Kernel[] = [];
  #solves = 0;

  constructor(problem: Problem, program: Program, precision: Precision) {
    this.#problem = problem;
    this.#program = program;
    this.#single = precision === 'single';
    this.#layout = layOut(problem, program);
    this.#meanings = new Meanings(problem);
    this.#placing = new Placing(problem);
  }

  generate(): GeneratedLoop {
    const { width, places } = this.#layout;
    const program = this.#program;
    const shape = stateShape(this.#problem, program, this.#layout);
    for (const register of [...program.present, ...program.kept.map((k) => k.register), ...program.next])
      this.#array(register);
    const inPlace = isInPlace(program);
    program.instructions.forEach((instruction, i) =>
      this.#run(instruction, inPlace && i === program.instructions.length - 1 ? program.present[0]! : null),
    );
    const { stages } = program;
    const rows = stages.map((stage) =>
      stage.shape === 'scalar'
        ? `OUT[at++] = ${this.#scalars.get(stage.register)?.text ?? 'NaN'};`
        : `OUT.set(${this.#array(stage.register)}, at); at += ${width};`,
    );
    const contiguous = (list: readonly number[]): boolean => list.every((place, j) => place === list[0]! + j);
    const load = program.present.flatMap((register, i) =>
      contiguous(places[i]!)
        ? [`${this.#array(register)}.set(S.subarray(${places[i]![0]}, ${places[i]![0]! + width}));`]
        : places[i]!.map((place, j) => `${this.#array(register)}[${j}] = S[${place}];`),
    );
    const store = program.present.flatMap((register, i) =>
      contiguous(places[i]!)
        ? [`S.set(${this.#array(register)}, ${places[i]![0]});`]
        : places[i]!.map((place, j) => `S[${place}] = ${this.#array(register)}[${j}];`),
    );
    const round = (register: Register): readonly string[] =>
      this.#single
        ? [`for (let j = 0; j < ${width}; j++) ${this.#array(register)}[j] = F(${this.#array(register)}[j]);`]
        : [];
    const kept = program.kept.map(({ register }, k) => ({
      name: this.#array(register),
      from: shape.kept + k * width,
    }));
    const lines = this.#scopes.lines;
    const source = (traced: boolean): string =>
      [
        '(function () {',
        ...[...this.#arrays].map(
          (register, k) => `const A${register} = new Float64Array(BUFFER, ${8 * width * k}, ${width});`,
        ),
        ...[...this.#tangentArrays].map(
          (register, k) =>
            `const T${register} = new Float64Array(BUFFER, ${8 * width * (this.#arrays.size + k)}, ${width});`,
        ),
        ...this.#room,
        `return function (S, origin, h${this.#single ? '64' : ''}, first, count${traced ? ', OUT' : ''}) {`,
        ...(this.#single ? ['const h = F(h64);'] : []),
        ...[...this.#arrays].map((register) => `let R${register} = A${register};`),
        ...this.#scopes.before,
        ...load,
        ...program.present.flatMap(round),
        ...kept.map(({ name, from }) => `${name}.set(S.subarray(${from}, ${from + width}));`),
        ...(this.#solves > 0 ? [`let iterations = S[${shape.newton + NEWTON.iterations}];`] : []),
        'const last = first + count;',
        ...(traced ? ['let at = 0;'] : []),
        'for (let n = first; n < last; n++) {',
        this.#single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
        ...lines,
        ...(traced ? rows : []),
        ...rotationLines(program, (register) => this.#array(register)),
        '}',
        ...store,
        ...kept.map(({ name, from }) => `S.set(${name}, ${from});`),
        ...(this.#solves > 0 ? [`S[${shape.newton + NEWTON.iterations}] = iterations;`] : []),
        '};',
        '})()',
      ].join('\n');
    const stageWidth = stages.reduce((sum, stage) => sum + (stage.shape === 'scalar' ? 1 : width), 0);
    const doubles = width * (this.#arrays.size + this.#tangentArrays.size);
    return {
      advance: source(false),
      trace: source(true),
      watch: null,
      atOnce: LOOK_EVERY,
      stageWidth,
      kernels: { list: this.#kernels, doubles },
    };
  }

  #array(register: Register): string {
    this.#arrays.add(register);
    return `R${register}`;
  }

  #tangentArray(register: Register): string {
    this.#tangentArrays.add(register);
    return `T${register}`;
  }

  #methodTarget(): CodeTarget {
    return {
      single: this.#single,
      keep: (code) => this.#scopes.keep(code),
      leaf: (node) => {
        if (node.kind !== 'name') return literal(NaN);
        const marked = unmarked(node);
        if (marked !== null) {
          const register = registerOf(marked.name) ?? -1;
          return this.#moving.has(register)
            ? { text: `${this.#tangentArray(register)}[j]`, atom: true, steady: false }
            : ZERO;
        }
        if (node.name === 't') return TIME;
        if (node.name === 'h') return STEP;
        const offset = timeOffsetOf(node.name);
        if (offset !== null) return this.#scopes.keep(timeCode(offset, this.#single));
        const register = registerOf(node.name);
        if (register === null) return constantCode(CONSTANTS.get(node.name) ?? NaN, this.#single);
        return (
          this.#scalars.get(register) ?? { text: `${this.#array(register)}[j]`, atom: true, steady: false }
        );
      },
    };
  }

  /** A place of the state as an element of the arrays of a source. */
  #place(source: Source, place: number, isTangent: boolean): Code {
    const at = this.#layout.of[place];
    const array = at === undefined ? undefined : isTangent ? source.along?.[at.vector] : source.at[at.vector];
    return array == null || at === undefined
      ? ZERO
      : { text: `${array}[${at.index}]`, atom: true, steady: false };
  }

  /** Leaves of a rate at one fixed element. */
  #elementTarget(block: Block, element: number, source: Source): CodeTarget {
    const target: CodeTarget = {
      single: this.#single,
      keep: (code) => this.#scopes.keep(code),
      leaf: (node) => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
        const marked = unmarked(node);
        const meaning = this.#placing.of(marked ?? node, block, element);
        switch (meaning.kind) {
          case 'time':
            return source.when;
          case 'constant':
            return constantCode(meaning.value, this.#single);
          case 'component':
            return this.#place(source, meaning.place, marked !== null);
          case 'given':
            return this.#scopes.keep(emit(this.#edge(meaning.value, block, marked !== null), target));
        }
      },
    };
    return target;
  }

  /** An edge value, or how fast it moves where it holds unknowns. */
  #edge(value: Expression, block: Block, isTangent: boolean): Expression {
    return isTangent ? tangentOf(value, this.#moves(block)) : value;
  }

  /** Leaves of the body of a family at the running element i. */
  #bodyTarget(block: Block, source: Source): CodeTarget {
    const range = block.unknown.range;
    const target: CodeTarget = {
      single: this.#single,
      keep: (code) => this.#scopes.keep(code),
      leaf: (node) => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
        const marked = unmarked(node);
        const meaning = this.#meanings.of(marked ?? node, range?.variable ?? null);
        switch (meaning.kind) {
          case 'time':
            return source.when;
          case 'constant':
            return constantCode(meaning.value, this.#single);
          case 'position':
            return { text: `(i + ${range?.from ?? 0})`, atom: true, steady: false };
          case 'component':
            return this.#place(source, meaning.place, marked !== null);
          case 'given':
            return this.#scopes.keep(emit(this.#edge(meaning.value, block, marked !== null), target));
          case 'neighbour': {
            const at = this.#layout.of[meaning.block.offset]!;
            const array = marked === null ? source.at[at.vector] : source.along?.[at.vector];
            if (array == null) return ZERO;
            const shift =
              at.index + (range?.from ?? 0) + meaning.shift - (meaning.block.unknown.range?.from ?? 0);
            const index = shift === 0 ? 'i' : shift > 0 ? `i + ${shift}` : `i - ${-shift}`;
            return { text: `${array}[${index}]`, atom: true, steady: false };
          }
        }
      },
    };
    return target;
  }

  #moves(block: Block): (leaf: NameLeaf | IndexedLeaf) => boolean {
    return (leaf) => {
      const { kind } = this.#meanings.of(leaf, block.unknown.range?.variable ?? null);
      return kind === 'component' || kind === 'neighbour' || kind === 'given';
    };
  }

  #writeRates(source: Source, into: string): void {
    for (const { block, offset } of this.#layout.rated) {
      const rate = source.along === null ? block.rate : tangentOf(block.rate, this.#moves(block));
      const element = (k: number): void => {
        const { text } = emit(rate, this.#elementTarget(block, k, source));
        this.#scopes.say(`${into}[${offset + k}] = ${text};`);
      };
      if (block.unknown.range === null) {
        element(0);
        continue;
      }
      const { from, to } = interiorOf(block, this.#meanings);
      for (let k = 0; k < from; k += 1) element(k);
      const kernel =
        to > from
          ? this.#kernel(
              rate,
              (leaf) => this.#bodyElement(block, source, leaf),
              this.#bodyTarget(block, source),
            )
          : null;
      if (kernel !== null) this.#scopes.say(this.#kernelCall(kernel, from, to, into, offset));
      else if (to > from) {
        const body = this.#scopes.within(() => [emit(rate, this.#bodyTarget(block, source)).text]);
        const place = offset === 0 ? 'i' : `i + ${offset}`;
        this.#scopes.say(
          `for (let i = ${from}; i < ${to}; i++) {`,
          ...body.lines,
          `${into}[${place}] = ${body.result[0]};`,
          '}',
        );
      }
      for (let k = to; k < block.size; k += 1) element(k);
    }
  }

  #combine(value: Expression, into: string): void {
    const { width } = this.#layout;
    const kernel = this.#kernel(value, (leaf) => this.#methodElement(leaf), this.#methodTarget());
    if (kernel !== null) {
      this.#scopes.say(this.#kernelCall(kernel, 0, width, into, 0));
      return;
    }
    const body = this.#scopes.within(() => [emit(value, this.#methodTarget()).text]);
    this.#scopes.say(
      `for (let j = 0; j < ${width}; j++) {`,
      ...body.lines,
      `${into}[j] = ${body.result[0]};`,
      '}',
    );
  }

  /** A leaf of a method's expression as an element of an array; null for what is the same for all components. */
  #methodElement(leaf: Expression): ElementLeaf | null {
    if (leaf.kind !== 'name') return null;
    const marked = unmarked(leaf);
    const register = registerOf((marked ?? leaf).name);
    if (register === null || this.#scalars.has(register)) return null;
    if (marked === null) return { kind: 'element', array: this.#array(register), shift: 0 };
    return this.#moving.has(register)
      ? { kind: 'element', array: this.#tangentArray(register), shift: 0 }
      : null;
  }

  /** A leaf of the body of a family as an element of an array, or as the running index. */
  #bodyElement(block: Block, source: Source, leaf: Expression): ElementLeaf | null {
    if (leaf.kind !== 'name' && leaf.kind !== 'indexed') return null;
    const range = block.unknown.range;
    const marked = unmarked(leaf);
    const meaning = this.#meanings.of(marked ?? leaf, range?.variable ?? null);
    if (meaning.kind === 'position') return { kind: 'position', from: range?.from ?? 0 };
    if (meaning.kind !== 'neighbour') return null;
    const at = this.#layout.of[meaning.block.offset]!;
    const array = marked === null ? source.at[at.vector] : source.along?.[at.vector];
    if (array == null) return null;
    const shift = at.index + (range?.from ?? 0) + meaning.shift - (meaning.block.unknown.range?.from ?? 0);
    return { kind: 'element', array, shift };
  }

  #kernel(
    expression: Expression,
    element: (leaf: Expression) => ElementLeaf | null,
    target: CodeTarget,
  ): Kernel | null {
    if (this.#single) return null;
    return compileKernel(expression, element, (part) => this.#scopes.keep(emit(part, target)).text);
  }

  #kernelCall(kernel: Kernel, from: number, to: number, into: string, offset: number): string {
    const number = this.#kernels.length;
    this.#kernels.push(kernel);
    const address = (array: string, shift: number): string =>
      shift === 0 ? `${array}.byteOffset` : `${array}.byteOffset + ${8 * shift}`;
    const inputs = [
      `${from}`,
      `${to}`,
      address(into, offset),
      ...kernel.arrays.map(({ name, least }) => address(name, least)),
      ...kernel.scalars,
    ];
    return `K[${number}](${inputs.join(', ')});`;
  }

  #time(instruction: { readonly time: Expression }): Code {
    return this.#scopes.keep(emit(instruction.time, this.#methodTarget()));
  }

  #run(instruction: Instruction, over: Register | null): void {
    switch (instruction.kind) {
      case 'rate':
        this.#writeRates(
          { at: instruction.at.map((r) => this.#array(r)), along: null, when: this.#time(instruction) },
          this.#array(instruction.into),
        );
        return;
      case 'derivative':
        this.#derivative(
          instruction.order,
          this.#array(instruction.at),
          this.#time(instruction),
          this.#array(instruction.into),
        );
        return;
      case 'combine':
        if (instruction.shape === 'scalar')
          this.#scalars.set(
            instruction.into,
            this.#scopes.keep(emit(instruction.value, this.#methodTarget())),
          );
        else this.#combine(instruction.value, this.#array(over ?? instruction.into));
        return;
      case 'solve':
        this.#solve(instruction);
    }
  }

  /** Taylor coefficients of the whole system by one generated function; f^(k) is (k+1)! times coefficient k+1 of y. */
  #derivative(order: number, at: string, when: Code, into: string): void {
    const { width } = this.#layout;
    const factor = Array.from({ length: order + 1 }, (_, i) => i + 1).reduce((product, i) => product * i, 1);
    this.#room.push(
      `const J${order} = jet(${order + 1}), C${order} = new Float64Array(${(order + 2) * width});`,
    );
    this.#scopes.say(
      `J${order}(${when.text}, ${at}, C${order});`,
      `for (let j = 0; j < ${width}; j++) ${into}[j] = ${this.#single ? 'F' : ''}(${factor} * C${order}[${(order + 1) * width} + j]);`,
    );
    for (const { block, offset } of this.#layout.rated) {
      const typed = typedDerivative(this.#problem, block, order);
      if (typed === null) continue;
      const { text } = emit(typed, this.#elementTarget(block, 0, { at: [at], along: null, when }));
      this.#scopes.say(`${into}[${offset}] = ${text};`);
    }
  }

  #solve(instruction: SolveInstruction): void {
    const { unknowns, values, results, guess } = instruction;
    const { width } = this.#layout;
    const id = this.#solves++;
    const present = this.#array(this.#program.present[0]!);
    const names = unknowns.map((register) => this.#array(register));
    if (guess === 'present') names.forEach((name) => this.#scopes.say(`${name}.set(${present});`));
    else {
      names.forEach((name) => this.#scopes.say(`${name}.fill(0);`));
      values.forEach((inner) => this.#run(inner, null));
      results.forEach((register, u) => this.#scopes.say(`${names[u]}.set(${this.#array(register)});`));
    }
    const residual = this.#scopes.within(() => {
      values.forEach((inner) => this.#run(inner, null));
      return results.map((register) => this.#array(register));
    });
    const column = this.#scopes.within(() => {
      unknowns.forEach((register) => this.#moving.add(register));
      unknowns.forEach((register) => this.#tangentArray(register));
      values.forEach((inner) => this.#tangent(inner));
      return results.map((register) => (this.#moving.has(register) ? this.#tangentArray(register) : 'null'));
    }, residual.lines);
    this.#moving.clear();
    const shape = stateShape(this.#problem, this.#program, this.#layout);
    const code = bandedNewton({
      id,
      width,
      band: bandOf(this.#layout, this.#meanings, this.#placing),
      names,
      directions: unknowns.map((register) => this.#tangentArray(register)),
      residual,
      column,
      newton: shape.newton,
      single: this.#single,
    });
    this.#room.push(...code.room);
    this.#scopes.say(...code.lines);
  }

  #tangent(instruction: Instruction): void {
    if (instruction.kind === 'combine') {
      this.#combine(
        combinationTangent(instruction.value, this.#moving),
        this.#tangentArray(instruction.into),
      );
      this.#moving.add(instruction.into);
      return;
    }
    if (instruction.kind !== 'rate' || !instruction.at.some((register) => this.#moving.has(register))) return;
    const along = instruction.at.map((register) =>
      this.#moving.has(register) ? this.#tangentArray(register) : null,
    );
    this.#writeRates(
      { at: instruction.at.map((r) => this.#array(r)), along, when: this.#time(instruction) },
      this.#tangentArray(instruction.into),
    );
    this.#moving.add(instruction.into);
  }
}
