import type { Decimal } from 'decimal.js';
import type { CompiledRun } from '../compile/compile.ts';
import type { Instruction, PastValue, ProgramLine } from '../program/program.ts';
import { RhsTrees } from '../program/rhs-tree.ts';
import type { Register, StepTree } from '../program/step-tree.ts';
import {
  bound,
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
import { beginInDecimals } from '../run/decimal-state.ts';
import {
  rhsLeafValue,
  stepInDecimals,
  stepInDoubles,
  StepInterpreter,
  type StepNumbers,
} from '../run/step-interpreter.ts';
import { rounded } from '../text/number-text.ts';
import { operationsOf } from './operations.ts';
import { Refusal } from '../text/refusal.ts';

/** Digits of numbers that are put into a formula. */
const DIGITS = 7;
/** Digits of an arithmetic in which every operation of a step is shown with its rounded result, at most. */
const MAX_BY_OPERATION = 10;

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

/** The numbers of a worked step, in the arithmetic of its run. */
interface WorkedNumbers<V> {
  readonly step: StepNumbers<V>;
  readonly toDouble: (value: V) => number;
  /** A number as it is put into a formula. */
  readonly shown: (value: V) => number;
  /** Whether every operation is shown: where the numbers have so few digits that each is seen to be rounded. */
  readonly isByOperation: boolean;
}

/** The value of a register in a run: a number, or one per component. */
type Value<V> = readonly V[];

/** A formula whose leaves are numbers. */
type NumberTree<V> = Tree<Bound<V>>;

function valuesOf<B, V>(tree: Tree<Bound<B>>, leaf: (to: B) => V): NumberTree<V> {
  return mapLeaves(tree, (to) => bound(leaf(to), ''));
}

/** All instructions of a step, those of implicit lines among them. */
function flat(instructions: readonly Instruction[]): readonly Instruction[] {
  return instructions.flatMap((instruction) =>
    instruction.kind === 'solve' ? [...flat(instruction.values), instruction] : [instruction],
  );
}

type RhsInstruction = Instruction & { readonly kind: 'rhs' };

interface TypesetterParts<V> {
  readonly run: CompiledRun;
  readonly n: number;
  readonly component: number;
  readonly numbers: WorkedNumbers<V>;
}

class StepTypesetter<V> {
  readonly #run: CompiledRun;
  readonly #n: number;
  readonly #numbers: WorkedNumbers<V>;
  readonly #step: StepInterpreter<V>;
  readonly #values: (register: Register) => Value<V> | null;
  readonly #component: number;
  readonly #trees: RhsTrees;
  readonly #instructions: readonly Instruction[];

  /**
   * @param step the step interpreted, which knows what every register holds
   * @param values what the run itself has for stages and new values
   */
  constructor(
    { run, n, component, numbers }: TypesetterParts<V>,
    step: StepInterpreter<V>,
    values: (register: Register) => Value<V> | null,
  ) {
    this.#run = run;
    this.#n = n;
    this.#numbers = numbers;
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
          t: this.#numbers.toDouble(this.#step.formula(time, 0, line)),
          value: this.#numbers.toDouble(this.#step.valueAt(at[0] ?? into, this.#component)),
          slope: this.#numbers.toDouble(this.#step.valueAt(into, this.#component)),
        },
      ];
    });
  }

  #valueTex(value: V): string {
    return texNumber(this.#numbers.shown(value));
  }

  #line({ given, register, source, value, isSolved }: ProgramLine): readonly WorkedLine[] {
    const found = this.#values(register);
    if (found === null) return [];
    const { step, toDouble } = this.#numbers;
    const own = componentOf(found, this.#component) ?? step.notANumber;
    const rhs = source.kind === 'call' ? this.#rhsInto(register) : null;
    const numbers = rhs === null ? this.#numbersOf(value) : this.#rhsNumbers(rhs);
    const again = found.map((_, j) => step.stored(register, this.#step.formula(value, j, '')));
    const residual = found.map((one, j) =>
      Math.abs(toDouble(step.arithmetic.operate('-', one, again[j] ?? step.notANumber))),
    );
    return [
      ...(rhs === null ? [] : this.#places(rhs)),
      {
        gives: givenText(given),
        tex: [
          givenTex(given, this.#run.program.called, this.#n),
          formulaTex(source, this.#run.program.called, this.#n),
          ...this.#evaluated(numbers, own),
        ],
        value: toDouble(own),
        solved: isSolved,
        residual: Math.max(...residual),
      },
    ];
  }

  /** A formula with numbers substituted, where wanted its operations one after another, and its value. */
  #evaluated(tree: NumberTree<V> | null, value: V): readonly string[] {
    const last = this.#valueTex(value);
    if (tree === null) return [last];
    const { step, shown, isByOperation } = this.#numbers;
    // where one number is not finite there is nothing to be shown
    if (!meaningsOf(tree).every((own) => step.isFinite(own))) return [last];
    const trees = isByOperation ? operationsOf(tree, step.arithmetic) : [tree];
    const texts = trees.map((one) => texOf(mapLeaves(one, (own) => number(shown(own)))));
    // a right-hand side that is just another component has nothing to be put in
    return [...texts.filter((text, i) => text !== last && text !== texts[i - 1]), last];
  }

  #rhsInto(register: Register): RhsInstruction | null {
    const found = this.#instructions.find(
      (instruction) => instruction.kind === 'rhs' && instruction.into === register,
    );
    return found?.kind === 'rhs' ? found : null;
  }

  #numbersOf(value: StepTree): NumberTree<V> | null {
    if (value.kind === 'number') return null;
    return valuesOf(value, (leaf) => this.#step.leafValue(leaf, this.#component));
  }

  /** The right-hand side of the component that is shown, with numbers substituted. */
  #rhsNumbers({ time, at, line }: RhsInstruction): NumberTree<V> | null {
    const found = this.#run.layout.rated.find(
      ({ block, offset }) => this.#component >= offset && this.#component < offset + block.size,
    );
    if (found === undefined) return null;
    const tree = this.#trees.at(found.block.rhs, found.block, this.#component - found.offset);
    const when = this.#step.formula(time, 0, line);
    const vectors = at.map((register) => this.#step.vector(register));
    return valuesOf(tree, rhsLeafValue(this.#run, this.#numbers.step, { when, at: vectors }));
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
      if (!this.#numbers.step.isFinite(own)) return [];
      return [
        {
          gives: null,
          tex: [formulaTex(typed, this.#run.program.called, this.#n), ...this.#evaluated(numbers, own)],
          value: this.#numbers.toDouble(own),
          solved: false,
          residual: 0,
        },
      ];
    });
  }
}

function componentOf<V>(value: Value<V>, component: number): V | undefined {
  return value[value.length === 1 ? 0 : component];
}

/** The numbers of a row, in the arithmetic of its run. */
interface RowNumbers<V> {
  readonly values: readonly V[];
  readonly slopes: readonly V[];
  readonly stages: readonly (readonly V[])[] | null;
}

/** What the registers of a step hold before it and after it, by the rows of a run. */
class RowRegisters<V> {
  readonly #run: CompiledRun;
  readonly #rows: StepRows;
  readonly #numbersOf: (row: Row) => RowNumbers<V>;
  readonly #notANumber: V;

  constructor(run: CompiledRun, rows: StepRows, numbersOf: (row: Row) => RowNumbers<V>, notANumber: V) {
    this.#run = run;
    this.#rows = rows;
    this.#numbersOf = numbersOf;
    this.#notANumber = notANumber;
  }

  /** Present values and those kept from steps before. */
  before(): ReadonlyMap<Register, Value<V>> {
    const { program, layout } = this.#run;
    const { here, rows } = this.#rows;
    const moving = layout.places.at(-1) ?? [];
    const at = (row: Row | undefined, of: PastValue['of']): Value<V> => {
      const numbers = row === undefined ? null : this.#numbersOf(row);
      return of === 'f'
        ? moving.map((place) => numbers?.slopes[place] ?? this.#notANumber)
        : (layout.places[of === 'v' ? 1 : 0] ?? []).map(
            (place) => numbers?.values[place] ?? this.#notANumber,
          );
    };
    const present = program.present.map((register, i): [Register, Value<V>] => [
      register,
      at(here, i === 1 ? 'v' : 'y'),
    ]);
    const kept = program.kept.map(({ of, back, register }): [Register, Value<V>] => [
      register,
      at(
        rows.find(({ n }) => n === here.n - back),
        of,
      ),
    ]);
    return new Map([...present, ...kept]);
  }

  /** Stages and new values; null for a register that is neither. */
  readonly after = (register: Register): Value<V> | null => {
    const { program, layout } = this.#run;
    const next = program.next.indexOf(register);
    if (next >= 0) {
      const { values } = this.#numbersOf(this.#rows.next);
      return (layout.places[next] ?? []).map((place) => values[place] ?? this.#notANumber);
    }
    const stage = program.stages.findIndex((known) => known.register === register);
    return this.#numbersOf(this.#rows.here).stages?.[stage] ?? null;
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
  const { lines, slopes } = byStarter
    ? { lines: [], slopes: [] }
    : writtenStep(run, grid, { rows, here, next }, component);
  return {
    n,
    t: here.t,
    h,
    lines,
    slopes,
    from: here.values[place] ?? NaN,
    to: next.values[place] ?? NaN,
    exact: [exactAt(here.t), exactAt(timeAt(grid, n + 1))],
    byStarter,
  };
}

/** Rows of a run around one step. */
interface StepRows {
  readonly rows: readonly Row[];
  readonly here: Row;
  readonly next: Row;
}

/** The lines of the step between two rows of a run, and where it has looked at the slope. */
function writtenStep(
  run: CompiledRun,
  grid: Grid,
  rows: StepRows,
  component: number,
): Pick<WorkedStep, 'lines' | 'slopes'> {
  const { n, t } = rows.here;
  if (run.decimal === null) {
    const h = stepSizeAt(grid, n);
    const isShorter = h !== grid.h;
    const step = stepInDoubles(run, { origin: isShorter ? t : grid.start, n: isShorter ? 0 : n, h });
    const numbers: WorkedNumbers<number> = {
      step,
      toDouble: (value) => value,
      shown: (value) => rounded(value, DIGITS),
      isByOperation: false,
    };
    return typeset(run, rows, { component, numbers, numbersOf: (row) => row });
  }
  const { decimals } = run.decimal;
  const { digits } = decimals.precision;
  const isFew = digits <= MAX_BY_OPERATION;
  const numbers: WorkedNumbers<Decimal> = {
    step: stepInDecimals(run, beginInDecimals(run.decimal, grid, run.shape.newton), n),
    toDouble: (value) => value.toNumber(),
    shown: (value) => (isFew ? decimals.rounded(value).toNumber() : rounded(value.toNumber(), DIGITS)),
    isByOperation: isFew && decimals.precision.rounded === 'operations',
  };
  const all = (list: readonly string[]): readonly Decimal[] => list.map((text) => decimals.typed(text));
  const numbersOf = ({ digits: own }: Row): RowNumbers<Decimal> => ({
    values: all(own?.values ?? []),
    slopes: all(own?.slopes ?? []),
    stages: own?.stages?.map(all) ?? null,
  });
  return typeset(run, rows, { component, numbers, numbersOf });
}

interface Typesetting<V> {
  readonly component: number;
  readonly numbers: WorkedNumbers<V>;
  readonly numbersOf: (row: Row) => RowNumbers<V>;
}

/** A step interpreted with what the run has found for implicit lines, and typeset. */
function typeset<V>(
  run: CompiledRun,
  rows: StepRows,
  { component, numbers, numbersOf }: Typesetting<V>,
): Pick<WorkedStep, 'lines' | 'slopes'> {
  const registers = new RowRegisters(run, rows, numbersOf, numbers.step.notANumber);
  const step = new StepInterpreter({
    run,
    numbers: numbers.step,
    vectors: registers.before(),
    unknown: (_, register) => registers.after(register) ?? [],
  }).step();
  const writer = new StepTypesetter({ run, n: rows.here.n, component, numbers }, step, registers.after);
  return { lines: writer.lines(), slopes: writer.slopes() };
}
