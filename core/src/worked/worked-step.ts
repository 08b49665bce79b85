import type { CompiledRun } from '../compile/compile.ts';
import type { Instruction, PastValue, ProgramLine } from '../program/program.ts';
import { RhsTrees } from '../program/rhs-tree.ts';
import type { Register, StepTree } from '../program/step-tree.ts';
import {
  type Bound,
  type Expression,
  mapLeaves,
  meaningsOf,
  number,
  type Tree,
} from '../formula/expression.ts';
import { texNumber, texSymbol } from '../formula/tex-names.ts';
import { indexTex, texOf } from '../formula/tex.ts';
import {
  asCalled,
  type CalledNames,
  type Given,
  givenAsCalled,
  givenText,
  stepsBackBy,
} from '../method/method.ts';
import { exactSolution } from '../run/exact-solution.ts';
import { type Grid, stepSizeAt, timeAt } from '../run/grid.ts';
import { type Row, rowsOf } from '../run/rows.ts';
import { rhsLeafValue, StepInterpreter } from '../run/step-interpreter.ts';
import { rounded } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';

/** Digits of numbers that are put into a formula. */
const DIGITS = 7;

/** One line of a step that is computed: the formula, numbers substituted, and the value. */
export interface WorkedLine {
  /** The stage that it gives, or 'y[n+1]' and the like; null for a value on the way. */
  readonly gives: string | null;
  /** What follows one another with signs of equality, in TeX: name, formula, numbers substituted, value. */
  readonly tex: readonly string[];
  /** The value of the component that is shown. */
  readonly value: number;
  /** Whether it is solved for by Newton's method. */
  readonly solved: boolean;
  /** How far the value is from its formula, at most over the components: rounding, or what Newton's method has left. */
  readonly residual: number | null;
}

/** A place where a step has looked at the slope, for the component that is shown. */
export interface SlopeSample {
  /** The stage that holds the slope, or f at that place. */
  readonly label: string;
  readonly t: number;
  readonly value: number;
  readonly slope: number;
}

/** One step of one method, computed. */
export interface WorkedStep {
  readonly n: number;
  readonly t: number;
  readonly h: number;
  readonly lines: readonly WorkedLine[];
  readonly slopes: readonly SlopeSample[];
  /** Present and new value of the component that is shown. */
  readonly from: number;
  readonly to: number;
  /** Exact value at both ends; null where none is known. */
  readonly exact: readonly [from: number | null, to: number | null];
  /** For steps taken by the starting method: its title. */
  readonly byStarter: boolean;
}

/** Runs that a multistep method may ask for, at most. */
const MAX_BACK = 20;

function valueTex(value: number): string {
  return texNumber(rounded(value, DIGITS));
}

/** A name with the number of the step in its index: `y_{9}`, `t_{10}`. */
function atStep(name: string, n: number): string {
  return `${texSymbol(name)}_{${n}}`;
}

function givenTex(given: Given, called: CalledNames, n: number): string {
  const name = givenAsCalled(given, called);
  return given.kind === 'name' ? texSymbol(name) : atStep(name, n + 1);
}

/** A formula with the numbers of the steps in its indices, as it is computed at step n. */
function formulaTex(value: Expression, called: CalledNames, n: number): string {
  return texOf(asCalled(value, called), (index) => {
    const back = stepsBackBy(index);
    return back === null ? indexTex(index) : String(n - back);
  });
}

/** The value of a register in a run: a number, or one per component. */
type Value = readonly number[];

function residualOf(value: Value, again: Value): number {
  return Math.max(...value.map((own, j) => Math.abs(own - (again[j] ?? NaN))));
}

/** A number as it is put into a formula: rounded, and negative ones as such, so that they get brackets. */
function shown(value: number): Tree<never> {
  return number(rounded(value, DIGITS));
}

/** A formula in TeX with numbers in place of its leaves; null where one has no finite value. */
function numbersTex<B>(tree: Tree<Bound<B>>, leaf: (to: B) => number): string | null {
  if (!meaningsOf(tree).every((to) => Number.isFinite(leaf(to)))) return null;
  return texOf(mapLeaves(tree, (to) => shown(leaf(to))));
}

/** All instructions of a step, those of implicit lines among them. */
function flat(instructions: readonly Instruction[]): readonly Instruction[] {
  return instructions.flatMap((instruction) =>
    instruction.kind === 'solve' ? [...flat(instruction.values), instruction] : [instruction],
  );
}

type RhsInstruction = Instruction & { readonly kind: 'rhs' };

