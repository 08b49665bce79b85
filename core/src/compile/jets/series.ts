import { constantNode, ONE, operation, type CodeNode, ZERO } from '../nodes/code-node.ts';

/** One Taylor coefficient as a node of code; null where it is zero. */
export type Coefficient = CodeNode | null;

/** The first coefficients of a series. */
export type Series = readonly Coefficient[];

export function orZero(coefficient: Coefficient | undefined): CodeNode {
  return coefficient ?? ZERO;
}

export function sum(parts: readonly Coefficient[]): Coefficient {
  return parts.reduce((total, part) =>
    total === null ? part : part === null ? total : operation('+', total, part),
  );
}

export function times(left: Coefficient | undefined, right: Coefficient | undefined): Coefficient {
  return left == null || right == null ? null : operation('*', left, right);
}

/** factor*left*right, from the left. */
export function scaled(
  factor: CodeNode | number,
  left: Coefficient | undefined,
  right: Coefficient | undefined,
): Coefficient {
  if (left == null || right == null) return null;
  if (factor === 1) return operation('*', left, right);
  const first = typeof factor === 'number' ? constantNode(factor) : factor;
  return operation('*', operation('*', first, left), right);
}

export function minus(coefficient: Coefficient): Coefficient {
  return coefficient === null ? null : operation('negate', coefficient);
}

/** left - right, where right may be zero. */
export function less(left: Coefficient, right: Coefficient): Coefficient {
  if (right === null) return left;
  return left === null ? operation('negate', right) : operation('-', left, right);
}

/** Coefficient k of the constant 1. */
export function one(k: number): Coefficient {
  return k === 0 ? ONE : null;
}

/** Coefficient k of a*b: the sum of a[j] b[k-j]. */
export function convolve(a: Series, b: Series, k: number): Coefficient {
  return sum(Array.from({ length: k + 1 }, (_, j) => times(a[j], b[k - j])));
}

/** Where c' = g a': c[k] = sum of j a[j] g[k-j] / k, j = 1..k. */
export function derived(
  a: Series,
  g: (k: number) => Coefficient | undefined,
  k: number,
  sign: 1 | -1 = 1,
): Coefficient {
  const rest = sum(Array.from({ length: k }, (_, i) => scaled(i + 1, a[i + 1], g(k - i - 1))));
  if (rest === null) return null;
  return operation('/', sign === 1 ? rest : operation('negate', rest), constantNode(k));
}

/** Where v c' = a': c[k] = (a[k] - sum of j c[j] v[k-j] / k) / v[0], j = 1..k-1. */
export function divided(a: Coefficient, own: Series, v: Series, k: number): Coefficient {
  const rest = sum([
    null,
    ...Array.from({ length: k - 1 }, (_, i) => scaled(i + 1, own[i + 1], v[k - i - 1])),
  ]);
  if (rest === null) return a === null ? null : operation('/', a, orZero(v[0]));
  const part = operation('/', rest, constantNode(k));
  return operation('/', operation('-', orZero(a), part), orZero(v[0]));
}

/** Where c^2 = a: c[k] = (a[k] - sum of c[j] c[k-j], j = 1..k-1) / (2 c[0]), k > 0. */
export function rooted(a: Coefficient, own: Series, k: number): Coefficient {
  const rest = sum([null, ...Array.from({ length: k - 1 }, (_, i) => times(own[i + 1], own[k - i - 1]))]);
  const below = operation('*', constantNode(2), orZero(own[0]));
  if (rest === null) return a === null ? null : operation('/', a, below);
  return operation('/', operation('-', orZero(a), rest), below);
}
