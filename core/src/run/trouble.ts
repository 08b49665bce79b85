import { CONSTANTS } from '../formula/functions.ts';
import { evaluate, type Operation } from '../formula/evaluate.ts';
import type { Expression } from '../formula/expression.ts';
import type { Block } from '../problem/problem.ts';
import type { CompiledRun } from './compile.ts';
import { rounding } from './precision.ts';
import { PRESENT, type Register, registerOf } from './program.ts';
import { Placing } from './rate-leaf.ts';

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

function short(value: number): string {
  return Number.isInteger(value) && Math.abs(value) < 1e6
    ? String(value)
    : value.toPrecision(4).replace(/\.?0+(e|$)/, '$1');
}

function describe(operation: Operation): string {
  const { node, inputs, result } = operation;
  const shown = inputs.map(short);
  const outcome = Number.isNaN(result) ? 'is not a real number' : 'is beyond the largest number';
  if (node.kind === 'call') return `${node.name}(${shown.join(', ')}) ${outcome}`;
  if (node.kind !== 'binary') return outcome;
  const [left, right] = shown;
  if (node.operator === '/' && inputs[1] === 0) return `${left} is divided by 0`;
  const bracketed = inputs[1]! < 0 ? `(${right})` : right;
  const base = inputs[0]! < 0 && node.operator === '^' ? `(${left})` : left;
  return node.operator === '^'
    ? `${base}^${bracketed} ${outcome}`
    : `${base} ${node.operator} ${bracketed} ${outcome}`;
}

/**
 * Does one step by interpretation, with the arithmetic of the generated loop, and tells the first operation
 * whose result is no finite number although its inputs are.
 *
 * @returns where it happened, or null where every operation stayed within the numbers
 */
export function findTrouble(
  run: CompiledRun,
  state: ArrayLike<number>,
  t: number,
  h: number,
): { readonly stage: string; readonly why: string } | null {
  const { problem, program } = run;
  const round = rounding(run.precision);
  const placing = new Placing(problem);
  const vectors = new Map<Register, number[]>([[PRESENT, Array.from(state)]]);
  const scalars = new Map<Register, number>();

  const watch =
    (stage: string, where: string) =>
    (operation: Operation): void => {
      if (Number.isFinite(operation.result) || !operation.inputs.every(Number.isFinite)) return;
      throw new LeftTheNumbers(stage, `${describe(operation)}${where}`);
    };

  const methodValue = (value: Expression, component: number, line: string): number =>
    evaluate(
      value,
      (node) => {
        if (node.kind !== 'name') return NaN;
        if (node.name === 't') return t;
        if (node.name === 'h') return h;
        const register = registerOf(node.name);
        if (register === null) return CONSTANTS.get(node.name) ?? NaN;
        return scalars.get(register) ?? vectors.get(register)?.[component] ?? NaN;
      },
      round,
      watch(line, problem.size === 1 ? '' : ` for ${componentName(run, component)}`),
    );

  const rateValue = (
    block: Block,
    element: number,
    at: readonly number[],
    when: number,
    line: string,
  ): number => {
    const done = watch(line, ` in ${componentName(run, block.offset + element)}'`);
    const leaf = (node: Expression): number => {
      if (node.kind !== 'name' && node.kind !== 'indexed') return NaN;
      const meaning = placing.of(node, block, element);
      switch (meaning.kind) {
        case 'time':
          return when;
        case 'constant':
          return meaning.value;
        case 'component':
          return at[meaning.place] ?? NaN;
        case 'given':
          return evaluate(meaning.value, leaf, round, done);
      }
    };
    return evaluate(block.rate, leaf, round, done);
  };

  try {
    for (const instruction of program.instructions) {
      const { line, into } = instruction;
      if (instruction.kind === 'rate') {
        const when = methodValue(instruction.time, 0, line);
        const at = vectors.get(instruction.at) ?? [];
        const rates = problem.blocks.flatMap((block) =>
          Array.from({ length: block.size }, (_, element) => rateValue(block, element, at, when, line)),
        );
        vectors.set(into, rates);
      } else if (instruction.shape === 'scalar') scalars.set(into, methodValue(instruction.value, 0, line));
      else
        vectors.set(
          into,
          Array.from({ length: problem.size }, (_, component) =>
            methodValue(instruction.value, component, line),
          ),
        );
    }
  } catch (thrown) {
    if (thrown instanceof LeftTheNumbers) return { stage: thrown.stage, why: thrown.message };
    throw thrown;
  }
  return null;
}

function componentName(run: CompiledRun, place: number): string {
  const block = run.problem.blocks.find((b) => place >= b.offset && place < b.offset + b.size);
  if (block === undefined) return '';
  const { range } = block.unknown;
  if (range === null) return block.name;
  return `${block.unknown.name}[${range.from + place - block.offset}]${"'".repeat(block.derivative)}`;
}
