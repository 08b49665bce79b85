import {
  binary,
  call,
  childrenOf,
  type Expression,
  name,
  negate,
  number,
  rewrite,
} from '../../formula/expression.ts';
import type { MistakeKind } from './change.ts';

/** One node of a formula, and what may be written for it by mistake. */
export interface NodeChange {
  readonly kind: MistakeKind;
  readonly node: Expression;
  readonly other: Expression;
  readonly says: string;
  readonly isFrequent: boolean;
}

/** A node, with the one that it is part of. */
export interface PlacedNode {
  readonly node: Expression;
  readonly parent: Expression | null;
}

/** All nodes of a formula; what is in an index is no value, and is not looked at. */
export function nodesIn(formula: Expression, parent: Expression | null = null): readonly PlacedNode[] {
  return [{ node: formula, parent }, ...childrenOf(formula).flatMap((part) => nodesIn(part, formula))];
}

/** Frequent changes of one node. */
export function frequentOf(
  node: Expression,
): (kind: MistakeKind, other: Expression, says: string) => NodeChange {
  return (kind, other, says) => ({ kind, node, other, says, isFrequent: true });
}

/** Digits of a number that may be typed as another one. */
const MAX_DIGITS = 4;

/** Numbers that may be typed instead of one: a digit is another, two are exchanged, the decimal sign is elsewhere. */
function mistypings(value: number): readonly number[] {
  const text = String(value);
  const found = new Set<number>([value + 1, value - 1, 2 * value, value / 2, 10 * value, value / 10]);
  const places = [...text.matchAll(/\d/g)].map(({ index }) => index);
  if (places.length <= MAX_DIGITS && !text.includes('e'))
    for (const [i, place] of places.entries()) {
      for (let digit = 0; digit <= 9; digit += 1)
        found.add(Number(`${text.slice(0, place)}${digit}${text.slice(place + 1)}`));
      const next = places[i + 1];
      if (next === place + 1)
        found.add(Number(`${text.slice(0, place)}${text[next]}${text[place]}${text.slice(next + 1)}`));
    }
  found.delete(value);
  return [...found].filter((one) => Number.isFinite(one) && one >= 0);
}

function ofNumber(node: Expression & { readonly kind: 'number' }): readonly NodeChange[] {
  return mistypings(node.value).map((value) => ({
    kind: 'coefficient',
    node,
    other: number(value, node.at),
    says: `${value} is written for ${node.value}`,
    isFrequent: false,
  }));
}

function ofSum(node: Expression & { readonly kind: 'binary' }): readonly NodeChange[] {
  const { left, right, operator, at } = node;
  const change = frequentOf(node);
  return [
    change(
      'sign',
      binary(operator === '+' ? '-' : '+', left, right, at),
      `${operator === '+' ? '-' : '+'} is written for ${operator}`,
    ),
    change('missing term', left, 'the last term is missing'),
    change('missing term', operator === '+' ? right : negate(right, at), 'the first term is missing'),
  ];
}

function isSum(
  node: Expression,
): node is Expression & { readonly kind: 'binary'; readonly operator: '+' | '-' } {
  return node.kind === 'binary' && (node.operator === '+' || node.operator === '-');
}

/** A factor in front of a sum, and a divisor behind one, that belongs to one term alone without the bracket. */
function withoutBracket(node: Expression & { readonly kind: 'binary' }): readonly NodeChange[] {
  const { left, right, operator, at } = node;
  const change = (other: Expression): NodeChange => ({
    kind: 'bracket',
    node,
    other,
    says: 'a bracket is missing',
    isFrequent: true,
  });
  const found: NodeChange[] = [];
  if ((operator === '*' || operator === '/') && isSum(right))
    found.push(change(binary(right.operator, binary(operator, left, right.left, at), right.right, at)));
  if ((operator === '*' || operator === '/') && isSum(left))
    found.push(change(binary(left.operator, left.left, binary(operator, left.right, right, at), at)));
  if (operator === '/' && right.kind === 'binary' && (right.operator === '*' || right.operator === '/'))
    found.push(change(binary(right.operator, binary('/', left, right.left, at), right.right, at)));
  if (operator === '^' && left.kind === 'binary')
    found.push(change(binary(left.operator, left.left, binary('^', left.right, right, at), at)));
  return found;
}

