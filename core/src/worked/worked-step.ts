import type { CompiledRun } from '../compile/compile.ts';
import { RateTrees } from '../compile/program/rate-tree.ts';
import type { Expression } from '../formula/expression.ts';
import { FUNCTIONS } from '../formula/functions.ts';
import { texNumber, texSymbol } from '../formula/tex-names.ts';
import { indexTex, texOf } from '../formula/tex.ts';
import { type Given, givenBy, type Method, stepsBackBy, valuesOf } from '../method/method.ts';
import { exactSolution } from '../run/exact-solution.ts';
import { type Grid, stepSizeAt, timeAt } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import { rounded } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import { DIGITS, rateWithNumbers, withNumbers } from './put-in.ts';
import { stateOf, stepValues, type StepValues } from './step-values.ts';
import { componentOf, type Value, valueOf } from './values.ts';

/** One line of a step that is worked out: the formula, numbers put in, and the value. */
export interface WorkedLine {
  /** The stage that it gives, or 'y[n+1]' and the like; null for a value on the way. */
  readonly gives: string | null;
  /** What follows one another with signs of equality, in TeX: name, formula, numbers put in, value. */
  readonly tex: readonly string[];
  /** The value of the component that is shown. */
  readonly value: number;
  /** Whether it is solved for by Newton's method. */
  readonly solved: boolean;
  /** How far the value is from its formula, at most over the components: rounding, or what Newton's method has left. */
  readonly residual: number | null;
}

/** A place where a step has looked at the slope, for the component that is shown. */
export interface Look {
  /** The stage that holds the slope, or f at that place. */
  readonly label: string;
  readonly t: number;
  readonly value: number;
  readonly slope: number;
}

/** One step of one method, worked out. */
export interface WorkedStep {
  readonly n: number;
  readonly t: number;
  readonly h: number;
  readonly lines: readonly WorkedLine[];
  readonly looks: readonly Look[];
  /** Present and new value of the component that is shown. */
  readonly from: number;
  readonly to: number;
  /** Exact value at both ends; null where none is known. */
  readonly exact: readonly [from: number | null, to: number | null];
  /** For first steps that another method does: its title. */
  readonly byStarter: boolean;
}

/** Runs that a formula which reaches back may ask for, at most. */
const MAX_BACK = 20;

function valueTex(value: number): string {
  return texNumber(rounded(value, DIGITS));
}

/** A name with the number of the step in its index: `y_{9}`, `t_{10}`. */
function atStep(name: string, n: number): string {
  return `${texSymbol(name)}_{${n}}`;
}

function givenTex(given: Given, n: number): string {
  return given.kind === 'name' ? texSymbol(given.name) : atStep(given.variable, n + 1);
}

/** A formula with the numbers of the steps in its indices, as it is worked out at step n. */
function formulaTex(value: Expression, n: number): string {
  return texOf(value, (index) => {
    const back = stepsBackBy(index);
    return back === null ? indexTex(index) : String(n - back);
  });
}

function residualOf(value: Value, again: Value | null): number | null {
  if (again === null) return null;
  const width = typeof value === 'number' ? 1 : value.length;
  return Math.max(
    ...Array.from({ length: width }, (_, j) => Math.abs(componentOf(value, j) - componentOf(again, j))),
  );
}

class StepWriter {
  readonly #run: CompiledRun;
  readonly #method: Method;
  readonly #own: StepValues;
  readonly #component: number;
  readonly #trees: RateTrees;
  readonly lines: WorkedLine[] = [];
  readonly looks: Look[] = [];

  constructor(run: CompiledRun, method: Method, own: StepValues, component: number) {
    this.#run = run;
    this.#method = method;
    this.#own = own;
    this.#component = component;
    this.#trees = new RateTrees(run.problem);
  }

  work(): void {
    for (const statement of this.#method.statements) {
      if (statement.kind === 'function') continue;
      const values = valuesOf(statement);
      givenBy(statement).forEach((given, i) => {
        const value = values[i];
        if (value !== undefined) this.#line(given, value, statement.kind === 'solve');
      });
    }
  }

