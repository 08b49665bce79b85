import { type Amount, amountOf, areEqual, NOTHING, over, plus, times, UNIT } from '../form/amount.ts';
import type { Tableau } from '../form/tableau.ts';

/** Up to which order the simplifying assumptions of a Runge-Kutta method hold. */
export interface SimplifyingAssumptions {
  /** B(p): sum b_i c_i^(q-1) = 1/q for q = 1..p. */
  readonly B: number;
  /** C(q): sum over j of a_ij c_j^(k-1) = c_i^k/k for k = 1..q and every stage. */
  readonly C: number;
  /** D(r): sum over i of b_i c_i^(k-1) a_ij = b_j (1 - c_j^k)/k for k = 1..r and every stage. */
  readonly D: number;
}

/** Highest order that is looked for. */
const HIGHEST = 60;

/** How far assumptions hold that are numbered from 1 on. */
function lastThat(holds: (k: number) => boolean): number {
  let k = 0;
  while (k < HIGHEST && holds(k + 1)) k += 1;
  return k;
}

function powersOf(c: readonly Amount[]): (k: number) => readonly Amount[] {
  const powers: (readonly Amount[])[] = [c.map(() => UNIT)];
  return (k) => {
    while (powers.length <= k) powers.push(powers.at(-1)!.map((power, i) => times(power, c[i]!)));
    return powers[k]!;
  };
}

function dot(a: readonly Amount[], b: readonly Amount[]): Amount {
  return a.reduce((sum, x, i) => plus(sum, times(x, b[i]!)), NOTHING);
}

/**
 * The simplifying assumptions B(p), C(q) and D(r) that a tableau satisfies.
 *
 * Source: J. C. Butcher, Math. Comp. 18 (1964) 50-64; E. Hairer, G. Wanner, Solving Ordinary Differential Equations II
 * (2nd ed., 1996), section IV.5.
 */
export function simplifyingAssumptions({ A, b, c }: Tableau): SimplifyingAssumptions {
  const power = powersOf(c);
  const column = (j: number): readonly Amount[] => A.map((row) => row[j]!);
  return {
    B: lastThat((q) => areEqual(dot(b, power(q - 1)), over(UNIT, amountOf(q)))),
    C: lastThat((k) =>
      A.every((row, i) => areEqual(dot(row, power(k - 1)), over(power(k)[i]!, amountOf(k)))),
    ),
    D: lastThat((k) =>
      b.every((weight, j) => {
        const left = dot(
          b.map((one, i) => times(one, power(k - 1)[i]!)),
          column(j),
        );
        const rest = plus(UNIT, times(amountOf(-1), power(k)[j]!));
        return areEqual(left, over(times(weight, rest), amountOf(k)));
      }),
    ),
  };
}

/**
 * The order that the assumptions prove, and one that it cannot exceed: B(p) with p <= q + r + 1 and p <= 2q + 2 is order p
 * (Butcher 1964), and B(p) is a condition of order p itself.
 */
export function orderBySimplifying({ B, C, D }: SimplifyingAssumptions): {
  readonly least: number;
  readonly most: number;
} {
  return { least: Math.min(B, C + D + 1, 2 * C + 2), most: B };
}

/** The stage order: how exactly every stage follows the solution, by C(q) and B(q). */
export function stageOrder({ B, C }: SimplifyingAssumptions): number {
  return Math.min(B, C);
}
