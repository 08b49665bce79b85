import { type Code, type CodeTarget, emit, literal } from '../formula/javascript.ts';
import type { Expression } from '../formula/expression.ts';
import { Meanings } from '../problem/meaning.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { generatedFunction } from './generated.ts';
import { Placing } from './rate-leaf.ts';

/** A function of time and the state vector. */
export type StateFunction = (t: number, state: ArrayLike<number>) => number;

/** The lines of a generated function body: pieces are kept under names, the last line returns. */
function functionBody(expression: Expression, leaf: (node: Expression, target: CodeTarget) => Code): string {
  const lines: string[] = [];
  const target: CodeTarget = {
    single: false,
    keep: (code) => {
      if (code.atom) return code;
      const text = `v${lines.length}`;
      lines.push(`const ${text} = ${code.text};`);
      return { text, atom: true, steady: code.steady };
    },
    leaf: (node) => leaf(node, target),
  };
  const result = emit(expression, target);
  return [...lines, `return ${result.text};`].join('\n');
}

const TIME: Code = { text: 't', atom: true, steady: false };

/** An expression of a problem as a function of time and state, for one element of a block. */
export function stateFunction(
  problem: Problem,
  expression: Expression,
  block: Block | null = null,
  element = 0,
): StateFunction {
  const placing = new Placing(problem);
  const body = functionBody(expression, (node, target) => {
    if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
    const meaning = placing.of(node, block, element);
    switch (meaning.kind) {
      case 'time':
        return TIME;
      case 'constant':
        return literal(meaning.value);
      case 'component':
        return { text: `S[${meaning.place}]`, atom: true, steady: false };
      case 'given':
        return target.keep(emit(meaning.value, target));
    }
  });
  return generatedFunction(`function (t, S) {\n${body}\n}`);
}

/** A function of time and the index of a family. */
type PositionFunction = (t: number, position: number) => number;

function positionFunction(problem: Problem, expression: Expression, block: Block): PositionFunction {
  const meanings = new Meanings(problem);
  const body = functionBody(expression, (node) => {
    if (node.kind !== 'name' && node.kind !== 'indexed') return literal(NaN);
    const meaning = meanings.of(node, block.unknown.range?.variable ?? null);
    switch (meaning.kind) {
      case 'time':
        return TIME;
      case 'constant':
        return literal(meaning.value);
      case 'position':
        return { text: 'i', atom: true, steady: false };
      default:
        return literal(NaN);
    }
  });
  return generatedFunction(`function (t, i) {\n${body}\n}`);
}

/** The exact solution of a problem, as far as it is known. */
export interface ExactSolution {
  /** Whether the component at a place of the state vector has one. */
  readonly known: (place: number) => boolean;
  /** Its value at time t; NaN where none is known. */
  readonly value: (place: number, t: number) => number;
}

/** The exact solution as functions of time: one function a block, however many components it has. */
export function exactSolution(problem: Problem): ExactSolution {
  const blocks = problem.blocks.map((block) => ({
    from: block.offset,
    to: block.offset + block.size,
    position: block.unknown.range?.from ?? 0,
    at: block.exact === null ? null : positionFunction(problem, block.exact, block),
  }));
  const blockOf = (place: number): (typeof blocks)[number] | undefined =>
    blocks.find(({ from, to }) => place >= from && place < to);
  return {
    known: (place) => blockOf(place)?.at != null,
    value: (place, t) => {
      const block = blockOf(place);
      return block?.at?.(t, place - block.from + block.position) ?? NaN;
    },
  };
}