class StepTypesetter {
  readonly #run: CompiledRun;
  readonly #n: number;
  readonly #step: StepInterpreter;
  readonly #values: (register: Register) => Value | null;
  readonly #component: number;
  readonly #trees: RhsTrees;
  readonly #instructions: readonly Instruction[];

  /**
   * @param step the step interpreted, which knows what every register holds
   * @param values what the run itself has for stages and new values
   */
  constructor(
    { run, n, component }: { readonly run: CompiledRun; readonly n: number; readonly component: number },
    step: StepInterpreter,
    values: (register: Register) => Value | null,
  ) {
    this.#run = run;
    this.#n = n;
    this.#step = step;
    this.#values = values;
    this.#component = component;
    this.#trees = new RhsTrees(run.problem);
    this.#instructions = flat(run.program.instructions);
  }

  lines(): readonly WorkedLine[] {
    return this.#run.program.lines.flatMap((line) => this.#line(line));
  }

  /** Where the calls of f have looked. */
  slopes(): readonly SlopeSample[] {
    const { program } = this.#run;
    if (program.form !== 'first order') return [];
    return this.#instructions.flatMap((instruction): SlopeSample[] => {
      if (instruction.kind !== 'rhs' || instruction.into === program.presentRhs) return [];
      const { into, time, at, line } = instruction;
      const own = program.lines.find(({ register, source }) => register === into && source.kind === 'call');
      return [
        {
          label: own === undefined ? 'f' : givenText(own.given),
          t: this.#step.formula(time, 0, line),
          value: this.#step.valueAt(at[0] ?? into, this.#component),
          slope: this.#step.valueAt(into, this.#component),
        },
      ];
    });
  }

  #line({ given, register, source, value, isSolved }: ProgramLine): readonly WorkedLine[] {
    const found = this.#values(register);
    if (found === null) return [];
    const own = componentOf(found, this.#component);
    const rhs = source.kind === 'call' ? this.#rhsInto(register) : null;
    const numbers = rhs === null ? this.#numbersOf(value) : this.#rhsNumbers(rhs);
    const again = found.map((_, j) => this.#step.formula(value, j, ''));
    return [
      ...(rhs === null ? [] : this.#places(rhs)),
      {
        gives: givenText(given),
        tex: [
          givenTex(given, this.#run.program.called, this.#n),
          formulaTex(source, this.#run.program.called, this.#n),
          // a right-hand side that is just another component has nothing to be put in
          ...(numbers === null || numbers === valueTex(own) ? [] : [numbers]),
          valueTex(own),
        ],
        value: own,
        solved: isSolved,
        residual: residualOf(found, again),
      },
    ];
  }

  #rhsInto(register: Register): RhsInstruction | null {
    const found = this.#instructions.find(
      (instruction) => instruction.kind === 'rhs' && instruction.into === register,
    );
    return found?.kind === 'rhs' ? found : null;
  }

  #numbersOf(value: StepTree): string | null {
    if (value.kind === 'number') return null;
    return numbersTex(value, (leaf) => this.#step.leafValue(leaf, this.#component));
  }

  /** The right-hand side of the component that is shown, with numbers substituted. */
  #rhsNumbers({ time, at, line }: RhsInstruction): string | null {
    const found = this.#run.layout.rated.find(
      ({ block, offset }) => this.#component >= offset && this.#component < offset + block.size,
    );
    if (found === undefined) return null;
    const tree = this.#trees.at(found.block.rhs, found.block, this.#component - found.offset);
    const when = this.#step.formula(time, 0, line);
    return numbersTex(
      tree,
      rhsLeafValue(this.#run, { when, at: at.map((register) => this.#step.vector(register)) }),
    );
  }

  /** The places at which f is taken, where they are more than a name. */
  #places({ at, typedAt }: RhsInstruction): readonly WorkedLine[] {
    return typedAt.flatMap((typed, i): WorkedLine[] => {
      const register = at[i];
      if (register === undefined || typed.kind === 'name' || typed.kind === 'indexed') return [];
      const own = this.#step.valueAt(register, this.#component);
      const made = this.#instructions.find(
        (instruction) => instruction.kind === 'combine' && instruction.into === register,
      );
      const numbers = made?.kind === 'combine' ? this.#numbersOf(made.value) : null;
      if (!Number.isFinite(own)) return [];
      return [
        {
          gives: null,
          tex: [
            formulaTex(typed, this.#run.program.called, this.#n),
            ...(numbers === null ? [] : [numbers]),
            valueTex(own),
          ],
          value: own,
          solved: false,
          residual: 0,
        },
      ];
    });
  }
}

