import { isSpelledPower } from '../../formula/evaluate.ts';
import type { Bound, Tree } from '../../formula/expression.ts';
import { CONSTANTS, FUNCTIONS } from '../../formula/functions.ts';
import { isAtom, constantNode, type Op, operation, type CodeNode } from './code-node.ts';
import type { Scopes } from './scopes.ts';

/** Operations inside one another that are printed as one expression; engines read brackets in brackets by recursion. */
const MAX_DEPTH = 100;

/**
 * A number of the text or of a parameter, rounded as the arithmetic of the run is.
 *
 * @param spelled its digits or its name, for decimals; null where the double is all of it
 */
export function parameterNode(
  value: number,
  { arithmetic }: Pick<Scopes, 'arithmetic'>,
  spelled: string | null,
): CodeNode {
  if (arithmetic === 'decimal') return constantNode(value, spelled);
  return constantNode(arithmetic === 'single' ? Math.fround(value) : value);
}

/**
 * A constant within the formulas of a problem. The value of a parameter is read before the loop, so that the code, and
 * what an engine has made of it, is the same for all its values. Powers of two stay: an engine divides by them faster
 * where it knows them; so does 0, of which formulas lose parts.
 *
 * @param leaf its value, and its name where it has one
 */
export function problemConstant(
  { name, value }: { readonly name: string | null; readonly value: number },
  scopes: Scopes,
): CodeNode {
  const isParameter = name !== null && !CONSTANTS.has(name) && Number.isFinite(value) && !isPowerOfTwo(value);
  if (scopes.arithmetic === 'decimal' || !isParameter) return parameterNode(value, scopes, name);
  return scopes.parameter(scopes.arithmetic === 'single' ? Math.fround(value) : value);
}

function isPowerOfTwo(value: number): boolean {
  let size = Math.abs(value);
  while (size >= 2) size /= 2;
  while (size > 0 && size < 1) size *= 2;
  return size === 0 || size === 1;
}

/**
 * A tree as a node of code, operation by operation in the text's own order. What is loop-invariant and no plain atom is
 * put aside, so that a loop computes it once, outside.
 *
 * @param leaf the node for what a leaf is bound to
 */
export function pieceOf<B>(tree: Tree<Bound<B>>, scopes: Scopes, leaf: (to: B) => CodeNode): CodeNode {
  const hoisted = (piece: CodeNode): CodeNode =>
    piece.loopInvariant && !isAtom(piece) ? scopes.keep(piece) : piece;
  const shallow = (piece: CodeNode): CodeNode =>
    piece.kind === 'operation' && piece.depth >= MAX_DEPTH ? scopes.keep(piece) : piece;
  const done = (op: Op, ...inputs: readonly CodeNode[]): CodeNode => {
    const made = operation(op, ...inputs);
    return shallow(scopes.arithmetic === 'single' ? operation('single', made) : made);
  };
  const value = (node: Tree<Bound<B>>): CodeNode => {
    switch (node.kind) {
      case 'number':
        return parameterNode(node.value, scopes, node.digits ?? null);
      case 'bound':
        return leaf(node.to);
      case 'negate':
        return shallow(operation('negate', value(node.of)));
      case 'binary': {
        if (node.operator === '^') return power(node.left, node.right);
        const left = value(node.left);
        const right = value(node.right);
        const loopInvariant = left.loopInvariant && right.loopInvariant;
        return loopInvariant
          ? done(node.operator, left, right)
          : done(node.operator, hoisted(left), hoisted(right));
      }
      case 'call': {
        const known = node.primes > 0 ? undefined : FUNCTIONS.get(node.name);
        if (known === undefined) return constantNode(NaN);
        const inputs = node.inputs.map((input) => hoisted(value(input)));
        const [only] = inputs;
        const written = only === undefined ? null : scopes.inlined(node.name, only);
        return written ?? done({ call: known.code }, ...inputs);
      }
      case 'if':
        return shallow(
          operation(
            { choose: node.test.relation },
            value(node.test.left),
            value(node.test.right),
            value(node.yes),
            value(node.no),
          ),
        );
    }
  };
  const power = (base: Tree<Bound<B>>, exponent: Tree<Bound<B>>): CodeNode => {
    const left = value(base);
    if (!isSpelledPower(exponent) || exponent.kind !== 'number')
      return done({ call: 'pow' }, left, value(exponent));
    const x = scopes.keep(left);
    const square = done('*', x, x);
    return exponent.value === 2 ? square : done('*', square, x);
  };
  return hoisted(value(tree));
}
