import { binary, type Expression, name, number, rewrite } from '../formula/expression.ts';
import { memoizeFor } from '../text/memoize.ts';
import type { Block, Problem, Unknown } from './problem.ts';

/** Factors of all values and of the independent variable. */
export interface Scales {
  readonly values: number;
  readonly time: number;
}

function wholePower(base: number, exponent: number): number {
  let made = 1;
  for (let i = 0; i < exponent; i += 1) made *= base;
  return made;
}

/** By what the k-th derivative of an unknown is multiplied. */
export function scaleOf(scales: Scales, derivative: number): number {
  return scales.values / wholePower(scales.time, derivative);
}

/** Puts a state into the other units. */
export function intoUnits({ blocks }: Problem, scales: Scales, state: Float64Array): void {
  for (const { derivative, offset, size } of blocks)
    for (let j = offset; j < offset + size; j += 1) state[j]! *= scaleOf(scales, derivative);
}

/** Puts states in the other units, one after another, back into those of the problem. */
export function outOfUnits(
  { blocks, size: width }: Problem,
  scales: Scales,
  states: Float64Array,
  count = 1,
): void {
  for (const { derivative, offset, size } of blocks) {
    const scale = scaleOf(scales, derivative);
    for (let from = offset; from < count * width; from += width)
      for (let j = from; j < from + size; j += 1) states[j]! /= scale;
  }
}

function times(factor: number, expression: Expression): Expression {
  return binary('*', number(factor), expression);
}

/** Problems in other units: runs that were compiled for one are known for the same object alone. */
const known = memoizeFor<Problem, Problem>();

/**
 * The same problem in other units: all values and the independent variable are multiplied by a number. Every method
 * here makes the same runs of both but for rounding, which comes out another way.
 */
export function scaledProblem(problem: Problem, scales: Scales): Problem {
  return known(problem, `${scales.values} ${scales.time}`, () => scaled(problem, scales));
}

function scaled(problem: Problem, scales: Scales): Problem {
  const unknowns = new Set(problem.unknowns.map((unknown) => unknown.name));
  const own = (expression: Expression): Expression =>
    rewrite(expression, (node) => {
      if (node.kind !== 'name' && node.kind !== 'indexed') return null;
      if (node.kind === 'name' && node.name === problem.independent)
        return binary('/', name(problem.independent), number(scales.time));
      return unknowns.has(node.name) ? binary('/', node, number(scaleOf(scales, node.primes))) : null;
    });
  const changed = new Map<Unknown, Unknown>(
    problem.unknowns.map((unknown) => [
      unknown,
      {
        ...unknown,
        highest: times(scaleOf(scales, unknown.order), own(unknown.highest)),
        given: new Map([...unknown.given].map(([index, value]) => [index, times(scales.values, own(value))])),
      },
    ]),
  );
  const blocks = problem.blocks.map((block): Block => {
    const unknown = changed.get(block.unknown) ?? block.unknown;
    const isHighest = block.derivative === unknown.order - 1;
    return {
      ...block,
      unknown,
      rhs: isHighest ? unknown.highest : block.rhs,
      exact: block.exact && times(scaleOf(scales, block.derivative), own(block.exact)),
    };
  });
  return {
    ...problem,
    text: `${problem.text}\n(in units of ${scales.values}, ${scales.time})`,
    start: scales.time * problem.start,
    end: scales.time * problem.end,
    unknowns: problem.unknowns.map((unknown) => changed.get(unknown) ?? unknown),
    blocks,
    initial: blocks.flatMap((block) =>
      Array.from(
        { length: block.size },
        (_, k) => scaleOf(scales, block.derivative) * problem.initial[block.offset + k]!,
      ),
    ),
    conserved: [],
    typed: problem.typed.map((one) => ({
      ...one,
      written: times(scaleOf(scales, one.order), own(one.written)),
      value: times(scaleOf(scales, one.order), own(one.value)),
    })),
  };
}
