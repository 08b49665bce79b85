import { rounded } from '../../text/number-text.ts';
import { solveDense } from '../../compile/newton/linear-system.ts';
import { type Amount, areEqual, less, NOTHING, plus, times, UNIT } from '../form/amount.ts';
import type { LinearForm } from '../form/form.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { soleTerm } from '../form/powers.ts';
import type { Tableau } from '../form/tableau.ts';

/**
 * The coefficients of a Nystrom method for x'' = a(t, x): X_i = x + c_i h v + h^2 sum A_ij a_j, x[n+1] = x + h v + h^2 sum
 * bx_i a_i, v[n+1] = v + h sum bv_i a_i.
 */
export interface NystromTableau {
  readonly c: readonly Amount[];
  readonly A: readonly (readonly Amount[])[];
  readonly bx: readonly Amount[];
  readonly bv: readonly Amount[];
}

function amountAt(form: LinearForm, key: string): Amount {
  const term = form.get(key);
  return (term && soleTerm(term.factor)?.amount) ?? NOTHING;
}

/** The coefficients of a one-step method in x and v; null for any other, and for one that does not keep x and v. */
export function nystromOf({ stages, next, depth }: LinearMethod): NystromTableau | null {
  if (!('x' in next) || depth > 0 || stages.some(({ partial, primes }) => partial !== null || primes > 0))
    return null;
  const factors = (form: LinearForm): readonly Amount[] => stages.map((_, j) => amountAt(form, `k${j}`));
  const places = stages.flatMap(({ at }) => ('x' in at ? [at.x] : []));
  const keeps = [next.x, ...places].every((form) => areEqual(amountAt(form, 'x[0]'), UNIT));
  if (!keeps || !areEqual(amountAt(next.x, 'v[0]'), UNIT) || !areEqual(amountAt(next.v, 'v[0]'), UNIT))
    return null;
  return {
    c: places.map((form) => amountAt(form, 'v[0]')),
    A: places.map(factors),
    bx: factors(next.x),
    bv: factors(next.v),
  };
}

/**
 * Whether a Runge-Kutta method keeps quadratic invariants, and so is symplectic: b_i a_ij + b_j a_ji = b_i b_j.
 *
 * Source: J. M. Sanz-Serna, BIT 28 (1988) 877-883; E. Hairer, C. Lubich, G. Wanner, Geometric Numerical Integration (2nd
 * ed., 2006), section VI.4.
 */
export function isSymplectic({ A, b }: Tableau): boolean {
  return b.every((bi, i) =>
    b.every((bj, j) => areEqual(plus(times(bi, A[i]![j]!), times(bj, A[j]![i]!)), times(bi, bj))),
  );
}

/**
 * Whether a Nystrom method is symplectic where a does not depend on the velocity: bx_i = bv_i (1 - c_i) and bv_i (bx_j -
 * A_ij) = bv_j (bx_i - A_ji).
 *
 * Source: E. Hairer, C. Lubich, G. Wanner, Geometric Numerical Integration (2nd ed., 2006), section VI.4.
 */
export function isSymplecticNystrom({ c, A, bx, bv }: NystromTableau): boolean {
  return bv.every(
    (bi, i) =>
      areEqual(bx[i]!, times(bi, less(UNIT, c[i]!))) &&
      bv.every((bj, j) => areEqual(times(bi, less(bx[j]!, A[i]![j]!)), times(bj, less(bx[i]!, A[j]![i]!)))),
  );
}

/** For every stage the one that takes its place when time runs backwards, with c = 1 - c_i; null where there is none. */
function reflected(
  c: readonly Amount[],
  isSame: (i: number, j: number) => boolean,
): readonly number[] | null {
  const free = new Set(c.keys());
  const found: number[] = [];
  for (const [i, ci] of c.entries()) {
    const j = [...free].reverse().find((k) => areEqual(c[k]!, less(UNIT, ci)) && isSame(i, k));
    if (j === undefined) return null;
    free.delete(j);
    found.push(j);
  }
  return found;
}

/**
 * Whether a Runge-Kutta method is symmetric: the step back with -h undoes the step. a_ij + a_i'j' = b_j with stages i' that
 * take the place of i when time runs backwards.
 *
 * Source: E. Hairer, C. Lubich, G. Wanner, Geometric Numerical Integration (2nd ed., 2006), section V.2.
 */
export function isSymmetric({ c, A, b }: Tableau): boolean {
  const place = reflected(c, (i, j) => areEqual(b[i]!, b[j]!));
  return (
    place !== null &&
    A.every((row, i) => row.every((a, j) => areEqual(plus(a, A[place[i]!]![place[j]!]!), b[j]!)))
  );
}

/** Whether a Nystrom method is symmetric: A_i'j' = A_ij + (1 - c_i) bv_j - bx_j, bx_j' = bv_j - bx_j, bv_j' = bv_j. */
export function isSymmetricNystrom({ c, A, bx, bv }: NystromTableau): boolean {
  const place = reflected(c, (i, j) => areEqual(bv[i]!, bv[j]!));
  return (
    place !== null &&
    bx.every((bj, j) => areEqual(bx[place[j]!]!, less(bv[j]!, bj))) &&
    A.every((row, i) =>
      row.every((a, j) => {
        const back = less(plus(a, times(less(UNIT, c[i]!), bv[j]!)), bx[j]!);
        return areEqual(A[place[i]!]![place[j]!]!, back);
      }),
    )
  );
}

/** How far a number may be below zero by rounding. */
const ROUNDING = 1e-12;

/** Coefficients below the first are none; beyond the second a method is strong stability preserving without a limit. */
const MIN_SSP = 1e-3;
const MAX_SSP = 1e3;

/**
 * The coefficient of strong stability preservation: the largest r for which the Shu-Osher form with r has no negative
 * coefficient, so that h up to r times that of forward Euler preserves what forward Euler preserves. 0 for none, Infinity
 * for no limit.
 *
 * Source: S. Gottlieb, D. Ketcheson, C.-W. Shu, Strong Stability Preserving Runge-Kutta and Multistep Time Discretizations
 * (2011), chapter 3; J. F. B. M. Kraaijevanger, BIT 31 (1991) 482-528.
 */
export function sspCoefficient({ A, b }: Tableau): number {
  const K = [...A, b].map((row) => [...row.map(({ value }) => value), 0]);
  const holds = (r: number): boolean => {
    const n = K.length;
    const matrix = K.flatMap((row, i) => row.map((a, j) => (i === j ? 1 : 0) + r * a));
    const columnOf = (right: Float64Array): Float64Array | null =>
      solveDense(Float64Array.from(matrix), right, n) ? right : null;
    // what is left of the row sums: (I + r K)^-1 e
    const sums = columnOf(new Float64Array(n).fill(1));
    if (sums === null || sums.some((sum) => !(sum >= -ROUNDING))) return false;
    // r K (I + r K)^-1 = I - (I + r K)^-1, column by column
    return K.every((_, j) => {
      const unit = Float64Array.from(K, (__, i) => (i === j ? 1 : 0));
      const column = columnOf(unit.slice());
      return column !== null && column.every((entry, i) => unit[i]! - entry >= -ROUNDING);
    });
  };
  if (!holds(MIN_SSP)) return 0;
  if (holds(MAX_SSP)) return Infinity;
  let [low, high] = [MIN_SSP, MAX_SSP];
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return rounded(low, 9);
}
