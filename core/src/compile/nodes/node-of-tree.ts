import { isSpelledPower } from '../../formula/evaluate.ts';
import type { Bound, Tree } from '../../formula/expression.ts';
import { FUNCTIONS } from '../../formula/functions.ts';
import { isAtom, constantNode, type Op, operation, type CodeNode } from './code-node.ts';
import type { Scopes } from './scopes.ts';

/** Operations inside one another that are printed as one expression; engines read brackets in brackets by recursion. */
const MAX_DEPTH = 100;

/** A number of the text or of a parameter, rounded as the arithmetic of the run is. */
export function parameterNode(value: number, { single }: Pick<Scopes, 'single'>): CodeNode {
  return constantNode(single ? Math.fround(value) : value);
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
    return shallow(scopes.single ? operation('single', made) : made);
  };
  const value = (node: Tree<Bound<B>>): CodeNode => {
    switch (node.kind) {
      case 'number':
        return parameterNode(node.value, scopes);
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
