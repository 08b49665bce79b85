import { printed } from '../nodes/print.ts';
import { type Block, frame, linesOf } from '../nodes/statement.ts';
import { type Elimination, eliminationLines } from './elimination.ts';
import type { NewtonSystem } from './newton-loop.ts';

/** What the code of a dense system is made of. */
export interface DenseParts {
  readonly id: number;
  /** Names of the unknowns, which are numbers. */
  readonly names: readonly string[];
  /** The formulas at the present guess. */
  readonly residual: Block;
  /** Computes how the formulas move when the unknowns move along D. */
  readonly column: Block;
}

/** Up to so many unknowns the matrix is made of local numbers, and its elimination is written out. */
const MAX_WRITTEN_OUT = 4;

/** A few unknowns under names of their own: the Jacobian is found one column at a time. */
export function denseSystem(parts: DenseParts): NewtonSystem {
  return parts.names.length <= MAX_WRITTEN_OUT ? writtenOut(parts) : inArrays(parts);
}

/** What is the same wherever the matrix is. */
function common({ names, residual }: DenseParts): Pick<NewtonSystem, 'n' | 'each' | 'room' | 'spoil'> {
  const results = residual.result.map((piece) => printed(piece));
  return {
    n: names.length,
    each: (line) => names.flatMap((name, i) => line(name, String(i), results[i] ?? 'NaN')),
    room: 'Q',
    spoil: names.map((name) => `${name} = NaN;`),
  };
}

function inArrays(parts: DenseParts): NewtonSystem {
  const { names, column } = parts;
  const n = names.length;
  const columns = column.result.map((piece) => printed(piece));
  return {
    ...common(parts),
    right: (index) => `R[${index}]`,
    declarations: [],
    assemble: [
      frame(`for (let c = 0; c < ${n}; c++) {`, 'D[c] = 1;'),
      ...column.statements,
      frame(
        ...names.map((_, i) => `M[${i * n} + c] = -${columns[i] ?? '0'};`),
        `M[c * ${n + 1}] += 1;`,
        'D[c] = 0;',
        '}',
      ),
    ],
    solve: { lines: [], isSingular: `!solveDense(M, R, ${n})` },
  };
}

/** The same with every number of the matrix and the right side a local one. */
function writtenOut(parts: DenseParts): NewtonSystem {
  const { id, names, column } = parts;
  const n = names.length;
  const places = Array.from({ length: n }, (_, i) => i);
  const elimination: Elimination = {
    n,
    entry: (row, place) => `m${id}_${row}_${place}`,
    right: (row) => `r${id}_${row}`,
    isSingular: `singular${id}`,
  };
  const { entry, right, isSingular } = elimination;
  return {
    ...common(parts),
    right: (index) => right(Number(index)),
    declarations: [
      `let ${isSingular} = false;`,
      `let ${places.map(right).join(', ')};`,
      `let ${places.flatMap((i) => places.map((j) => entry(i, j))).join(', ')};`,
    ],
    assemble: places.map((c) => {
      // the direction of a column is known: D is 1 there and 0 elsewhere
      const along = (line: string): string =>
        line.replace(/\bD\[(\d+)\]/g, (_, place: string) => (Number(place) === c ? '1' : '0'));
      return frame(
        '{',
        ...linesOf(column.statements).map(along),
        ...places.map((i) => {
          const result = column.result[i];
          const moved = result === undefined ? '0' : along(printed(result));
          return `${entry(i, c)} = -${moved}${i === c ? ' + 1' : ''};`;
        }),
        '}',
      );
    }),
    solve: { lines: eliminationLines(elimination), isSingular },
  };
}