function componentOf(value: Value, component: number): number {
  return value[value.length === 1 ? 0 : component] ?? NaN;
}

/** What the registers of a step hold before it and after it, by the rows of a run. */
class RowRegisters {
  readonly #run: CompiledRun;
  readonly #rows: readonly Row[];
  readonly #here: Row;
  readonly #next: Row;

  constructor(run: CompiledRun, rows: readonly Row[], here: Row, next: Row) {
    this.#run = run;
    this.#rows = rows;
    this.#here = here;
    this.#next = next;
  }

  /** Present values and those kept from steps before. */
  before(): ReadonlyMap<Register, Value> {
    const { program, layout } = this.#run;
    const moving = layout.places.at(-1) ?? [];
    const at = (row: Row | undefined, of: PastValue['of']): Value =>
      of === 'f'
        ? moving.map((place) => row?.slopes[place] ?? NaN)
        : (layout.places[of === 'v' ? 1 : 0] ?? []).map((place) => row?.values[place] ?? NaN);
    const present = program.present.map((register, i): [Register, Value] => [
      register,
      at(this.#here, i === 1 ? 'v' : 'y'),
    ]);
    const kept = program.kept.map(({ of, back, register }): [Register, Value] => [
      register,
      at(
        this.#rows.find(({ n }) => n === this.#here.n - back),
        of,
      ),
    ]);
    return new Map([...present, ...kept]);
  }

  /** Stages and new values; null for a register that is neither. */
  readonly after = (register: Register): Value | null => {
    const { program, layout } = this.#run;
    const next = program.next.indexOf(register);
    if (next >= 0) return (layout.places[next] ?? []).map((place) => this.#next.values[place] ?? NaN);
    const stage = program.stages.findIndex((known) => known.register === register);
    return this.#here.stages?.[stage] ?? null;
  };
}

/**
 * One step of a run computed: every line of the method with its formula, with numbers substituted, and with its value, for one
 * component; and where the step has looked at the slope.
 *
 * @param n the step from grid point n to n + 1
 * @param component which component is shown, by its place in the vectors of the method
 * @throws Refusal as `begin`, and where there is no such step
 * @example workedStep(run, grid, 0, 0).lines[0]?.gives // 'k1'
 */
export function workedStep(run: CompiledRun, grid: Grid, n: number, component: number): WorkedStep {
  if (!(n >= 0 && n < grid.steps)) throw new Refusal('grid', `there is no step from ${n} to ${n + 1}`);
  const first = Math.max(0, n - Math.min(MAX_BACK, run.program.depth));
  const { rows, stopped } = rowsOf(run, grid, { from: first, count: n - first + 2 });
  const here = rows.find((row) => row.n === n);
  const next = rows.find((row) => row.n === n + 1);
  if (here === undefined || next === undefined)
    throw new Refusal(
      'grid',
      stopped === null ? `there is no step from ${n} to ${n + 1}` : `the run stops in step ${stopped.step}`,
    );
  const h = stepSizeAt(grid, n);
  const place = run.layout.places[0]?.[component] ?? component;
  const exact = exactSolution(run.problem);
  const exactAt = (t: number): number | null => (exact.known(place) ? exact.value(place, t) : null);
  const byStarter = n < run.program.depth;
  const writer = byStarter ? null : stepWriter(run, grid, { rows, here, next }, component);
  return {
    n,
    t: here.t,
    h,
    lines: writer?.lines() ?? [],
    slopes: writer?.slopes() ?? [],
    from: here.values[place] ?? NaN,
    to: next.values[place] ?? NaN,
    exact: [exactAt(here.t), exactAt(timeAt(grid, n + 1))],
    byStarter,
  };
}

/** The step between two rows of a run, interpreted with what the run has found for implicit lines. */
function stepWriter(
  run: CompiledRun,
  grid: Grid,
  { rows, here, next }: { readonly rows: readonly Row[]; readonly here: Row; readonly next: Row },
  component: number,
): StepTypesetter {
  const registers = new RowRegisters(run, rows, here, next);
  const h = stepSizeAt(grid, here.n);
  const isShorter = h !== grid.h;
  const step = new StepInterpreter({
    run,
    place: { origin: isShorter ? here.t : grid.start, n: isShorter ? 0 : here.n, h },
    vectors: registers.before(),
    unknown: (_, register) => registers.after(register) ?? [],
  }).step();
  return new StepTypesetter({ run, n: here.n, component }, step, registers.after);
}
