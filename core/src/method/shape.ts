import { CONSTANTS } from '../formula/functions.ts';
import type { Expression } from '../formula/expression.ts';
import { PlaceError, type Span } from '../formula/place.ts';
import type { Shape } from './method.ts';

/** What the names of a method mean so far: `lets` above this line, and those that stand further down. */
export interface MethodNames {
  readonly lets: ReadonlyMap<string, Shape>;
  readonly later: ReadonlySet<string>;
  /** The name on the left of this line. */
  readonly own: string | null;
}

/**
 * The shape of an expression of a method: scalars and vectors add to their like, a vector is scaled by
 * a scalar, and functions take scalars.
 *
 * @throws PlaceError where the formula has no meaning, with the reason
 */
export function shapeOf(expression: Expression, names: MethodNames): Shape {
  const of = (node: Expression): Shape => {
    switch (node.kind) {
      case 'number':
        return 'scalar';
      case 'name':
        return shapeOfName(node.name, node.primes, node.at, names);
      case 'indexed':
        return shapeOfIndexed(node);
      case 'negate':
        return of(node.of);
      case 'binary':
        return shapeOfBinary(node, of(node.left), of(node.right));
      case 'call':
        return shapeOfCall(node, of);
      case 'if': {
        for (const side of [node.test.left, node.test.right]) mustBeScalar(side, of(side), 'a comparison');
        const yes = of(node.yes);
        if (of(node.no) !== yes)
          throw new PlaceError(node.at, 'both branches of if must be of one kind, numbers or vectors');
        return yes;
      }
    }
  };
  return of(expression);
}

function shapeOfName(name: string, primes: number, at: Span, names: MethodNames): Shape {
  if (primes > 0)
    throw new PlaceError(
      at,
      `${name}${"'".repeat(primes)} has no meaning in a method; a derivative of the rate is written f'(t, y)`,
    );
  if (name === 't' || name === 'h') return 'scalar';
  if (name === 'y') return 'vector';
  if (name === 'f') throw new PlaceError(at, 'f needs its inputs: write f(t, y)');
  if (name === 'n') throw new PlaceError(at, 'the step number n stands only in an index, as in y[n+1]');
  const shape = names.lets.get(name);
  if (shape !== undefined) return shape;
  if (CONSTANTS.has(name)) return 'scalar';
  if (name === names.own) throw new PlaceError(at, `${name} is used in its own line, so it is not known yet`);
  if (names.later.has(name))
    throw new PlaceError(at, `${name} is given further down; move its line above this one`);
  const near = [...names.lets.keys(), 't', 'y', 'h'].find(
    (known) => known.toLowerCase() === name.toLowerCase(),
  );
  throw new PlaceError(
    at,
    near === undefined
      ? `${name} is not known; give it on a line above, such as ${name} = f(t, y)`
      : `${name} is not known, but ${near} is; names are case-sensitive`,
  );
}

function shapeOfIndexed(node: Expression & { readonly kind: 'indexed' }): Shape {
  const { index } = node;
  const isN = index.kind === 'name' && index.name === 'n';
  if (isN && node.primes === 0 && node.name === 'y') return 'vector';
  if (isN && node.primes === 0 && node.name === 't') return 'scalar';
  throw new PlaceError(
    node.at,
    node.name === 'y' && node.primes === 0
      ? 'this formula takes one step from y[n]: only y, y[n] and what is given above can stand here'
      : `${node.name}[...] has no meaning here; y[n] and t[n] are the present values`,
  );
}

function mustBeScalar(node: Expression, shape: Shape, where: string): void {
  if (shape === 'vector')
    throw new PlaceError(node.at, `${where} takes numbers, and this has a value for each component`);
}

function shapeOfBinary(node: Expression & { readonly kind: 'binary' }, left: Shape, right: Shape): Shape {
  switch (node.operator) {
    case '+':
    case '-': {
      if (left === right) return left;
      const number = left === 'scalar' ? node.left : node.right;
      throw new PlaceError(
        number.at,
        'a plain number cannot be added to values of the solution; is a factor such as f(t, y) or k1 missing?',
      );
    }
    case '*':
      if (left === 'vector' && right === 'vector')
        throw new PlaceError(
          node.at,
          'two vectors cannot be multiplied: one of these factors should be a number such as h',
        );
      return left === 'vector' || right === 'vector' ? 'vector' : 'scalar';
    case '/':
      if (right === 'vector')
        throw new PlaceError(
          node.right.at,
          'nothing can be divided by a vector; divide by a number such as h',
        );
      return left;
    case '^':
      mustBeScalar(node.left, left, 'a power');
      mustBeScalar(node.right, right, 'a power');
      return 'scalar';
  }
}

function shapeOfCall(node: Expression & { readonly kind: 'call' }, of: (node: Expression) => Shape): Shape {
  if (node.name !== 'f') {
    for (const input of node.inputs) mustBeScalar(input, of(input), node.name);
    return 'scalar';
  }
  if (node.primes > 0) throw new PlaceError(node.at, 'only f itself can stand here, without primes');
  const [time, value] = node.inputs;
  if (time === undefined || value === undefined || node.inputs.length !== 2)
    throw new PlaceError(node.at, 'f takes the time and the value: f(t, y)');
  if (of(time) === 'vector')
    throw new PlaceError(
      time.at,
      'the first input of f is a time such as t + h; the value stands second: f(t, y)',
    );
  if (of(value) === 'scalar')
    throw new PlaceError(value.at, 'the second input of f is a value of the solution such as y + h*k1');
  return 'vector';
}
