import { primed } from '../text/primes.ts';
import { CONSTANTS, FUNCTIONS } from '../formula/functions.ts';
import type { Expression } from '../formula/expression.ts';
import { plainText } from '../formula/plain-text.ts';
import { PlaceError, type Span, writing } from '../text/place.ts';
import { HIGHEST_PARTIAL, type Method, partialOf, type Shape, stepsBack, type Variable } from './method.ts';
import { unknownName } from './unknown-name.ts';

/** What the names of a method mean at a line. */
export interface MethodNames {
  readonly form: Method['form'];
  /** Names given above this line, and by this line itself where it is a `solve`. */
  readonly lets: ReadonlyMap<string, Shape>;
  /** New values given above this line, or by it where it is a `solve`. */
  readonly nexts: ReadonlySet<Variable>;
  /** Functions of a time and a value that the text types out above this line. */
  readonly functions: ReadonlySet<string>;
  /** Whether the problem has one equation, so that its values multiply like numbers. */
  readonly oneEquation: boolean;
  /** Whether a name is given further down. */
  readonly isLater: (name: string) => boolean;
  /** The name on the left of this line, where it is no `solve`. */
  readonly own: string | null;
  /** Where this line begins. */
  readonly from: number;
  /** Names of lines that could not be read: what uses them is not at fault. */
  readonly lost: ReadonlySet<string>;
  /** Takes the shape of every node. */
  readonly shapes: Map<Expression, Shape>;
}

/** Deepest history and highest derivative that a text may use. */
const MAX_BACK = 20;
const MAX_PRIMES = 30;

/**
 * The shape of an expression of a method: scalars and vectors add to their like, a vector is scaled by
 * a scalar, and functions take scalars.
 *
 * @throws PlaceError where the formula has no meaning, with the reason
 */
export function shapeOf(expression: Expression, names: MethodNames): Shape {
  const of = (node: Expression): Shape => {
    const shape = shapeOfNode(node);
    names.shapes.set(node, shape);
    return shape;
  };
  const shapeOfNode = (node: Expression): Shape => {
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
        return names.oneEquation
          ? together([of(node.left), of(node.right)])
          : shapeOfBinary(node, of(node.left), of(node.right));
      case 'call':
        return shapeOfCall(node, of, names);
      case 'if': {
        const sides = [node.test.left, node.test.right].map((side) => ({ side, shape: of(side) }));
        const [yes, no] = [of(node.yes), of(node.no)];
        if (names.oneEquation) return together([yes, no, ...sides.map(({ shape }) => shape)]);
        for (const { side, shape } of sides) mustBeScalar(side, shape, 'a comparison');
        if (no !== yes) throw new PlaceError(node.at, 'both branches of if must be numbers, or both vectors');
        return yes;
      }
    }
  };
  return of(expression);
}