  #isCall(name: string): boolean {
    return !FUNCTIONS.has(name) && name !== 'if';
  }

  #line(given: Given, formula: Expression, solved: boolean): void {
    const gives = given.kind === 'name' ? given.name : `${given.variable}[n+1]`;
    const name = givenTex(given, this.#own.n);
    const value = this.#own.given(given);
    if (value === null) return;
    this.#lookAtCalls(formula, gives);
    const rate = this.#rateLine(formula);
    const numbers = rate ?? this.#numbersOf(formula);
    const own = componentOf(value, this.#component);
    this.lines.push({
      gives,
      tex: [
        name,
        formulaTex(formula, this.#own.n),
        // a rate that is just another component has nothing to be put in
        ...(numbers === null || numbers === valueTex(own) ? [] : [numbers]),
        valueTex(own),
      ],
      value: own,
      solved,
      residual: residualOf(value, valueOf(formula, this.#own.names)),
    });
  }

  #numbersOf(formula: Expression): string | null {
    const made = withNumbers(formula, this.#component, this.#own.names, (name) => this.#isCall(name));
    return made === null || formula.kind === 'number' ? null : texOf(made);
  }

  /** A line that is just f at some place: first that place, where it has to be worked out, then the rate with numbers. */
  #rateLine(formula: Expression): string | null {
    if (formula.kind !== 'call' || (formula.name !== 'f' && formula.name !== 'a') || formula.primes > 0)
      return null;
    const [time, ...places] = formula.inputs;
    if (time === undefined) return null;
    for (const place of places) this.#place(place);
    const when = valueOf(time, this.#own.names);
    const values = places.map((place) => valueOf(place, this.#own.names));
    if (typeof when !== 'number' || !values.every((value) => value !== null)) return null;
    const state = stateOf(this.#run, values);
    const { rated } = this.#run.layout;
    const found = rated.find(
      ({ block, offset }) => this.#component >= offset && this.#component < offset + block.size,
    );
    if (found === undefined) return null;
    const tree = this.#trees.at(found.block.rate, found.block, this.#component - found.offset);
    return texOf(
      rateWithNumbers(tree, (to) => {
        if (to.kind === 'time') return when;
        if (to.kind === 'constant') return to.value;
        return to.kind === 'component' ? (state[to.place] ?? NaN) : NaN;
      }),
    );
  }

  /** The place at which f is taken, where it is more than a name. */
  #place(place: Expression): void {
    if (place.kind === 'name' || place.kind === 'indexed') return;
    const value = valueOf(place, this.#own.names);
    const numbers = this.#numbersOf(place);
    if (value === null || numbers === null) return;
    const own = componentOf(value, this.#component);
    this.lines.push({
      gives: null,
      tex: [formulaTex(place, this.#own.n), numbers, valueTex(own)],
      value: own,
      solved: false,
      residual: 0,
    });
  }

  /** Where the calls of f in a formula have looked. */
  #lookAtCalls(formula: Expression, gives: string): void {
    const visit = (node: Expression): void => {
      if (node.kind === 'call' && node.name === 'f' && node.primes === 0) {
        const [time, place] = node.inputs.map((input) => valueOf(input, this.#own.names));
        const slope = valueOf(node, this.#own.names);
        if (typeof time === 'number' && place != null && slope !== null)
          this.looks.push({
            label: node === formula ? gives : 'f',
            t: time,
            value: componentOf(place, this.#component),
            slope: componentOf(slope, this.#component),
          });
      }
      if (node.kind === 'call') node.inputs.forEach(visit);
      else if (node.kind === 'binary') [node.left, node.right].forEach(visit);
      else if (node.kind === 'negate') visit(node.of);
    };
    visit(formula);
  }
}

/**
 * One step of a run worked out: every line of the method with its formula, with numbers put in, and with its value, for one
 * component; and where the step has looked at the slope.
 *
 * @param n the step from grid point n to n + 1
 * @param component which component is shown, by its place in the vectors of the method
 * @throws Refusal as `begin`, and where there is no such step
 */
export function workedStep(
  run: CompiledRun,
  method: Method,
  grid: Grid,
  n: number,
  component: number,
): WorkedStep {
  if (!(n >= 0 && n < grid.steps)) throw new Refusal('grid', `there is no step from ${n} to ${n + 1}`);
  const first = Math.max(0, n - Math.min(MAX_BACK, method.depth));
  const { rows, stopped } = rowsOf(run, grid, first, n - first + 2);
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
  const worker = new StepWriter(run, method, stepValues(run, method, rows, here, next, h), component);
  const byStarter = n < run.program.depth;
  if (!byStarter) worker.work();
  return {
    n,
    t: here.t,
    h,
    lines: worker.lines,
    looks: worker.looks,
    from: here.values[place] ?? NaN,
    to: next.values[place] ?? NaN,
    exact: [exactAt(here.t), exactAt(timeAt(grid, n + 1))],
    byStarter,
  };
}
