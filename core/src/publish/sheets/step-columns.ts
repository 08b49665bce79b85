import { layOut } from '../../program/layout.ts';
import { lower } from '../../program/lowering.ts';
import type { Instruction, Program, SolveInstruction } from '../../program/program.ts';
import type { Register, StepLeaf, StepTree } from '../../program/step-tree.ts';
import type { Method } from '../../method/method.ts';
import { componentNames, type Problem } from '../../problem/problem.ts';
import { Refusal } from '../../text/refusal.ts';
import type { Bound } from '../../formula/expression.ts';
import { atom, printer, type TextPart } from '../../formula/printer.ts';
import type { FormulaWriting } from '../programs/language.ts';
import { numberPart, programLanguage } from '../programs/program-language.ts';
import { vectorNames } from '../../program/stage-names.ts';
import { cellAt, type CellFormula } from './cell-formula.ts';
import { MAX_UNKNOWNS, newtonColumns } from './newton-columns.ts';
import { MISSING, type ProblemFormula } from './problem-formulas.ts';

/** Where the columns of every sheet of a run are. */
export interface RunPlaces {
  readonly n: number;
  readonly t: number;
  /** The column of a component of the state. */
  readonly component: (place: number) => number;
}

/** Where the values of a column are found in a row of a run. */
export type StageSource =
  | { readonly kind: 'stage'; readonly index: number; readonly component: number }
  | { readonly kind: 'slope'; readonly place: number };

/** A column of a stage: its title, and its formula from cells of its own row and rows above. */
export interface StageColumn {
  readonly title: string;
  readonly formula: CellFormula;
  /** Null for a part that rows of a run do not have. */
  readonly source: StageSource | null;
}

/** One method as columns: what it computes on the way, and the new values, seen from the row before them. */
export interface StepColumns {
  readonly depth: number;
  readonly columns: readonly StageColumn[];
  /** One a component of the state. */
  readonly next: readonly CellFormula[];
}

/** What formulas of a method are made with. */
export interface StepContext {
  readonly problem: Problem;
  readonly places: RunPlaces;
  /** The first column that is free for stages. */
  readonly from: number;
  readonly start: string;
  readonly h: string;
  readonly writing: FormulaWriting;
  readonly formula: ProblemFormula;
  readonly used: (name: string) => void;
}

/** A formula that is longer is in a column of its own, even where the method gives it no name. */
const LONG = 160;

/** Lays the stages of a method out in columns. */
class Laying {
  readonly columns: StageColumn[] = [];
  readonly #of: StepContext;
  readonly #program: Program;
  readonly #known = new Map<Register, readonly TextPart[]>();
  readonly #names: readonly string[];

  constructor(of: StepContext, program: Program, width: number, names: readonly string[]) {
    this.#of = of;
    this.#program = program;
    this.#names = names;
    const { component } = of.places;
    const layout = layOut(of.problem, program);
    const cells = (vector: number, ahead: number): readonly TextPart[] =>
      (layout.places[vector] ?? []).map((place) => atom(cellAt(component(place), ahead)));
    program.present.forEach((register, i) => this.#known.set(register, cells(i, 0)));
    // f[n] is in the first columns of a formula that keeps it
    const slopes = program.presentRhs === null ? 0 : width;
    for (const { of: kept, back, register } of program.kept)
      this.#known.set(
        register,
        kept === 'f'
          ? Array.from({ length: slopes }, (_, j) => atom(cellAt(of.from + j, -back)))
          : cells(kept === 'v' ? 1 : 0, -back),
      );
    if (program.presentRhs !== null) this.#rhs(program.presentRhs, 'f', this.#presentTime(), program.present);
  }

  lay(): readonly (readonly TextPart[])[] {
    for (const instruction of this.#program.instructions) this.#do(instruction);
    return this.#program.next.map((register) => this.#partsOf(register));
  }

  #partsOf(register: Register): readonly TextPart[] {
    return this.#known.get(register) ?? [];
  }

