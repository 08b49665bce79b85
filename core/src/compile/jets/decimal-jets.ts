import type { Decimal } from 'decimal.js';
import { decimalPrecisionKey } from '../../decimal/decimal-precision.ts';
import type { Decimals } from '../../decimal/decimals.ts';
import type { Problem } from '../../problem/problem.ts';
import { decimalNumbers, decimalOfNode } from '../decimal/decimal-numbers.ts';
import { DecimalWriting } from '../decimal/decimal-writing.ts';
import { memoizeFor } from '../../text/memoize.ts';
import { generatedFunction } from '../generated.ts';
import { constantNode, nameNode, readNode } from '../nodes/code-node.ts';
import { localName } from '../nodes/print.ts';
import { Scopes } from '../nodes/scopes.ts';
import { linesOf } from '../nodes/statement.ts';
import { solutionJets } from './jet-function.ts';
import { orZero } from './series.ts';

/**
 * The Taylor coefficients of the solution through (t, y) in decimals: coefficient k of component j is at [k][j], for
 * k = 0..order.
 */
export type DecimalJets = (t: Decimal, y: readonly Decimal[]) => readonly (readonly Decimal[])[];

const known = memoizeFor<Problem, DecimalJets>();

/** The Taylor coefficients of the solutions of a problem in an arithmetic of decimals, as straight-line code. */
export function decimalJets(problem: Problem, order: number, decimals: Decimals): DecimalJets {
  const key = `${order}/${decimalPrecisionKey(decimals.precision)}`;
  return known(problem, key, () => compiled(problem, order, decimals));
}

function compiled(problem: Problem, order: number, decimals: Decimals): DecimalJets {
  const scopes = new Scopes({ pure: true, arithmetic: 'decimal', inlines: false });
  const writing = new DecimalWriting();
  const at = Array.from({ length: problem.size }, (_, j) => scopes.keep(readNode(`Y[${j}]`, false)));
  const { solution } = solutionJets(problem, {
    order,
    when: nameNode('t'),
    at,
    declare: (piece) => scopes.keep(piece),
    constant: ({ name, value }) => (value === 0 ? null : constantNode(value, name)),
  });
  const body = [
    ...linesOf([...scopes.before, ...scopes.statements], localName, writing.print),
    `return [${Array.from({ length: order + 1 }, (_, k) => {
      const row = solution.map((series) => writing.print(orZero(series[k])));
      return `[${row.join(', ')}]`;
    }).join(', ')}];`,
  ].join('\n');
  const numbers = decimalNumbers(problem, decimals);
  return generatedFunction<DecimalJets>(`function (t, Y) {\n${body}\n}`, {
    A: decimals,
    C: writing.constants.map((node) => decimalOfNode(node, numbers, decimals)),
  });
}
