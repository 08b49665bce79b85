import { general } from '../text/number-text.ts';
import { primed } from '../text/primes.ts';
import { evaluate, type Operation } from '../formula/evaluate.ts';
import type { Expression } from '../formula/expression.ts';
import { type Block, componentName } from '../problem/problem.ts';
import { typedDerivative } from '../problem/typed-derivatives.ts';
import { jetFunction } from '../compile/jets/jet-function.ts';
import type { CompiledRun } from '../compile/compile.ts';
import { rounding } from '../compile/precision.ts';
import type { Instruction } from '../compile/program/program.ts';
import { partialRate, type RateTree, RateTrees } from '../compile/program/rate-tree.ts';
import type { Register, StepTree } from '../compile/program/step-tree.ts';
import { NEWTON } from '../compile/program/state.ts';

/** Where and why a run left the numbers. */
export interface Stop {
  /** The number of the step that could not be done, from 1: from grid point step-1 to step. */
  readonly step: number;
  /** The time at the start of that step. */
  readonly t: number;
  /** The line of the method in which it happened. */
  readonly stage: string;
  /** The operation and its inputs, in words. */
  readonly why: string;
}

/** Thrown inside the interpreter to leave at the first operation that leaves the numbers. */
class LeftTheNumbers extends Error {
  readonly stage: string;
  constructor(stage: string, why: string) {
    super(why);
    this.stage = stage;
  }
}

function shown(value: number): string {
  return Number.isInteger(value) && Math.abs(value) < 1e6 ? String(value) : general(value, 4);
}

function describe(operation: Operation): string {
  const { node, inputs, result } = operation;
  const values = inputs.map(shown);
  const outcome = Number.isNaN(result) ? 'is not a real number' : 'is beyond the largest number';
  if (node.kind === 'call') return `${node.name}(${values.join(', ')}) ${outcome}`;
  if (node.kind !== 'binary') return outcome;
  const [left, right] = values;
  if (node.operator === '/' && inputs[1] === 0) return `${left} is divided by 0`;
  const bracketed = inputs[1]! < 0 ? `(${right})` : right;
  const base = inputs[0]! < 0 && node.operator === '^' ? `(${left})` : left;
  return node.operator === '^'
    ? `${base}^${bracketed} ${outcome}`
    : `${base} ${node.operator} ${bracketed} ${outcome}`;
}

/** The state at the start of a step, as the interpreter of that step sees it. */
interface Step {
  readonly run: CompiledRun;
  readonly t: number;
  readonly h: number;
  readonly origin: number;
  readonly n: number;
  readonly vectors: Map<Register, readonly number[]>;
  readonly scalars: Map<Register, number>;
  readonly trees: RateTrees;
  readonly round: (x: number) => number;
}

function watch(stage: string, where: string): (operation: Operation) => void {
  return (operation) => {
    if (Number.isFinite(operation.result) || !operation.inputs.every(Number.isFinite)) return;
    throw new LeftTheNumbers(stage, `${describe(operation)}${where}`);
  };
}

function methodValue(step: Step, value: StepTree, component: number, line: string): number {
  const { run, t, h, origin, n, vectors, scalars } = step;
  return evaluate(
    value,
    (node) => {
      if (node.kind !== 'bound') return NaN;
      const leaf = node.to;
      switch (leaf.kind) {
        case 'time':
          return leaf.offset === 0 ? t : origin + (n + leaf.offset) * h;
        case 'step':
          return h;
        case 'constant':
          return leaf.value;
        case 'register':
          return scalars.get(leaf.register) ?? vectors.get(leaf.register)?.[component] ?? NaN;
        case 'tangent':
          return NaN;
      }
    },
    step.round,
    watch(line, run.problem.size === 1 ? '' : ` for ${componentName(run.problem, component)}`),
  );
}

/** An expression of the problem, such as a rate, at a time and state. */
function expressionValue(
  step: Step,
  expression: Expression,
  block: Block,
  element: number,
  at: readonly (readonly number[])[],
  when: number,
  line: string,
  change: (tree: RateTree) => RateTree = (tree) => tree,
  along: readonly number[] = [],
): number {
  const { run, trees, round } = step;
  const done = watch(line, ` in ${componentName(run.problem, block.offset + element)}'`);
  return evaluate(
    change(trees.at(expression, block, element)),
    (node) => {
      if (node.kind !== 'bound') return NaN;
      const leaf = node.to;
      if (leaf.kind === 'time') return when;
      if (leaf.kind === 'constant') return leaf.value;
      if (leaf.kind === 'tangent' && leaf.of.kind === 'component') return along[leaf.of.place] ?? NaN;
      const place = leaf.kind === 'component' ? run.layout.of[leaf.place] : undefined;
      return place === undefined ? NaN : (at[place.vector]?.[place.index] ?? NaN);
    },
    round,
    done,
  );
}

