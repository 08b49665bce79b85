import { UNIT } from '../form/amount.ts';
import type { LinearForm } from '../form/form.ts';
import { type FormStage, type LinearMethod, stagesOf } from '../form/linear-method.ts';
import { deficitsOf, weightOf } from '../order/step-series.ts';
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

/**
 * A form as a row, over kept values and stages, each of which is measured by its weight: a stage of weight w comes as h^w
 * times itself.
 *
 * @param deficit how many powers of h the form lacks
 */
function rowOf(
  form: LinearForm,
  deficit: number,
  method: LinearMethod,
  resolved: readonly (readonly ZPolynomial[] | null)[],
): Row {
  const stages = new Map<number, ZPolynomial>();
  let kept: readonly ZPolynomial[] = Array.from({ length: method.depth + 1 }, () => []);
  for (const { basis, factor } of form.values()) {
    const weight = weightOf(basis, method);
    let own: ZPolynomial = [];
    for (const [power, amount] of factor) own = zSum(own, zTerm(amount, power + deficit - weight));
    if (basis.kind === 'kept') {
      const { back } = basis;
      kept = kept.map((p, j) => (j === back ? zSum(p, own) : p));
    }
    if (basis.kind !== 'stage') continue;
    const known = resolved[basis.stage];
    if (known == null) stages.set(basis.stage, zSum(stages.get(basis.stage) ?? [], own));
    else kept = kept.map((p, j) => zSum(p, zProduct(own, known[j] ?? [])));
  }
  return { stages, kept };
}

/** What a stage is on y' = lambda y: z^power times a form; null where it vanishes there. */
interface LinearPart {
  readonly power: number;
  readonly form: LinearForm;
  readonly deficit: number;
}

function linearPart({ at, primes, partial }: FormStage, method: LinearMethod): LinearPart | null {
  if (!('y' in at)) return null;
  if (partial === null) return { power: 1 + primes, form: at.y, deficit: 0 };
  const [along, ...more] = partial.along;
  // f = lambda y has one derivative by y, and no other
  if (along === undefined || more.length > 0 || partial.times > 0) return null;
  return { power: 1, form: along, deficit: deficitsOf(along, method)[0]?.deficit ?? 0 };
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
 * @returns null for methods in x and v, or with more than six stages that wait for one another
 *
 * @example RK4: below 1, above[0] = 1 + z + z^2/2 + z^3/6 + z^4/24
 */
export function stabilityPolynomial(method: LinearMethod): StabilityPolynomial | null {
  const { stages, next, depth } = method;
  if (!('y' in next)) return null;
  const parts = stages.map((stage) => linearPart(stage, method));
  const nothing: readonly ZPolynomial[] = Array.from({ length: depth + 1 }, () => []);
  const resolved: (readonly ZPolynomial[] | null)[] = parts.map((part) => (part === null ? nothing : null));
  const row = (form: LinearForm, deficit: number): Row => rowOf(form, deficit, method, resolved);
  const waiting = new Set([...stages.keys()].filter((i) => parts[i] !== null));
  // what does not wait for itself is substituted, one after another
  for (let changed = true; changed;) {
    changed = false;
    for (const i of waiting) {
      const part = parts[i];
      if (part == null || stagesOf(part.form).some((j) => waiting.has(j))) continue;
      const { kept } = row(part.form, part.deficit);
      resolved[i] = kept.map((p) => zProduct(zTerm(UNIT, part.power), p));
      waiting.delete(i);
      changed = true;
    }
  }
  const left = [...waiting];
  if (left.length > MAX_IMPLICIT) return null;
  const last = row(next.y, 0);
  if (left.length === 0) return { below: ONE, above: last.kept.map(zCleaned) };
  const rows = left.map((i) => {
    const { form, deficit, power } = parts[i]!;
    return { ...row(form, deficit), factor: zTerm(UNIT, power) };
  });
  // (I - z A) k = z * kept, and the new value: by determinants, with one more row and column for it
  const matrix = left.map((i, at) =>
    left.map((j) => zLess(i === j ? ONE : [], zProduct(rows[at]!.factor, rows[at]!.stages.get(j) ?? []))),
  );
  const below = zCleaned(determinant(matrix));
  const above = Array.from({ length: depth + 1 }, (_, j) => {
    const bordered = [
      ...matrix.map((entries, k) => [...entries, zProduct(rows[k]!.factor, rows[k]!.kept[j] ?? [])]),
      [...left.map((i) => zLess([], last.stages.get(i) ?? [])), last.kept[j] ?? []],
    ];
    return zCleaned(determinant(bordered));
  });
  return { below, above };
}