  #presentTime(): TextPart {
    return atom(cellAt(this.#of.places.t));
  }

  /** Puts formulas into columns under these titles, and makes the cells what a register is. */
  #put(
    register: Register,
    titles: readonly string[],
    formulas: readonly TextPart[],
    source: (component: number) => StageSource | null,
  ): void {
    this.#known.set(
      register,
      formulas.map(({ text }, j) => {
        this.columns.push({ title: titles[j] ?? '', formula: text, source: source(j) });
        return atom(cellAt(this.#of.from + this.columns.length - 1));
      }),
    );
  }

  #titles(name: string, isScalar: boolean): readonly string[] {
    return isScalar ? [name] : vectorNames(name, this.#names);
  }

  #set(register: Register, formulas: readonly TextPart[], isScalar: boolean): void {
    const index = this.#program.stages.findIndex((known) => known.register === register);
    const stage = this.#program.stages[index];
    const isNext = this.#program.next.includes(register);
    if (stage !== undefined && !isNext)
      this.#put(register, this.#titles(stage.name, isScalar), formulas, (component) => ({
        kind: 'stage',
        index,
        component,
      }));
    else if (!isNext && formulas.some(({ text }) => text.length > LONG))
      this.#put(register, this.#titles('part', isScalar), formulas, () => null);
    else this.#known.set(register, formulas);
  }

  #do(instruction: Instruction): void {
    switch (instruction.kind) {
      case 'combine': {
        const { into, value, shape } = instruction;
        const count = shape === 'scalar' ? 1 : this.#names.length;
        this.#set(
          into,
          Array.from({ length: count }, (_, j) => this.#tree(value, j)),
          shape === 'scalar',
        );
        return;
      }
      case 'rhs':
        if (instruction.into !== this.#program.presentRhs)
          this.#rhs(instruction.into, null, this.#tree(instruction.time, 0), instruction.at);
        return;
      case 'derivative':
      case 'partial':
      case 'typed':
        throw new Refusal('form', 'methods with derivatives of f cannot be exported as a live spreadsheet');
      case 'solve':
        this.#solve(instruction);
    }
  }

  /** Puts the columns of Newton's method, and makes the cells of its last iteration what the unknowns are. */
  #solve({ unknowns, values, results, guess }: SolveInstruction): void {
    const width = this.#names.length;
    const { next, present, stages } = this.#program;
    if (unknowns.length * width > MAX_UNKNOWNS)
      throw new Refusal(
        'size',
        `a live spreadsheet solves for at most ${MAX_UNKNOWNS} numbers in a step, and this method for ${unknowns.length * width}`,
      );
    const vectors = <T>(all: readonly T[]): readonly (readonly T[])[] =>
      unknowns.map((_, i) => all.slice(i * width, (i + 1) * width));
    const last = newtonColumns({
      guess: unknowns.flatMap((register) =>
        this.#names.map((_, j) => {
          const own = present[Math.max(0, next.indexOf(register))] ?? 0;
          return guess === 'zero' ? atom('0') : (this.#partsOf(own)[j] ?? MISSING);
        }),
      ),
      names: unknowns.flatMap((register) =>
        this.#titles(stages.find((stage) => stage.register === register)?.name ?? 'new value', false),
      ),
      formulas: (at) => {
        vectors(at).forEach((cells, i) => this.#known.set(unknowns[i] ?? 0, cells));
        for (const instruction of values) this.#do(instruction);
        return results.flatMap((register) => this.#partsOf(register));
      },
      put: (title, formula) => {
        this.columns.push({ title, formula, source: null });
        return atom(cellAt(this.#of.from + this.columns.length - 1));
      },
    });
    vectors(last).forEach((cells, i) => this.#set(unknowns[i] ?? 0, cells, false));
  }

  #rhs(into: Register, name: string | null, time: TextPart, at: readonly Register[]): void {
    const { problem, formula } = this.#of;
    const layout = layOut(problem, this.#program);
    const standing = {
      time,
      component: (place: number): TextPart => {
        const { vector, index } = layout.of[place] ?? { vector: 0, index: 0 };
        return this.#partsOf(at[vector] ?? 0)[index] ?? MISSING;
      },
    };
    const rightHandSides = layout.rated.flatMap(({ block }) =>
      Array.from({ length: block.size }, (_, element) => formula(block.rhs, block, element, standing)),
    );
    const moving = layout.places.at(-1) ?? [];
    if (name !== null)
      this.#put(into, this.#titles(name, false), rightHandSides, (component) => ({
        kind: 'slope',
        place: moving[component] ?? 0,
      }));
    else this.#set(into, rightHandSides, false);
  }

  #tree(tree: StepTree, component: number): TextPart {
    const { writing, used } = this.#of;
    const language = programLanguage(writing, ({ to }: Bound<StepLeaf>) => this.#leaf(to, component), used);
    return printer<TextPart, Bound<StepLeaf>>(language)(tree);
  }

  #leaf(to: StepLeaf, component: number): TextPart {
    const { places, start, h, writing } = this.#of;
    switch (to.kind) {
      case 'time':
        return to.offset === 0
          ? this.#presentTime()
          : {
              text: `${start}+(${cellAt(places.n)}${to.offset > 0 ? '+' : ''}${to.offset})*${h}`,
              holds: 'sum',
            };
      case 'step':
        return atom(h);
      case 'constant':
        return numberPart(to.value, writing);
      case 'register': {
        const known = this.#partsOf(to.register);
        return known[component] ?? known[0] ?? MISSING;
      }
      case 'tangent':
        return MISSING;
    }
  }
}

/**
 * A method as columns of a sheet: one for every stage and component, formulas without a name where they are used.
 *
 * @throws Refusal for derivatives of f, and for more unknowns than are solved for
 */
export function stepColumns(method: Method, of: StepContext): StepColumns {
  const { problem } = of;
  const program = lower(method, problem.size === 1 && method.form === 'first order');
  const layout = layOut(problem, program);
  const all = componentNames(problem);
  const names = (layout.places[0] ?? []).map((place) => all[place] ?? '');
  const laying = new Laying(of, program, layout.width, names);
  const made = laying.lay();
  return {
    depth: program.depth,
    columns: laying.columns,
    next: layout.of.map(({ vector, index }) => (made[vector]?.[index] ?? MISSING).text),
  };
}
