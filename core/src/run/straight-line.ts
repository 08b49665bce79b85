import { CONSTANTS } from '../formula/functions.ts';
import type { Expression } from '../formula/expression.ts';
import { type Code, type CodeTarget, emit, literal } from '../formula/javascript.ts';
import { JetCode } from '../formula/jet.ts';
import { INLINE } from '../formula/elementary/inline.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { typedDerivative } from '../problem/typed-derivatives.ts';
import type { GeneratedLoop } from './generated-loop.ts';
import { type Layout, layOut } from './layout.ts';
import { LOOK_EVERY } from './look.ts';
import { newtonLoop } from './newton-code.ts';
import type { Precision } from './precision.ts';
import {
  type Instruction,
  type Program,
  type Register,
  registerOf,
  type SolveInstruction,
  timeOffsetOf,
} from './program.ts';
import { constantCode, STEP, TIME, timeCode, ZERO } from './loop-codes.ts';
import { Placing } from './rate-leaf.ts';
import { Scopes } from './scopes.ts';
import { NEWTON, stateShape } from './state.ts';
import { combinationTangent, tangentOf, unmarked } from './tangent.ts';

/**
 * Straight-line code for one step: every component and stage is a local number of its own.
 * For problems of a few components; names are the generator's own throughout.
 */
export function straightLine(problem: Problem, program: Program, precision: Precision): GeneratedLoop {
  return new StraightLine(problem, program, precision).generate();
}

class StraightLine {
  readonly #problem: Problem;
  readonly #program: Program;
  readonly #single: boolean;
  readonly #layout: Layout;
  readonly #placing: Placing;
  readonly #scopes = new Scopes(true);
  readonly #vectors = new Map<Register, readonly Code[]>();
  readonly #scalars = new Map<Register, Code>();
  readonly #tangents = new Map<Register, readonly Code[]>();
  #solves = 0;
  #solveRoom = 0;

  constructor(problem: Problem, program: Program, precision: Precision) {
    this.#problem = problem;
    this.#program = program;
    this.#single = precision === 'single';
    this.#layout = layOut(problem, program);
    this.#placing = new Placing(problem);
  }

