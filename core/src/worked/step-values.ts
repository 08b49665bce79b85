import { compileRun, type CompiledRun } from '../compile/compile.ts';
import { ratesOf } from '../compile/rates.ts';
import type { Call, IndexedLeaf, NameLeaf } from '../formula/expression.ts';
import { type Given, type Method, partialOf, stepsBack } from '../method/method.ts';
import { parseMethod } from '../method/parse-method.ts';
import type { Row } from '../run/rows.ts';
import { attempt, Refusal } from '../text/refusal.ts';
import { componentOf, type StepNames, type Value, valueOf } from './values.ts';

/** The values of one step that was done. */
export interface StepValues {
  readonly n: number;
  readonly names: StepNames;
  /** The value of what a line gives; null where there is none. */
  readonly given: (given: Given) => Value | null;
}

/** A derivative of f at a time and value, by a method that does nothing else. */
function derivativeAt(run: CompiledRun, written: string, t: number, state: readonly number[]): Value | null {
  const made = attempt(() => {
    const probe = parseMethod(`k = ${written}(t, y)\ny[n+1] = y + h*k`);
    if (!probe.ok) throw new Refusal('text', 'no derivative');
    const one = compileRun(run.problem, probe.value, { precision: run.precision });
    const out = new Float64Array(one.stageWidth);
    const copy = new Float64Array(one.shape.length);
    copy.set(state);
    one.trace(copy, t, 0, 0, 1, out);
    return Array.from(out);
  });
  return made.ok ? made.value : null;
}

/** The state of the first-order system from the values of a call: y alone, or x and v. */
export function stateOf(run: CompiledRun, values: readonly Value[]): readonly number[] {
  const { places } = run.layout;
  const state: number[] = [];
  values.forEach((value, i) =>
    (places[i] ?? []).forEach((place, j) => {
      state[place] = componentOf(value, j);
    }),
  );
  return state;
}

const VECTORS: ReadonlyMap<string, number> = new Map([
  ['y', 0],
  ['x', 0],
  ['v', 1],
]);

/** What the names of a method stand for in the step from one row to the next, from what the run has computed. */
export function stepValues(
  run: CompiledRun,
  method: Method,
  rows: readonly Row[],
  here: Row,
  next: Row,
  h: number,
): StepValues {
  const lets = new Map<string, Value>(
    run.program.stages.map(({ name, shape }, i) => {
      const values = here.stages?.[i] ?? [];
      return [name, shape === 'scalar' ? (values[0] ?? NaN) : values];
    }),
  );
  /** The vectors of the method, in the order of its own components. */
  const ofState = (row: Row | undefined, name: string): readonly number[] | null => {
    const places = run.layout.places[VECTORS.get(name) ?? 0] ?? [];
    return row === undefined ? null : places.map((place) => row.values[place] ?? NaN);
  };
  const leaf = (of: NameLeaf | IndexedLeaf): Value | null => {
    if (of.kind === 'indexed') {
      const back = stepsBack(of) ?? 0;
      if (of.name === 't') return here.t - back * h;
      if (back < 0) return ofState(next, of.name);
      const row = rows.find(({ n }) => n === here.n - back);
      if (of.name !== 'f') return ofState(row, of.name);
      return row === undefined ? null : row.slopes;
    }
    const given = lets.get(of.name);
    if (given !== undefined) return given;
    if (of.name === 't') return here.t;
    if (of.name === 'h') return h;
    return VECTORS.has(of.name) ? ofState(here, of.name) : null;
  };
  const typedValue = (call: Call<NameLeaf | IndexedLeaf>, [time, value]: readonly Value[]): Value | null => {
    const typed = method.statements.find((s) => s.kind === 'function' && s.name === call.name);
    if (typed?.kind !== 'function') return null;
    const own = new Map<string, Value>([
      [typed.inputs[0], time ?? NaN],
      [typed.inputs[1], value ?? NaN],
    ]);
    return valueOf(typed.value, {
      ...names,
      known: new WeakMap(),
      leaf: (of) => own.get(of.name) ?? leaf(of),
    });
  };
  const called = (call: Call<NameLeaf | IndexedLeaf>, inputs: readonly Value[]): Value | null => {
    const [time, ...values] = inputs;
    const typed = typedValue(call, inputs);
    if (typed !== null || typeof time !== 'number') return typed;
    const partial = partialOf(call.name);
    if (partial !== null && partial.values > 0 && run.problem.size > 1) return null;
    if (call.primes > 0 || partial !== null)
      return derivativeAt(run, `${call.name}${"'".repeat(call.primes)}`, time, stateOf(run, values));
    if (call.name !== 'f' && call.name !== 'a') return null;
    return Array.from(ratesOf(run)(time, stateOf(run, values)));
  };
  const names: StepNames = { known: new WeakMap(), leaf, called };
  return {
    n: here.n,
    names,
    given: (given) =>
      given.kind === 'name' ? (lets.get(given.name) ?? null) : ofState(next, given.variable),
  };
}