function doInstruction(step: Step, instruction: Instruction): void {
  const { run, vectors, scalars } = step;
  const { line } = instruction;
  const { width } = run.layout;
  const each = (make: (j: number) => number): readonly number[] =>
    Array.from({ length: width }, (_, j) => make(j));
  switch (instruction.kind) {
    case 'rate': {
      const when = methodValue(step, instruction.time, 0, line);
      const at = instruction.at.map((register) => vectors.get(register) ?? []);
      const rates = run.layout.rated.flatMap(({ block }) =>
        Array.from({ length: block.size }, (_, element) =>
          expressionValue(step, block.rate, block, element, at, when, line),
        ),
      );
      vectors.set(instruction.into, rates);
      return;
    }
    case 'derivative': {
      const out = new Float64Array((instruction.order + 2) * width);
      const when = methodValue(step, instruction.time, 0, line);
      jetFunction(run.problem, instruction.order + 1)(when, vectors.get(instruction.at) ?? [], out);
      const at = vectors.get(instruction.at) ?? [];
      const values = [...each((j) => out[(instruction.order + 1) * width + j]!)];
      for (const { block, offset } of run.layout.rated) {
        const typed = typedDerivative(run.problem, block, instruction.order);
        if (typed !== null) values[offset] = expressionValue(step, typed, block, 0, [at], when, line);
      }
      const bad = values.findIndex((value) => !Number.isFinite(value));
      const shown = primed('f', instruction.order);
      if (bad >= 0)
        throw new LeftTheNumbers(line, `${shown} is not finite for ${componentName(run.problem, bad)}`);
      vectors.set(instruction.into, values);
      return;
    }
    case 'partial': {
      const { along } = instruction;
      const when = methodValue(step, instruction.time, 0, line);
      const at = [vectors.get(instruction.at) ?? []];
      const direction = along === null ? [] : (vectors.get(along) ?? []);
      const change = (tree: RateTree): RateTree => partialRate(tree, instruction);
      const found = run.layout.rated.flatMap(({ block }) =>
        Array.from({ length: block.size }, (_, element) =>
          expressionValue(step, block.rate, block, element, at, when, line, change, direction),
        ),
      );
      vectors.set(instruction.into, found);
      return;
    }
    case 'typed':
      vectors.set(
        instruction.into,
        each((j) => methodValue(step, instruction.value, j, line)),
      );
      return;
    case 'combine':
      if (instruction.shape === 'scalar')
        scalars.set(instruction.into, methodValue(step, instruction.value, 0, line));
      else
        vectors.set(
          instruction.into,
          each((j) => methodValue(step, instruction.value, j, line)),
        );
      return;
    case 'solve': {
      const present = vectors.get(run.program.present[0]!) ?? [];
      for (const register of instruction.unknowns)
        vectors.set(
          register,
          each((j) => (instruction.guess === 'present' ? (present[j] ?? NaN) : 0)),
        );
      for (const inner of instruction.values) doInstruction(step, inner);
      throw new LeftTheNumbers(line, "Newton's iterates become infinite or undefined");
    }
  }
}

/** What the numbers about Newton's method say, where a solve has failed. */
function newtonFailure(
  run: CompiledRun,
  after: Float64Array,
): { readonly stage: string; readonly why: string } | null {
  const { newton } = run.shape;
  const failed = after[newton + NEWTON.failed] ?? 0;
  if (!(failed > 0)) return null;
  const residual = after[newton + NEWTON.residual] ?? NaN;
  if (!Number.isFinite(residual)) return null;
  const solves = run.program.instructions.filter((instruction) => instruction.kind === 'solve');
  const stage = solves[failed - 1]?.line ?? '';
  const why =
    after[newton + NEWTON.singular] === 1
      ? `Newton's method meets singular equations, residual ${shown(residual)}`
      : `Newton's method does not converge, damped or not, residual ${shown(residual)}`;
  return { stage, why };
}

/**
 * Does one step by interpretation, with the arithmetic of the generated loop, and tells the first operation
 * whose result is not finite although its inputs are.
 *
 * @param before the state at the start of the step
 * @param after the state that the generated loop made of it
 * @returns where it happened, or null where every operation stayed within the numbers
 */
export function findNonFinite(
  run: CompiledRun,
  before: Float64Array,
  after: Float64Array,
  at: { readonly origin: number; readonly n: number; readonly h: number },
): { readonly stage: string; readonly why: string } | null {
  const newton = newtonFailure(run, after);
  if (newton !== null) return newton;
  const { program, layout, shape } = run;
  const vectors = new Map<Register, readonly number[]>();
  program.present.forEach((register, i) =>
    vectors.set(
      register,
      (layout.places[i] ?? []).map((place) => before[place] ?? NaN),
    ),
  );
  program.kept.forEach(({ register }, k) => {
    const from = shape.kept + k * shape.width;
    vectors.set(register, Array.from(before.subarray(from, from + shape.width)));
  });
  const step: Step = {
    run,
    ...at,
    t: at.origin + at.n * at.h,
    vectors,
    scalars: new Map(),
    trees: new RateTrees(run.problem),
    round: rounding(run.precision),
  };
  try {
    for (const instruction of program.instructions) doInstruction(step, instruction);
  } catch (thrown) {
    if (thrown instanceof LeftTheNumbers) return { stage: thrown.stage, why: thrown.message };
    throw thrown;
  }
  return null;
}