function ofProduct(node: Expression & { readonly kind: 'binary' }): readonly NodeChange[] {
  const { left, right, operator } = node;
  const missing = (other: Expression, says: string): NodeChange => ({
    kind: 'missing factor',
    node,
    other,
    says,
    isFrequent: true,
  });
  return [
    missing(left, operator === '*' ? 'the second factor is missing' : 'the divisor is missing'),
    // a minus sign in front of a product is no part of its first factor
    ...(operator === '*'
      ? [missing(left.kind === 'negate' ? negate(right, node.at) : right, 'the first factor is missing')]
      : []),
    ...withoutBracket(node),
  ];
}

function ofPower(node: Expression & { readonly kind: 'binary' }): readonly NodeChange[] {
  const { left, right, at } = node;
  const change = frequentOf(node);
  return [
    change('power', binary('*', left, right, at), 'a power is read as a product'),
    change('power', left, 'the exponent is missing'),
    ...withoutBracket(node),
  ];
}

/** Functions whose argument or result is an angle. */
const ANGLES = new Set(['sin', 'cos', 'tan']);
const LOGARITHMS: Readonly<Record<string, readonly string[]>> = {
  ln: ['log10', 'log2'],
  log10: ['ln', 'log2'],
  log2: ['ln', 'log10'],
};

function ofCall(node: Expression & { readonly kind: 'call' }): readonly NodeChange[] {
  const [input] = node.inputs;
  if (input === undefined) return [];
  const others = LOGARITHMS[node.name] ?? [];
  const angle = binary('/', binary('*', name('pi'), input), number(180));
  return [
    ...(ANGLES.has(node.name)
      ? [
          {
            kind: 'degrees' as const,
            node,
            other: { ...node, inputs: [angle] },
            says: `the argument of ${node.name} is taken in degrees`,
            isFrequent: true,
          },
        ]
      : []),
    ...others.map((other) => ({
      kind: 'logarithm' as const,
      node,
      other: call(other, node.inputs, node.at),
      says: `${other} is written for ${node.name}`,
      isFrequent: true,
    })),
  ];
}

/** -x^2, which is -(x^2), read as (-x)^2. */
function ofNegation(node: Expression & { readonly kind: 'negate' }): readonly NodeChange[] {
  const { of } = node;
  const found: NodeChange[] = [
    { kind: 'sign', node, other: of, says: 'a minus sign is missing', isFrequent: true },
  ];
  const base = of.kind === 'binary' && of.operator === '^' ? of : null;
  if (base !== null)
    found.push({
      kind: 'negative base',
      node,
      other: binary('^', negate(base.left, node.at), base.right, node.at),
      says: '-x^2 is read as (-x)^2',
      isFrequent: true,
    });
  return found;
}

/** What may be written for one node of any formula by mistake. */
export function nodeChanges({ node }: PlacedNode): readonly NodeChange[] {
  switch (node.kind) {
    case 'number':
      return ofNumber(node);
    case 'binary':
      if (isSum(node)) return ofSum(node);
      return node.operator === '^' ? ofPower(node) : ofProduct(node);
    case 'call':
      return ofCall(node);
    case 'negate':
      return ofNegation(node);
    default:
      return [];
  }
}

/** Quotients of two literal integers, with what is left without remainder. */
export function integerQuotients(formula: Expression): readonly NodeChange[] {
  return nodesIn(formula).flatMap(({ node }): readonly NodeChange[] => {
    if (node.kind !== 'binary' || node.operator !== '/') return [];
    const { left, right } = node;
    if (left.kind !== 'number' || right.kind !== 'number' || right.value === 0) return [];
    if (!Number.isInteger(left.value) || !Number.isInteger(right.value)) return [];
    const whole = Math.trunc(left.value / right.value);
    return [
      {
        kind: 'integer division',
        node,
        other: number(whole, node.at),
        says: `${left.value}/${right.value} is taken for ${whole}`,
        isFrequent: true,
      },
    ];
  });
}

/** Formulas with nodes exchanged; null where one of the nodes is not there any more. */
export function exchanged(
  formulas: readonly Expression[],
  changes: readonly Pick<NodeChange, 'node' | 'other'>[],
): readonly Expression[] | null {
  const others = new Map(changes.map(({ node, other }) => [node, other]));
  const made = formulas.map((formula) =>
    rewrite(formula, (node) => {
      const other = others.get(node) ?? null;
      others.delete(node);
      return other;
    }),
  );
  return others.size > 0 ? null : made;
}
