import type { Decimal } from 'decimal.js';
import type { DecimalNumbers } from '../compile/decimal/decimal-numbers.ts';
import type { Decimals } from '../decimal/decimals.ts';
import { evaluateIn } from '../formula/evaluate.ts';
import type { RhsTree } from '../program/rhs-tree.ts';

/**
 * A formula of a problem in an arithmetic of decimals, operation by operation.
 *
 * @param t in any arithmetic, as the values are; taken without rounding
 * @param state values of the components; none for a formula of the time alone
 */
export function formulaValue(
  { decimals, numbers }: { readonly decimals: Decimals; readonly numbers: DecimalNumbers },
  formula: RhsTree,
  t: Decimal,
  state: readonly Decimal[],
): Decimal {
  return evaluateIn(decimals, formula, (node) => {
    if (node.kind !== 'bound') return decimals.notANumber;
    const { to } = node;
    if (to.kind === 'time') return decimals.from(t);
    if (to.kind === 'constant') return numbers.constant(to);
    const value = to.kind === 'component' ? state[to.place] : undefined;
    return value === undefined ? decimals.notANumber : decimals.from(value);
  });
}
