import { primed } from '../text/primes.ts';
import { CONSTANTS } from '../formula/functions.ts';
import type { Expression } from '../formula/expression.ts';
import { splitInto } from '../text/run-of-names.ts';
import { PlaceError, type Span } from '../text/place.ts';
import { type Method, type Shape, stepsBack, type Variable } from './method.ts';

/** What the names of a method mean at a line. */
export interface MethodNames {
  readonly form: Method['form'];
  /** Names given above this line, and by this line itself where it is a `solve`. */
  readonly lets: ReadonlyMap<string, Shape>;
  /** New values given above this line, or by it where it is a `solve`. */
  readonly nexts: ReadonlySet<Variable>;
  /** Whether a name is given further down. */
  readonly isLater: (name: string) => boolean;
  /** The name on the left of this line, where it is no `solve`. */
  readonly own: string | null;
}

/** Deepest history and highest derivative that a text may use. */
const MOST_BACK = 20;
const MOST_PRIMES = 30;

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
        return shapeOfIndexed(node, names);
      case 'negate':
        return of(node.of);
      case 'binary':
        return shapeOfBinary(node, of(node.left), of(node.right));
      case 'call':
        return shapeOfCall(node, of, names);
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

function isVariable(name: string, form: Method['form']): boolean {
  return form === 'first order' ? name === 'y' : name === 'x' || name === 'v';
}

function otherForm(name: string, form: Method['form']): string | null {
  if (form === 'first order' && (name === 'x' || name === 'v' || name === 'a'))
    return `${name} belongs to methods for x'' = a(t, x, v), which give x[n+1] and v[n+1]; this one gives y[n+1]`;
  if (form === 'second order' && (name === 'y' || name === 'f'))
    return `${name} belongs to methods for y' = f(t, y), which give y[n+1]; this one gives x[n+1] and v[n+1]`;
  return null;
}

function shapeOfName(name: string, primes: number, at: Span, names: MethodNames): Shape {
  const shape = names.lets.get(name);
  if (primes > 0)
    throw new PlaceError(
      at,
      `${primed(name, primes)} has no meaning here; a derivative of the rate is written f'(t, y)`,
    );
  if (shape !== undefined) return shape;
  if (name === 't' || name === 'h') return 'scalar';
  if (isVariable(name, names.form)) return 'vector';
  const refusal = otherForm(name, names.form);
  if (refusal !== null) throw new PlaceError(at, refusal);
  if (name === 'f')
    throw new PlaceError(at, 'f needs its inputs: write f(t, y), or f[n] for the one that is kept');
  if (name === 'a') throw new PlaceError(at, 'a needs its inputs: write a(t, x, v)');
  if (name === 'n') throw new PlaceError(at, 'the step number n stands only in an index, as in y[n+1]');
  if (CONSTANTS.has(name)) return 'scalar';
  if (name === names.own)
    throw new PlaceError(
      at,
      `${name} is used in its own line; for an implicit stage write solve ${name} = ..., otherwise give it above`,
    );
  if (names.isLater(name))
    throw new PlaceError(at, `${name} is given further down; move its line above this one`);
  const near = [...names.lets.keys(), 't', 'y', 'h'].find(
    (known) => known.toLowerCase() === name.toLowerCase(),
  );
  const product = splitInto(name, [...names.lets.keys(), 't', 'h', 'y', 'x', 'v']);
  if (near === undefined && product !== null)
    throw new PlaceError(at, `${name} is not known; to multiply write ${product.join('*')}`);
  throw new PlaceError(
    at,
    near === undefined
      ? `${name} is not known; give it on a line above, such as ${name} = f(t, y)`
      : `${name} is not known, but ${near} is; names are case-sensitive`,
  );
}

function shapeOfIndexed(node: Expression & { readonly kind: 'indexed' }, names: MethodNames): Shape {
  const back = stepsBack(node);
  if (back === null)
    throw new PlaceError(
      node.at,
      `an index here is n, n+1 or n less a whole number, as in ${node.name}[n-1]`,
    );
  if (back > MOST_BACK) throw new PlaceError(node.at, `a formula reaches at most ${MOST_BACK} steps back`);
  const refusal = otherForm(node.name, names.form);
  if (refusal !== null) throw new PlaceError(node.at, refusal);
  if (node.name === 't') {
    if (back >= -1) return 'scalar';
  } else if (node.name === 'f') {
    if (back >= 0) return 'vector';
    throw new PlaceError(
      node.at,
      'f at the new point is written f(t + h, y[n+1]) or with the value it is to be taken at',
    );
  } else if (isVariable(node.name, names.form)) {
    if (back >= 0) return 'vector';
    if (back === -1) return shapeOfNext(node, names);
  } else
    throw new PlaceError(
      node.at,
      `${node.name}[...] has no meaning here; only y, f and t are kept from earlier steps`,
    );
  throw new PlaceError(node.at, 'a formula reaches one step ahead, to n+1');
}

function shapeOfNext(node: Expression & { readonly kind: 'indexed' }, names: MethodNames): Shape {
  const isGiven = [...names.nexts].some((variable) => variable === node.name);
  if (isGiven) return 'vector';
  throw new PlaceError(
    node.at,
    `${node.name}[n+1] is not known yet; give it above, or write solve ${node.name}[n+1] = ... if its formula holds it`,
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

function shapeOfCall(
  node: Expression & { readonly kind: 'call' },
  of: (node: Expression) => Shape,
  names: MethodNames,
): Shape {
  if (node.name !== 'f' && node.name !== 'a') {
    for (const input of node.inputs) mustBeScalar(input, of(input), node.name);
    return 'scalar';
  }
  const refusal = otherForm(node.name, names.form);
  if (refusal !== null) throw new PlaceError(node.nameAt, refusal);
  const wanted = node.name === 'f' ? 'f(t, y)' : 'a(t, x, v)';
  if (node.primes > 0 && node.name === 'a')
    throw new PlaceError(
      node.at,
      'derivatives are made of f alone; write the method for y, with f and its derivatives',
    );
  if (node.primes > MOST_PRIMES) throw new PlaceError(node.at, `derivatives go up to order ${MOST_PRIMES}`);
  const [time, ...values] = node.inputs;
  if (time === undefined || values.length !== (node.name === 'f' ? 1 : 2))
    throw new PlaceError(
      node.at,
      `${node.name} takes the time and the ${node.name === 'f' ? 'value' : 'values'}: ${wanted}`,
    );
  if (of(time) === 'vector')
    throw new PlaceError(
      time.at,
      `the first input of ${node.name} is a time such as t + h; the value stands behind it: ${wanted}`,
    );
  for (const value of values)
    if (of(value) === 'scalar')
      throw new PlaceError(
        value.at,
        `this input of ${node.name} is a value of the solution such as y + h*k1, not a number`,
      );
  return 'vector';
}