  generate(): GeneratedLoop {
    const { places, width } = this.#layout;
    const { present, kept, presentRate } = this.#program;
    const shape = stateShape(this.#problem, this.#program, this.#layout);
    const local = (text: string): Code => ({ text, atom: true, steady: false });
    present.forEach((register, i) =>
      this.#vectors.set(
        register,
        places[i]!.map((place) => local(`y${place}`)),
      ),
    );
    kept.forEach(({ register }, k) =>
      this.#vectors.set(
        register,
        Array.from({ length: width }, (_, j) => local(`q${k}_${j}`)),
      ),
    );
    for (const instruction of this.#program.instructions) this.#run(instruction);

    const next = this.#nextCodes();
    const stages = this.#program.stages.flatMap((stage) => this.#codes(stage.register));
    const states = next.map((_, j) => `y${j}`);
    const keptNames = kept.map((_, k) => Array.from({ length: width }, (_unused, j) => `q${k}_${j}`));
    const load = (name: string, at: number): string =>
      `let ${name} = ${this.#single ? `F(S[${at}])` : `S[${at}]`};`;
    const moveUp = kept
      .map(({ of, back }, k) => {
        const source =
          back > 1
            ? keptNames[k - 1]!
            : this.#codes(of === 'f' ? presentRate! : present[of === 'v' ? 1 : 0]!).map(({ text }) => text);
        return keptNames[k]!.map((name, j) => `${name} = ${source[j] ?? 'NaN'};`);
      })
      .reverse()
      .flat();
    const source = (kind: 'advance' | 'trace' | 'watch'): string =>
      [
        '(function () {',
        ...this.#arrays(),
        `return function (S, origin, h${this.#single ? '64' : ''}, first, count${kind === 'advance' ? '' : ', OUT'}) {`,
        ...(this.#single ? ['const h = F(h64);'] : []),
        ...this.#scopes.before,
        ...states.map(load),
        ...keptNames.flatMap((names, k) => names.map((name, j) => load(name, shape.kept + k * width + j))),
        ...(this.#solves > 0 ? [`let iterations = S[${shape.newton + NEWTON.iterations}];`] : []),
        'const last = first + count;',
        ...(kind === 'trace' ? ['let at = 0;'] : []),
        ...(kind === 'watch'
          ? states.map((_, j) => `let a${j} = Infinity, b${j} = 0, c${j} = -Infinity, d${j} = 0;`)
          : []),
        ...(kind === 'advance'
          ? [
              'for (let n = first; n < last;) {',
              `const look = Math.min(last, n + ${LOOK_EVERY});`,
              'for (; n < look; n++) {',
            ]
          : ['for (let n = first; n < last; n++) {']),
        this.#single ? 'const t = F(F(origin) + F(n * h));' : 'const t = origin + n * h;',
        ...this.#scopes.lines,
        ...(kind === 'trace' ? stages.map(({ text }) => `OUT[at++] = ${text};`) : []),
        ...next.map((text, j) => `const w${j} = ${text};`),
        ...moveUp,
        ...states.map((name, j) => `${name} = w${j};`),
        ...(kind === 'watch'
          ? states.map(
              (name, j) =>
                `if (${name} < a${j}) { a${j} = ${name}; b${j} = n + 1; } if (${name} > c${j}) { c${j} = ${name}; d${j} = n + 1; }`,
            )
          : []),
        '}',
        ...(kind === 'advance'
          ? [`if (!(${states.map((name) => `${name} - ${name} === 0`).join(' && ')})) break;`, '}']
          : []),
        ...(kind === 'watch'
          ? states.map(
              (_, j) =>
                `OUT[${4 * j}] = a${j}; OUT[${4 * j + 1}] = b${j}; OUT[${4 * j + 2}] = c${j}; OUT[${4 * j + 3}] = d${j};`,
            )
          : []),
        ...states.map((name, j) => `S[${j}] = ${name};`),
        ...keptNames.flatMap((names, k) =>
          names.map((name, j) => `S[${shape.kept + k * width + j}] = ${name};`),
        ),
        ...(this.#solves > 0 ? [`S[${shape.newton + NEWTON.iterations}] = iterations;`] : []),
        '};',
        '})()',
      ].join('\n');
    return {
      advance: source('advance'),
      trace: source('trace'),
      watch: source('watch'),
      atOnce: 64 * LOOK_EVERY,
      stageWidth: stages.length,
      kernels: null,
    };
  }

  /** The new values in the order of the state. */
  #nextCodes(): readonly string[] {
    const vectors = this.#program.next.map((register) => this.#codes(register));
    return this.#layout.of.map(({ vector, index }) => vectors[vector]?.[index]?.text ?? 'NaN');
  }

  #arrays(): readonly string[] {
    if (this.#solves === 0) return [];
    const n = this.#solveRoom;
    return [
      `const M = new Float64Array(${n * n});`,
      `const R = new Float64Array(${n});`,
      `const D = new Float64Array(${n});`,
    ];
  }

  #codes(register: Register): readonly Code[] {
    const scalar = this.#scalars.get(register);
    return scalar === undefined ? (this.#vectors.get(register) ?? []) : [scalar];
  }

  #run(instruction: Instruction): void {
    switch (instruction.kind) {
      case 'rate': {
        const when = this.#scopes.keep(this.#methodValue(instruction.time, 0));
        this.#vectors.set(instruction.into, this.#rates(this.#stateAt(instruction.at), when));
        return;
      }
      case 'derivative': {
        const when = this.#scopes.keep(this.#methodValue(instruction.time, 0));
        this.#vectors.set(
          instruction.into,
          this.#derivatives(instruction.order, this.#codes(instruction.at), when),
        );
        return;
      }
      case 'combine':
        if (instruction.shape === 'scalar')
          this.#scalars.set(instruction.into, this.#scopes.keep(this.#methodValue(instruction.value, 0)));
        else
          this.#vectors.set(
            instruction.into,
            this.#each((j) => this.#scopes.keep(this.#methodValue(instruction.value, j))),
          );
        return;
      case 'solve':
        this.#solve(instruction);
    }
  }

  #each(make: (component: number) => Code): readonly Code[] {
    return Array.from({ length: this.#layout.width }, (_, j) => make(j));
  }

  /** The values of the whole state, from the vectors of the method. */
  #stateAt(registers: readonly Register[]): readonly Code[] {
    const vectors = registers.map((register) => this.#codes(register));
    return this.#layout.of.map(({ vector, index }) => vectors[vector]?.[index] ?? literal(NaN));
  }

  #methodValue(value: Expression, component: number): Code {
    return emit(value, {
      single: this.#single,
      keep: (code) => this.#scopes.keep(code),
      inline: (name, inputs) => this.#inline(name, inputs),
      leaf: (node) => {
        if (node.kind !== 'name') return literal(NaN);
        const marked = unmarked(node);
        if (marked !== null) return this.#tangents.get(registerOf(marked.name) ?? -1)?.[component] ?? ZERO;
        if (node.name === 't') return TIME;
        if (node.name === 'h') return STEP;
        const offset = timeOffsetOf(node.name);
        if (offset !== null) return this.#scopes.keep(timeCode(offset, this.#single));
        const register = registerOf(node.name);
        if (register === null) return constantCode(CONSTANTS.get(node.name) ?? NaN, this.#single);
        return this.#scalars.get(register) ?? this.#vectors.get(register)?.[component] ?? literal(NaN);
      },
    });
  }

  #rates(at: readonly Code[], when: Code): readonly Code[] {
    return this.#layout.rated.flatMap(({ block }) =>
      Array.from({ length: block.size }, (_, element) =>
        this.#scopes.keep(emit(block.rate, this.#rateTarget(block, element, at, when, null))),
      ),
    );
  }

  #rateTarget(
    block: Block,
    element: number,
    at: readonly Code[],
    when: Code,
    along: readonly Code[] | null,
  ): CodeTarget {
    const target: CodeTarget = {
      single: this.#single,
      keep: (code) => this.#scopes.keep(code),
      inline: (name, inputs) => this.#inline(name, inputs),
      leaf: (node) => {
        if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
        const marked = unmarked(node);
        const meaning = this.#placing.of(marked ?? node, block, element);
        switch (meaning.kind) {
          case 'time':
            return when;
          case 'constant':
            return constantCode(meaning.value, this.#single);
          case 'component':
            return (marked === null ? at : along)?.[meaning.place] ?? ZERO;
          case 'given':
            return marked === null
              ? this.#scopes.keep(emit(meaning.value, target))
              : this.#scopes.keep(
                  emit(
                    tangentOf(meaning.value, (leaf) => this.#movesWithState(leaf, block, element)),
                    target,
                  ),
                );
        }
      },
    };
    return target;
  }

  /** Functions whose numbers a call would have to wrap are written out where they change from step to step. */
  #inline(name: string, inputs: readonly Code[]): Code | null {
    const write = INLINE.get(name);
    const [input] = inputs;
    if (write === undefined || input === undefined || input.steady || this.#single) return null;
    const { text } = this.#scopes.keep(input);
    return this.#scopes.define(`${name}(${text})`, (made) =>
      write(made, text, (code) => this.#scopes.keep({ text: code, atom: false, steady: true }).text),
    );
  }

  #movesWithState(leaf: Parameters<Placing['of']>[0], block: Block, element: number): boolean {
    const { kind } = this.#placing.of(leaf, block, element);
    return kind === 'component' || kind === 'given';
  }

  /** f^(order) = order! times the Taylor coefficient of f of that order. */
  #derivatives(order: number, at: readonly Code[], when: Code): readonly Code[] {
    const { blocks } = this.#problem;
    const byHand = blocks.flatMap((block) => {
      const value = typedDerivative(this.#problem, block, order);
      return Array.from({ length: block.size }, (_, element) =>
        value === null ? null : emit(value, this.#rateTarget(block, element, at, when, null)),
      );
    });
    const declare = (text: string): string => {
      const [, called, input] = /^(\w+)\((\w+)\)$/.exec(text) ?? [];
      if (called !== undefined && input !== undefined) {
        const written = this.#inline(called, [{ text: input, atom: true, steady: false }]);
        if (written !== null) return written.text;
      }
      return this.#scopes.keep({ text: this.#single ? `F(${text})` : text, atom: false, steady: false }).text;
    };
    const solution: (string | null)[][] = at.map(({ text }) => [text]);
    const jets = blocks.flatMap((block) =>
      Array.from({ length: block.size }, (_, element) => {
        const jet: JetCode = new JetCode((node, k) => {
          if (node.kind !== 'name' && node.kind !== 'indexed') return null;
          const meaning = this.#placing.of(node, block, element);
          switch (meaning.kind) {
            case 'time':
              return k === 0 ? when.text : k === 1 ? '1' : null;
            case 'constant':
              return k === 0 && meaning.value !== 0 ? constantCode(meaning.value, this.#single).text : null;
            case 'component':
              return solution[meaning.place]?.[k] ?? null;
            case 'given':
              return jet.coefficient(meaning.value, k);
          }
        }, declare);
        return { jet, rate: block.rate };
      }),
    );
    const most = byHand.every((typed) => typed !== null) ? 0 : order;
    for (let k = 0; k < most; k += 1)
      jets
        .map(({ jet, rate }) => jet.coefficient(rate, k))
        .forEach((code, j) =>
          solution[j]!.push(code === null || k === 0 ? code : declare(`${code} / ${k + 1}`)),
        );
    const factor = Array.from({ length: order }, (_, i) => i + 1).reduce((product, i) => product * i, 1);
    return jets.map(({ jet, rate }, j): Code => {
      const typed = byHand[j];
      if (typed != null) return this.#scopes.keep(typed);
      const code = jet.coefficient(rate, order);
      if (code === null) return ZERO;
      return { text: factor === 1 ? code : declare(`${factor} * ${code}`), atom: true, steady: false };
    });
  }

  #solve(instruction: SolveInstruction): void {
    const { unknowns, values, results } = instruction;
    const { width } = this.#layout;
    const n = unknowns.length * width;
    const id = this.#solves++;
    this.#solveRoom = Math.max(this.#solveRoom, n);
    const names = unknowns.map((_, u) =>
      Array.from({ length: width }, (_unused, j) => `z${id}_${u * width + j}`),
    );
    const guess = this.#guess(instruction);
    this.#scopes.say(
      `let ${names
        .flat()
        .map((name, i) => `${name} = ${guess[i] ?? '0'}`)
        .join(', ')};`,
    );
    unknowns.forEach((register, u) =>
      this.#vectors.set(
        register,
        names[u]!.map((text): Code => ({ text, atom: true, steady: false })),
      ),
    );
    const residual = this.#scopes.within(() => {
      values.forEach((inner) => this.#run(inner));
      return results.flatMap((register) => this.#codes(register).map(({ text }) => text));
    });
    const column = this.#scopes.within(() => {
      unknowns.forEach((register, u) =>
        this.#tangents.set(
          register,
          this.#each((j) => ({ text: `D[${u * width + j}]`, atom: true, steady: false })),
        ),
      );
      values.forEach((inner) => this.#tangent(inner));
      return results.flatMap((register) =>
        this.#each((j) => this.#tangents.get(register)?.[j] ?? ZERO).map(({ text }) => text),
      );
    }, residual.lines);
    this.#tangents.clear();
    const shape = stateShape(this.#problem, this.#program, this.#layout);
    this.#scopes.say(
      ...newtonLoop({
        id,
        n,
        names: names.flat(),
        residual,
        column,
        newton: shape.newton,
        single: this.#single,
      }),
    );
    // what was found inside the iteration holds there alone
    for (const inner of values) if (inner.kind !== 'solve') this.#vectors.delete(inner.into);
    results.forEach((register, u) => {
      if (!this.#vectors.has(register)) this.#vectors.set(register, this.#codes(unknowns[u]!));
    });
  }

  /** Where Newton's method starts: the present value, or the formula with nothing put in. */
  #guess(instruction: SolveInstruction): readonly string[] {
    const { unknowns, values, results, guess } = instruction;
    const present = this.#program.present[0]!;
    if (guess === 'present') return unknowns.flatMap(() => this.#codes(present).map(({ text }) => text));
    unknowns.forEach((register) =>
      this.#vectors.set(
        register,
        this.#each(() => ZERO),
      ),
    );
    values.forEach((inner) => this.#run(inner));
    return results.flatMap((register) => this.#codes(register).map(({ text }) => text));
  }

  /** The directional derivative of an instruction, where anything in it moves. */
  #tangent(instruction: Instruction): void {
    if (instruction.kind === 'combine') {
      const expression = combinationTangent(instruction.value, new Set(this.#tangents.keys()));
      this.#tangents.set(
        instruction.into,
        this.#each((j) => this.#scopes.keep(this.#methodValue(expression, j))),
      );
      return;
    }
    if (instruction.kind !== 'rate' || !instruction.at.some((register) => this.#tangents.has(register)))
      return;
    const at = this.#stateAt(instruction.at);
    const along = this.#layout.of.map(
      ({ vector, index }) => this.#tangents.get(instruction.at[vector]!)?.[index] ?? ZERO,
    );
    const when = this.#scopes.keep(this.#methodValue(instruction.time, 0));
    this.#tangents.set(
      instruction.into,
      this.#layout.rated.flatMap(({ block }) =>
        Array.from({ length: block.size }, (_, element) => {
          const expression = tangentOf(block.rate, (leaf) => this.#movesWithState(leaf, block, element));
          return this.#scopes.keep(emit(expression, this.#rateTarget(block, element, at, when, along)));
        }),
      ),
    );
  }
}
