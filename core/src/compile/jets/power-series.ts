import type { Binary, Bound } from '../../formula/expression.ts';
import { constantOf } from '../../formula/simplify.ts';
import { constantNode, operation, type CodeNode } from '../nodes/code-node.ts';
import type { RhsLeaf, RhsTree } from '../../program/rhs-tree.ts';
import type { Jets } from './jets.ts';
import { logarithmSeries } from './function-series.ts';
import { type Coefficient, convolve, derived, one, scaled, sum } from './series.ts';

type Power = Binary<Bound<RhsLeaf>>;

/** Largest whole exponent that is done by repeated squaring. */
const MAX_SQUARED = 64;

/** Coefficient k of a power. */
export function powerSeries(jets: Jets, node: Power, k: number): Coefficient {
  const { left, right } = node;
  const exponent = constantOf(right);
  if (exponent !== null && Number.isInteger(exponent) && exponent >= 0 && exponent <= MAX_SQUARED)
    return exponent === 0 ? one(k) : wholePower(jets, left, exponent, k);
  const isSteady = Array.from({ length: k }, (_, j) => jets.coefficient(right, j + 1)).every(
    (c) => c === null,
  );
  return isSteady ? realPower(jets, node, jets.zeroth(right), k) : generalPower(jets, node, k);
}

/** Repeated squaring, so that a base of zero is no trouble. */
function wholePower(jets: Jets, base: RhsTree, exponent: number, k: number): Coefficient {
  if (exponent === 1) return jets.coefficient(base, k);
  const half = jets.partner(base, `^${Math.floor(exponent / 2)}`, k, (j) =>
    wholePower(jets, base, Math.floor(exponent / 2), j),
  );
  const square = jets.partner(base, `sq${exponent}`, k, (j) => convolve(half, half, j));
  if (exponent % 2 === 0) return square[k] ?? null;
  return convolve(square, jets.series(base, k), k);
}

/** c = a^r: c[k] = sum of (r j - (k - j)) a[j] c[k-j] / (k a[0]). */
function realPower(jets: Jets, node: Power, exponent: CodeNode, k: number): Coefficient {
  const base = jets.zeroth(node.left);
  if (k === 0) return operation({ call: 'pow' }, base, exponent);
  const own = jets.own(node);
  const rest = sum(
    Array.from({ length: k }, (_, i) => {
      const j = i + 1;
      const factor = operation('-', operation('*', constantNode(j), exponent), constantNode(k - j));
      return scaled(factor, jets.coefficient(node.left, j), own[k - j]);
    }),
  );
  return rest === null ? null : operation('/', rest, operation('*', constantNode(k), base));
}

/** a^b = exp(b ln a). */
function generalPower(jets: Jets, node: Power, k: number): Coefficient {
  const logarithm = jets.partner(node.left, 'ln', k, (j, own) => logarithmSeries(jets, node.left, own, j));
  const inner = jets.partner(node, 'exponent', k, (j) => convolve(jets.series(node.right, j), logarithm, j));
  if (k === 0) return operation({ call: 'pow' }, jets.zeroth(node.left), jets.zeroth(node.right));
  const own = jets.own(node);
  return derived(inner, (j) => own[j], k);
}
