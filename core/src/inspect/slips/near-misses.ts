import { type Expression, name, walk } from '../../formula/expression.ts';
import { givenBy, type Method, valuesOf } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import type { Repair, Span } from '../../text/place.ts';
import { type Amount, amountOf, inexactly } from '../form/amount.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { isOnSolution } from '../form/kind.ts';
import { readLinear } from '../form/read-linear.ts';
import {
  type Condition,
  factorOfPower,
  hasConsistentPowers,
  type ProvedOrder,
  proveOrder,
} from '../order/prove-order.ts';
import { stepSeries } from '../order/step-series.ts';
import { literalValue, numberNode, withNode } from './changed-method.ts';
import { bracketed, shortFraction } from './fraction-text.ts';

/** One change of the text that would raise the order. */
export interface NearMiss {
  /** The present text, and the replacement. */
  readonly written: string;
  readonly instead: string;
  /** The order that the changed text has. */
  readonly order: number;
  readonly message: string;
  readonly at: Span;
  readonly repair: Repair;
}

/** Changes that are shown, at most. */
const MAX = 4;
/** How far a number may be changed, relative to itself. */
const FARTHEST = 2;
/** Literals and names that are tried, at most: a longer text has no typos said of it. */
const MAX_TRIED = 60;

/** A coefficient of a text: a number as written, or the 1 before a name that has none. */
interface Literal {
  readonly node: Expression;
  readonly value: number;
  /** The node with another coefficient, and how that is written. */
  readonly make: (x: number) => Expression;
  readonly written: (text: string) => string;
  /** Whether it is below a fraction. */
  readonly below: boolean;
}

/** A number as a node; a negative one as the negation of a positive one. */
function signed(x: number, at: Span): Expression {
  return x < 0 ? { kind: 'negate', of: numberNode(-x, at), at } : numberNode(x, at);
}

/** Names of slopes, each with the coefficient 1 that is not written. */
function bareSlopes(method: Method, slopes: readonly string[]): readonly Literal[] {
  const found: Literal[] = [];
  for (const statement of method.statements)
    for (const value of valuesOf(statement))
      walk(value, (node) => {
        const isBare =
          (node.kind === 'name' && slopes.includes(node.name)) ||
          (node.kind === 'indexed' && node.name === 'f');
        if (!isBare) return;
        const own = method.text.slice(node.at.from, node.at.to);
        found.push({
          node,
          value: 1,
          make: (x) => ({
            kind: 'binary',
            operator: '*',
            left: signed(x, node.at),
            right: node,
            at: node.at,
          }),
          written: (text) =>
            text === '-1' ? `(-${own})` : text.startsWith('-') ? `(${text})*${own}` : `${text}*${own}`,
          below: false,
        });
      });
  return found;
}

/** Numbers of a text that are coefficients: fractions of two literals are one, indices and powers are none. */
function literalsOf(method: Method): readonly Literal[] {
  const found: Literal[] = [];
  const skipped = new Set<Expression>();
  const divisors = new Set<Expression>();
  for (const statement of method.statements)
    for (const value of valuesOf(statement))
      walk(value, (node) => {
        if (skipped.has(node)) return;
        if (node.kind === 'indexed') walk(node.index, (below) => skipped.add(below));
        if (node.kind === 'binary' && node.operator === '^') skipped.add(node.right);
        if (node.kind === 'binary' && node.operator === '/') divisors.add(node.right);
        const number = literalValue(node);
        if (number === null) return;
        if (node.kind === 'binary') [node.left, node.right].forEach((part) => skipped.add(part));
        found.push({
          node,
          value: number,
          make: (x) => signed(x, node.at),
          written: (text) => text,
          below: divisors.has(node),
        });
      });
  return found;
}

/** What a condition has in a changed text, in doubles; null where the text is no form any more. */
function conditionIn(method: Method, { tree, order }: Condition): number | null {
  const linear = readLinear(method, inexactly);
  if ('why' in linear || !hasConsistentPowers(linear)) return null;
  if (tree !== null) return stepSeries(linear).of(tree).value;
  return isOnSolution(linear) ? factorOfPower(linear, order).value.value : null;
}

