import type { Instruction, Program, SolveInstruction } from '../../program/program.ts';
import { type Register, type StepLeaf, stepTangent, type StepTree } from '../../program/step-tree.ts';
import type { Bound } from '../../formula/expression.ts';
import { atom, printer, type TextPart, within } from '../../formula/printer.ts';
import { Refusal } from '../../text/refusal.ts';
import { derivativeLines, partialLines } from './derivative-lines.ts';
import type { CodeLine, Room } from './language.ts';
import { Names } from './names.ts';
import { NEWTON_NUMBERS, newtonLines, type Unknown } from './newton-lines.ts';
import type { RhsContext } from './rhs-lines.ts';
import { constantPart, programLanguage } from './program-language.ts';
import { registerReads } from './register-reads.ts';

/** Most unknowns of one solve. */
const MAX_UNKNOWNS = 200;

/** The name of a value that is kept. */
export function keptName(of: string, back: number): string {
  return `${of}_${back}`;
}

/** Writes the instructions of a step as lines. */
export class StepWriter {
  readonly arrays: string[] = [];
  readonly numbers: string[] = [];
  readonly rooms: Room[] = [];
  readonly vectors: readonly string[];
  usesNumber = false;
  solves = false;
  readonly #context: RhsContext;
  readonly #program: Program;
  readonly #width: number;
  readonly #names: Names;
  readonly #rhs: string;
  readonly #called = new Map<Register, string>();
  readonly #counts: ReadonlyMap<Register, number>;
  readonly #scalars = new Set<Register>();
  /** Formulas used once, written where they are used. */
  readonly #inlined = new Map<Register, TextPart>();
  readonly #stages: ReadonlyMap<Register, string>;
  /** Names of how registers move, where something is solved for. */
  #tangents = new Map<Register, string>();

  constructor(context: RhsContext, program: Program, width: number, taken: readonly string[]) {
    this.#context = context;
    this.#program = program;
    this.#width = width;
    this.#names = new Names(context.writing.reserved, taken);
    this.#rhs = program.form === 'first order' ? 'f' : 'a';
    this.vectors = program.form === 'first order' ? ['y'] : ['x', 'v'];
    this.#counts = registerReads(program);
    this.#stages = new Map(program.stages.map((stage) => [stage.register, stage.name]));
    program.present.forEach((register, i) => this.#called.set(register, this.vectors[i]!));
    for (const { of, back, register } of program.kept) this.#called.set(register, keptName(of, back));
    if (program.presentRhs !== null) this.#called.set(program.presentRhs, keptName('f', 0));
  }

  /** All lines of the step. */
  body(): readonly CodeLine[] {
    return this.#program.instructions.flatMap((instruction) => this.#lines(instruction));
  }

  /** What represents a register after the step. */
  text(register: Register): string {
    return this.#inlined.get(register)?.text ?? this.#nameOf(register, false);
  }

  #nameOf(register: Register, isScalar: boolean, otherwise = 'at'): string {
    const known = this.#called.get(register);
    if (known !== undefined) return known;
    const place = this.#program.next.indexOf(register);
    const request =
      this.#stages.get(register) ?? (place >= 0 ? `${this.vectors[place] ?? ''}_new` : otherwise);
    const made = this.#names.make(request);
    this.#called.set(register, made);
    this.#declare(made, isScalar);
    if (isScalar) this.#scalars.add(register);
    return made;
  }

  #declare(name: string, isScalar: boolean): void {
    (isScalar || this.#context.isOne ? this.numbers : this.arrays).push(name);
  }