/** The shape of what is made of values of one equation: a value where one of them is. */
function together(shapes: readonly Shape[]): Shape {
  return shapes.some((shape) => shape !== 'scalar') ? 'vector' : 'scalar';
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

/** What to say of `y''` in a method, where the derivatives of y are f and its total derivatives. */
function primedName(name: string, primes: number, at: Span, form: Method['form']): PlaceError {
  const typed = primed(name, primes);
  if (form !== 'first order' || name !== 'y')
    return new PlaceError(
      at,
      `${typed} is not allowed here; a derivative of the right-hand side is written f'(t, y)`,
    );
  const instead = `${primed('f', primes - 1)}(t, y)`;
  return new PlaceError(at, `${typed} is written ${instead} in a method`, writing(at, instead));
}

function shapeOfName(name: string, primes: number, at: Span, names: MethodNames): Shape {
  const shape = names.lets.get(name);
  if (primes > 0) throw primedName(name, primes, at, names.form);
  if (shape !== undefined) return shape;
  if (name === 't' || name === 'h') return 'scalar';
  if (isVariable(name, names.form)) return 'vector';
  const refusal = otherForm(name, names.form);
  if (refusal !== null) throw new PlaceError(at, refusal);
  if (name === 'f')
    throw new PlaceError(
      at,
      'f needs its arguments: write f(t, y), or f[n] for the stored value',
      writing(at, 'f(t, y)'),
    );
  if (name === 'a') throw new PlaceError(at, 'a needs its arguments: write a(t, x, v)');
  if (name === 'n') throw new PlaceError(at, 'the step number n is allowed only in an index, as in y[n+1]');
  if (CONSTANTS.has(name)) return 'scalar';
  if (name === names.own)
    throw new PlaceError(
      at,
      `${name} is used in its own line; for an implicit stage write solve ${name} = ..., otherwise define it above`,
      [{ from: names.from, to: names.from, text: 'solve ' }],
    );
  if (names.isLater(name)) throw new PlaceError(at, `${name} is defined below; move its line above this one`);
  if (names.lost.has(name)) return 'vector';
  const { message, instead } = unknownName(name, [...names.lets.keys()]);
  throw new PlaceError(at, message, instead === null ? [] : writing(at, instead));
}

function shapeOfIndexed(node: Expression & { readonly kind: 'indexed' }, names: MethodNames): Shape {
  if (names.lost.has(node.name)) return 'vector';
  const back = stepsBack(node);
  const isFactor = names.lets.has(node.name) || node.name === 'h';
  if (isFactor)
    throw new PlaceError(
      node.at,
      back === null
        ? `square brackets are for an index; to multiply write ${node.name}*(...)`
        : `${node.name} is a value of this step; write it without an index`,
      [{ from: node.at.from + node.name.length, to: node.at.to, text: '' }].slice(0, back === null ? 0 : 1),
    );
  if (back === null)
    throw new PlaceError(node.at, `an index must be n+1, n or n minus an integer, as in ${node.name}[n-1]`);
  if (back > MAX_BACK) throw new PlaceError(node.at, `a method uses at most ${MAX_BACK} earlier steps`);
  const refusal = otherForm(node.name, names.form);
  if (refusal !== null) throw new PlaceError(node.at, refusal);
  if (node.name === 't') {
    if (back >= -1) return 'scalar';
  } else if (node.name === 'f') {
    if (back >= 0) return 'vector';
    throw new PlaceError(
      node.at,
      'f at the new point is written f(t + h, y[n+1]) or with another value in place of y[n+1]',
    );
  } else if (isVariable(node.name, names.form)) {
    if (back >= 0) return 'vector';
    if (back === -1) return shapeOfNext(node, names);
  } else
    throw new PlaceError(
      node.at,
      `${node.name}[...] is not allowed here; only y, f and t are stored from earlier steps`,
    );
  throw new PlaceError(node.at, 'the highest index is n+1');
}

function shapeOfNext(node: Expression & { readonly kind: 'indexed' }, names: MethodNames): Shape {
  const isGiven = [...names.nexts].some((variable) => variable === node.name);
  if (isGiven) return 'vector';
  throw new PlaceError(
    node.at,
    `${node.name}[n+1] is not known yet; define it above, or write solve ${node.name}[n+1] = ... if it is defined implicitly`,
    names.own === null ? [{ from: names.from, to: names.from, text: 'solve ' }] : [],
  );
}

const BY_HAND = 'a derivative worked out by hand goes on a line of its own, as in d2(t, y) = 2*t*y';

function mustBeScalar(node: Expression, shape: Shape, where: string): void {
  if (shape !== 'scalar') throw new PlaceError(node.at, `${where} takes a number, and this is a vector`);
}

/** A Jacobian may be scaled, added to another, and applied to the vector behind it. */
function shapeOfOperator(node: Expression & { readonly kind: 'binary' }, left: Shape, right: Shape): Shape {
  const { operator } = node;
  if ((operator === '+' || operator === '-') && left === right) return 'operator';
  if (operator === '*' && left === 'operator' && right === 'vector') return 'vector';
  if (operator === '*' && (left === 'scalar' || right === 'scalar')) return 'operator';
  if (operator === '/' && right === 'scalar') return 'operator';
  throw new PlaceError(node.at, 'f_y is the Jacobian; apply it to a vector: write f_y(t, y)*f(t, y)');
}

function shapeOfBinary(node: Expression & { readonly kind: 'binary' }, left: Shape, right: Shape): Shape {
  if (left === 'operator' || right === 'operator') return shapeOfOperator(node, left, right);
  switch (node.operator) {
    case '+':
    case '-': {
      if (left === right) return left;
      const number = left === 'scalar' ? node.left : node.right;
      throw new PlaceError(
        number.at,
        'a number cannot be added to values of the solution; is a factor such as f(t, y) or k1 missing?',
      );
    }
    case '*':
      if (left === 'vector' && right === 'vector')
        throw new PlaceError(
          node.at,
          `two vectors cannot be multiplied: one of these factors should be a number such as h; the derivative of f with respect to y times f is written f_y(t, y)*f(t, y), and ${BY_HAND}`,
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
      for (const [side, shape] of [
        [node.left, left],
        [node.right, right],
      ] as const)
        if (shape !== 'scalar')
          throw new PlaceError(side.at, `a power takes a number, and this is a vector; ${BY_HAND}`);
      return 'scalar';
  }
}

function shapeOfCall(
  node: Expression & { readonly kind: 'call' },
  of: (node: Expression) => Shape,
  names: MethodNames,
): Shape {
  const partial = partialOf(node.name);
  const isTyped = names.functions.has(node.name);
  if (node.name !== 'f' && node.name !== 'a' && partial === null && !isTyped) {
    if (!FUNCTIONS.has(node.name))
      throw new PlaceError(node.nameAt, `${node.name} is defined below; move its line above this one`);
    if (names.oneEquation) return together(node.inputs.map(of));
    for (const input of node.inputs) mustBeScalar(input, of(input), node.name);
    return 'scalar';
  }
  const refusal = otherForm(node.name, names.form);
  if (refusal !== null && node.name === 'f' && node.primes === 0 && node.inputs.length > 1) {
    const inputs = [...node.inputs.map(plainText), ...(node.inputs.length === 2 ? ['v'] : [])];
    const instead = `a(${inputs.join(', ')})`;
    throw new PlaceError(
      node.at,
      `in a method for x and v the right-hand side is the acceleration: write ${instead}`,
      writing(node.at, instead),
    );
  }
  if (refusal !== null) throw new PlaceError(node.nameAt, refusal);
  if (partial !== null && names.form === 'second order')
    throw new PlaceError(
      node.nameAt,
      'only f can be differentiated; write the method for y, with f and its derivatives',
    );
  const expected = node.name === 'a' ? 'a(t, x, v)' : `${node.name}(t, y)`;
  if (node.primes > 0 && node.name === 'a')
    throw new PlaceError(
      node.at,
      'only f can be differentiated; write the method for y, with f and its derivatives',
    );
  if (node.primes > MAX_PRIMES)
    throw new PlaceError(node.at, `derivatives are supported up to order ${MAX_PRIMES}`);
  const [time, ...values] = node.inputs;
  if (time === undefined || values.length !== (node.name === 'a' ? 2 : 1))
    throw new PlaceError(
      node.at,
      `${node.name} takes the time and the ${node.name === 'a' ? 'values' : 'value'}: ${expected}`,
    );
  if (of(time) === 'vector') {
    const [value] = values;
    const isSwapped = time.kind === 'name' && value?.kind === 'name' && of(value) === 'scalar';
    throw new PlaceError(
      time.at,
      `the first argument of ${node.name} is a time such as t + h; the value comes second: ${expected}`,
      isSwapped ? writing(node.at, `${node.name}(${value.name}, ${time.name})`) : [],
    );
  }
  for (const value of values)
    if (of(value) !== 'vector' && !isTyped)
      throw new PlaceError(
        value.at,
        `this argument of ${node.name} must be a value of the solution such as y + h*k1, not a number`,
      );
  return partial === null ? 'vector' : shapeOfPartial(node, partial, names.oneEquation);
}

function shapeOfPartial(
  node: Expression & { readonly kind: 'call' },
  { times, values }: { readonly times: number; readonly values: number },
  oneEquation: boolean,
): Shape {
  if (node.primes > 0)
    throw new PlaceError(
      node.nameAt,
      `write a derivative as f'(t, y), along the solution, or as ${node.name}(t, y)`,
    );
  if (times + values > HIGHEST_PARTIAL)
    throw new PlaceError(node.nameAt, `partial derivatives are supported up to order ${HIGHEST_PARTIAL}`);
  if (values === 0 || oneEquation) return 'vector';
  if (values === 1) return 'operator';
  throw new PlaceError(
    node.nameAt,
    `${node.name} is defined for a single equation only; for systems use f_y or f'(t, y)`,
  );
}
