import { UNIT } from '../form/amount.ts';
import type { LinearForm } from '../form/form.ts';
import { type LinearMethod, stagesOf } from '../form/linear-method.ts';
import type { Powers } from '../form/powers.ts';
import { zCleaned, zLess, type ZPolynomial, zProduct, zSum, zTerm } from './z-polynomial.ts';

/**
 * What a method makes of y' = lambda y: below * y[n+1] = the sum of above[j] * y[n-j], with polynomials in z = h
 * lambda. For a one-step method R(z) = above[0]/below is its stability function; the characteristic polynomial of the
 * others is below r^(k) - above[0] r^(k-1) - ... - above[k-1].
 */
export interface StabilityPolynomial {
  readonly below: ZPolynomial;
  readonly above: readonly ZPolynomial[];
}

const ONE: ZPolynomial = [UNIT];

/** Most stages that wait for one another. */
const MAX_IMPLICIT = 6;

/** What is in a row of a linear system for the stages: stage factors, and kept values. */
interface Row {
  /** By stage. */
  readonly stages: ReadonlyMap<number, ZPolynomial>;
  /** By steps back. */
  readonly kept: readonly ZPolynomial[];
}

/** The powers of h of a factor as powers of z: a slope with h is z times a value. */
function inZ(factor: Powers, weight: number): ZPolynomial {
  let made: ZPolynomial = [];
  for (const [power, amount] of factor) made = zSum(made, zTerm(amount, power - weight));
  return made;
}

/** A form over kept values and stages; a stage represents h^w times itself. */
function rowOf(
  form: LinearForm,
  method: LinearMethod,
  resolved: readonly (readonly ZPolynomial[] | null)[],
): Row {
  const stages = new Map<number, ZPolynomial>();
  let kept: readonly ZPolynomial[] = Array.from({ length: method.depth + 1 }, () => []);
  for (const { basis, factor } of form.values()) {
    if (basis.kind === 'kept') {
      const { back } = basis;
      kept = kept.map((p, j) => (j === back ? zSum(p, inZ(factor, 0)) : p));
    }
    if (basis.kind !== 'stage') continue;
    const { primes = 0, partial = null } = method.stages[basis.stage] ?? {};
    // h^(primes + 1) f^(primes) is z^primes times h f
    const weight = partial === null ? 1 + primes : 2;
    const own = inZ(factor, weight);
    const known = resolved[basis.stage];
    if (known == null) stages.set(basis.stage, zSum(stages.get(basis.stage) ?? [], own));
    else kept = kept.map((p, j) => zSum(p, zProduct(own, known[j] ?? [])));
  }
  return { stages, kept };
}

function determinant(matrix: readonly (readonly ZPolynomial[])[]): ZPolynomial {
  const [first, ...rest] = matrix;
  if (first === undefined) return ONE;
  return first.reduce<ZPolynomial>((sum, entry, j) => {
    if (entry.length === 0) return sum;
    const minor = determinant(rest.map((row) => row.filter((_, k) => k !== j)));
    const part = zProduct(entry, minor);
    return j % 2 === 0 ? zSum(sum, part) : zLess(sum, part);
  }, []);
}

/**
 * The stability function or characteristic polynomial of a method, from its text, exact where its coefficients are.
 *
 * @returns null for methods in x and v, with partial derivatives by t, or with more than six stages that wait for one
 *   another
 *
 * @example RK4: below 1, above[0] = 1 + z + z^2/2 + z^3/6 + z^4/24
 */
export function stabilityPolynomial(method: LinearMethod): StabilityPolynomial | null {
  const { stages, next, depth } = method;
  if (!('y' in next) || stages.some(({ partial }) => partial !== null)) return null;
  const resolved: (readonly ZPolynomial[] | null)[] = stages.map(() => null);
  const waiting = new Set(stages.keys());
  // what does not wait for itself is substituted, one after another
  for (let changed = true; changed;) {
    changed = false;
    for (const i of waiting) {
      const at = stages[i]?.at;
      if (at === undefined || !('y' in at)) return null;
      if (stagesOf(at.y).some((j) => waiting.has(j))) continue;
      const { kept } = rowOf(at.y, method, resolved);
      resolved[i] = kept.map((p) => zProduct(zTerm(UNIT, 1 + (stages[i]?.primes ?? 0)), p));
      waiting.delete(i);
      changed = true;
    }
  }
  const left = [...waiting];
  if (left.length > MAX_IMPLICIT) return null;
  const rows = left.map((i) => {
    const at = stages[i]?.at;
    return at !== undefined && 'y' in at ? rowOf(at.y, method, resolved) : null;
  });
  const last = rowOf(next.y, method, resolved);
  if (left.length === 0) return { below: ONE, above: last.kept.map(zCleaned) };
  // (I - z A) k = z * kept, and the new value: by determinants, with one more row and column for it
  const z = zTerm(UNIT, 1);
  const matrix = left.map((i, row) =>
    left.map((j) => {
      const power = zTerm(UNIT, 1 + (stages[i]?.primes ?? 0));
      const own = zProduct(power, rows[row]?.stages.get(j) ?? []);
      return zLess(i === j ? ONE : [], own);
    }),
  );
  const below = zCleaned(determinant(matrix));
  const above = Array.from({ length: depth + 1 }, (_, j) => {
    const bordered = [
      ...matrix.map((row, k) => [...row, zProduct(z, rows[k]?.kept[j] ?? [])]),
      [...left.map((i) => zLess([], last.stages.get(i) ?? [])), last.kept[j] ?? []],
    ];
    return zCleaned(determinant(bordered));
  });
  return { below, above };
}