  #leaf(to: StepLeaf): TextPart {
    const { writing } = this.#context;
    switch (to.kind) {
      case 'time':
        if (to.offset === 0) return atom('t');
        this.usesNumber = true;
        return {
          text: `${writing.constant('T_START')} + ${writing.counted('n', to.offset)}*h`,
          holds: 'sum',
        };
      case 'step':
        return atom('h');
      case 'constant':
        return constantPart(to.name, to.value, writing);
      case 'register': {
        const inner = this.#inlined.get(to.register);
        if (inner !== undefined) return inner;
        const own = this.#nameOf(to.register, false);
        return this.#scalars.has(to.register) ? atom(own) : this.#elements(own);
      }
      case 'tangent':
        return this.#elements(this.#tangents.get(to.register) ?? '');
    }
  }

  /** A vector in a formula: as a whole, or by its element j. */
  #elements(vector: string): TextPart {
    const { writing, isOne } = this.#context;
    return atom(isOne || writing.isWhole ? vector : writing.running(vector, 'j', 0));
  }

  #part(tree: StepTree): TextPart {
    const { writing, used } = this.#context;
    const language = programLanguage(writing, ({ to }: Bound<StepLeaf>) => this.#leaf(to), used);
    return printer<TextPart, Bound<StepLeaf>>(language)(tree);
  }

  #formula(tree: StepTree): string {
    return this.#part(tree).text;
  }

  /** A number or a whole vector set to a formula. */
  #set(to: string, value: string, isScalar: boolean): CodeLine {
    return isScalar || this.#context.isOne
      ? { kind: 'set', to, value }
      : { kind: 'vector', to, width: this.#width, value };
  }

  /** A right-hand side, or how it moves, set by its routine. */
  #call(name: string, inputs: readonly string[], into: string): CodeLine {
    return this.#context.isOne
      ? { kind: 'set', to: into, value: this.#context.writing.invoke(name, inputs) }
      : { kind: 'routine', name, inputs, into };
  }

  #lines(instruction: Instruction): readonly CodeLine[] {
    switch (instruction.kind) {
      case 'combine':
      case 'typed': {
        const { into, value } = instruction;
        const isScalar = instruction.kind === 'combine' && instruction.shape === 'scalar';
        const part = this.#part(value);
        const isUsedOnce = this.#counts.get(into) === 1 && !this.#program.next.includes(into);
        if (this.#context.isOne && !this.#stages.has(into) && isUsedOnce) {
          this.#inlined.set(into, part);
          return [];
        }
        return [this.#set(this.#nameOf(into, isScalar), part.text, isScalar)];
      }
      case 'rhs': {
        const { into, time, at } = instruction;
        const to = this.#nameOf(into, false, 'slope');
        if (into === this.#program.presentRhs) this.#declare(to, false);
        return [
          this.#call(this.#rhs, [this.#formula(time), ...at.map((register) => this.text(register))], to),
        ];
      }
      case 'derivative':
      case 'partial':
        return this.#derivative(instruction);
      case 'solve':
        return this.#solve(instruction);
    }
  }

  /** A derivative of f that is written out. */
  #derivative(instruction: Instruction & { readonly kind: 'derivative' | 'partial' }): readonly CodeLine[] {
    const { at, into, time } = instruction;
    const { isOne, writing } = this.#context;
    const [from, to] = [this.#nameOf(at, false), this.#nameOf(into, false, 'slope')];
    const elements = (vector: string): readonly string[] =>
      Array.from({ length: this.#width }, (_, j) => (isOne ? vector : writing.element(vector, j)));
    const goal = elements(to);
    const along = instruction.kind === 'partial' ? instruction.along : null;
    const where = {
      time: within(this.#part(time), 'atom'),
      present: elements(from),
      into: (j: number): string => goal[j] ?? to,
      along: along === null ? [] : elements(this.#nameOf(along, false)),
      names: this.#names,
    };
    const { lines, numbers } =
      instruction.kind === 'derivative'
        ? derivativeLines(this.#context, instruction.order, where)
        : partialLines(this.#context, instruction, where);
    this.numbers.push(...numbers);
    return lines;
  }

  #solve({ unknowns, values, results, guess, line }: SolveInstruction): readonly CodeLine[] {
    const { writing } = this.#context;
    const count = unknowns.length * this.#width;
    if (this.#program.form !== 'first order')
      throw new Refusal('form', 'a program has no implicit formulas in x and v');
    if (count > MAX_UNKNOWNS)
      throw new Refusal(
        'size',
        `a program solves for up to ${MAX_UNKNOWNS} numbers, and this method needs ${count}`,
      );
    if (this.solves && (count === 1) !== (this.rooms.length === 0))
      throw new Refusal('form', 'a program cannot solve for one number and for several in the same step');
    this.solves = true;
    const named = unknowns.map((register) => this.#nameOf(register, false));
    results.forEach((register) => this.#nameOf(register, false, 'goal'));
    const residual = values.flatMap((inner) => this.#lines(inner));
    this.#tangents = new Map(unknowns.map((register, i) => [register, this.#tangentName(named[i] ?? '')]));
    const directions = [...this.#tangents.values()];
    const moving = values.flatMap((inner) => this.#moving(inner));
    const made = unknowns.map((_, u): Unknown => ({
      name: named[u] ?? '',
      result: this.text(results[u] ?? -1),
      direction: directions[u] ?? '',
      moved: this.#tangents.get(results[u] ?? -1) ?? null,
    }));
    for (const name of NEWTON_NUMBERS) if (!this.numbers.includes(name)) this.numbers.push(name);
    this.#makeRoom(count);
    return newtonLines({
      writing,
      width: this.#width,
      unknowns: made,
      present: this.vectors[0] ?? '',
      isSlope: guess === 'zero',
      residual,
      moving,
      title: line.replace(/[^\w[\]+]/g, ''),
    });
  }

  /** Room for the matrix and the right side of so many unknowns; one needs a number alone. */
  #makeRoom(count: number): void {
    if (count === 1) {
      if (!this.numbers.includes('right')) this.numbers.push('right');
      return;
    }
    const known = this.rooms.find(({ name }) => name === 'right')?.size ?? 0;
    if (count <= known) return;
    this.rooms.splice(0, 2, { name: 'matrix', size: count * count }, { name: 'right', size: count });
  }

  #tangentName(name: string): string {
    const made = this.#names.make(`d_${name}`);
    this.#declare(made, false);
    return made;
  }

  /** How an instruction moves, where anything in it does. */
  #moving(instruction: Instruction): readonly CodeLine[] {
    const moves = (register: Register): boolean => this.#tangents.has(register);
    if (instruction.kind === 'combine') {
      const { into, value } = instruction;
      const tangent = stepTangent(value, moves);
      if (tangent.kind === 'number' && tangent.value === 0) return [];
      const text = this.#formula(tangent);
      const to = this.#tangentName(this.#called.get(into) ?? 'at');
      this.#tangents.set(into, to);
      return [this.#set(to, text, false)];
    }
    if (instruction.kind !== 'rhs' || !instruction.at.some(moves)) return [];
    const { into, time, at } = instruction;
    const along = at.map((register) => this.#tangents.get(register) ?? '');
    const to = this.#tangentName(this.#called.get(into) ?? 'at');
    this.#tangents.set(into, to);
    const inputs = [this.#formula(time), ...at.map((register) => this.text(register)), ...along];
    return [this.#call(`${this.#rhs}_moved`, inputs, to)];
  }
}