/** Where the condition, a polynomial in one number of the text, takes the value that it should have. */
function rootsFor(
  method: Method,
  { value, node, make, below }: Literal,
  condition: Condition,
): readonly number[] {
  const at = (x: number): number | null => conditionIn(withNode(method, node, make(x)), condition);
  const should = condition.should.value;
  // a number below a fraction enters by its inverse
  const scale = below ? (x: number): number => 1 / x : (x: number): number => x;
  const u = scale(value);
  const du = Math.max(Math.abs(u), 0.25) / 8;
  const [a, b, c] = [at(scale(u - du)), at(value), at(scale(u + du))];
  if (a === null || b === null || c === null) return [];
  const curve = (a - 2 * b + c) / (2 * du * du);
  const slope = (c - a) / (2 * du);
  const rest = b - should;
  if (Math.abs(curve) < 1e-12) return Math.abs(slope) > 1e-12 ? [scale(u - rest / slope)] : [];
  const inside = slope * slope - 4 * curve * rest;
  if (inside < 0) return [];
  return [1, -1].map((sign) => scale(u + (-slope + sign * Math.sqrt(inside)) / (2 * curve)));
}

function orderOf(method: Method, amount: (value: number) => Amount): number {
  const linear = readLinear(method, amount);
  if ('why' in linear) return -1;
  const proof = proveOrder(linear);
  if (proof === null || proof.zero?.stable === false) return -1;
  return proof.order;
}

/**
 * Single changes of a text that would raise its proved order: one number that another fraction would take the place of,
 * or one name that another stage would. Each is proved before it is said.
 *
 * @param proof of the text as it is, with the condition that fails
 */
export function nearMisses(method: Method, linear: LinearMethod, proof: ProvedOrder): readonly NearMiss[] {
  const [condition] = proof.failing;
  if (condition === undefined || proof.atLeast) return [];
  const found: NearMiss[] = [];
  const take = (node: Expression, other: Expression, text: string): void => {
    const { from, to } = node.at;
    if (orderOf(withNode(method, node, other), inexactly) <= proof.order) return;
    const repair = { from, to, text: bracketed(text, method, node.at) };
    // the text that would be written is read and proved, not the tree that represents it
    const reading = parseMethod(method.text.slice(0, from) + repair.text + method.text.slice(to));
    const order = reading.ok ? orderOf(reading.value, amountOf) : -1;
    if (order <= proof.order) return;
    const written = method.text.slice(from, to);
    const line = method.text.slice(0, from).split('\n').length;
    found.push({
      written,
      instead: text,
      order,
      message: `${text} instead of ${written} in line ${line} gives order ${order}`,
      at: node.at,
      repair,
    });
  };
  const slopes = linear.stages.flatMap(({ name: own }) => (own === null ? [] : [own]));
  const literals = [...literalsOf(method), ...bareSlopes(method, slopes)];
  if (literals.length > MAX_TRIED) return [];
  for (const literal of literals)
    for (const root of rootsFor(method, literal, condition)) {
      const short = shortFraction(root);
      const far = Math.abs(root - literal.value) / Math.max(Math.abs(literal.value), 0.25);
      const isOpposite = Math.abs(root + literal.value) < 1e-9;
      if (short === null || (far > FARTHEST && !isOpposite) || far < 1e-9 || short.value === 0) continue;
      take(literal.node, literal.make(short.value), literal.written(short.text));
    }
  const given = new Map<string, number>();
  method.statements.forEach((statement, i) => {
    for (const one of givenBy(statement)) if (one.kind === 'name') given.set(one.name, i);
  });
  method.statements.forEach((statement, i) => {
    for (const value of valuesOf(statement))
      walk(value, (node) => {
        if (node.kind !== 'name' || !slopes.includes(node.name)) return;
        for (const other of slopes) {
          const isKnown = (given.get(other) ?? Infinity) < i || statement.kind === 'solve';
          if (other === node.name || !isKnown) continue;
          const changed = name(other, 0, node.at);
          const value = conditionIn(withNode(method, node, changed), condition);
          if (value !== null && Math.abs(value - condition.should.value) < 1e-9) take(node, changed, other);
        }
      });
  });
  // what raises it most is likely what was meant; what raises it less is reported only where nothing does better
  const best = Math.max(...found.map(({ order }) => order));
  return found
    .filter(({ order }) => order === best)
    .filter((miss, i, all) => all.findIndex((one) => one.message === miss.message) === i)
    .slice(0, MAX);
}
