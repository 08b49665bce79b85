import { type Expression, name, walk } from '../../formula/expression.ts';
import { givenBy, type Method, valuesOf } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { lineStarts, placeOf, type Repair, type Span } from '../../text/place.ts';
import { areEqual, inexactly } from '../form/amount.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { isOnSolution } from '../form/kind.ts';
import { readLinear } from '../form/read-linear.ts';
import {
  type Condition,
  factorOfPower,
  hasConsistentPowers,
  type ProvedOrder,
  provedOrders,
} from '../order/prove-order.ts';
import type { SuggestedOrder } from '../order/highest-order.ts';
import { shiftsOf, stepSeries } from '../order/step-series.ts';
import { roundedDecimals, withinDigits } from '../order/within-digits.ts';
import { literalValue, numberNode, withNode } from './changed-method.ts';
import {
  type Change,
  holdsStep,
  stepChanges,
  storedText,
  structuralChanges,
  sumsOf,
  vectorNames,
} from './changes.ts';
import { bracketed, shortFraction } from './fraction-text.ts';
import { unusedNames } from './other-slips.ts';

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
const MAX_TRIED = 150;
/** Stages of a text of which changes are tried: each is proved, and a proof takes longer with every stage. */
const MAX_STAGES = 16;

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

/** A changed text as a form, in doubles; null where it is no form any more. */
function formIn(method: Method): LinearMethod | null {
  const linear = readLinear(method, inexactly);
  return 'why' in linear || !hasConsistentPowers(linear) ? null : linear;
}

/** What a condition has in a form; null where it asks nothing of it. */
function conditionOf(linear: LinearMethod, { tree, order }: Condition): number | null {
  if (tree !== null) return stepSeries(linear).of(tree).value;
  return isOnSolution(linear) ? factorOfPower(linear, order).value.value : null;
}

/** What a condition has in a changed text, in doubles; null where the text is no form any more. */
function conditionIn(method: Method, condition: Condition): number | null {
  const linear = formIn(method);
  return linear && conditionOf(linear, condition);
}

/** A number of the text with its inverse below a fraction, and the method with it lower, as it is, and higher. */
interface Samples {
  readonly u: number;
  readonly du: number;
  readonly scale: (x: number) => number;
  readonly forms: readonly [LinearMethod, LinearMethod, LinearMethod];
}

function samplesOf(method: Method, { node, value, make, below }: Literal): Samples | null {
  // a number below a fraction enters by its inverse
  const scale = below ? (x: number): number => 1 / x : (x: number): number => x;
  const u = scale(value);
  const du = Math.max(Math.abs(u), 0.25) / 8;
  const [a, b, c] = [scale(u - du), value, scale(u + du)].map((x) => formIn(withNode(method, node, make(x))));
  return a == null || b == null || c == null ? null : { u, du, scale, forms: [a, b, c] };
}

/** Where what depends on one number of the text, as a polynomial of it, takes the value that it should have. */
function rootsFor(
  { u, du, scale, forms }: Samples,
  should: number,
  of: (form: LinearMethod) => number | null,
): readonly number[] {
  const [a, b, c] = forms.map(of);
  if (a == null || b == null || c == null) return [];
  const curve = (a - 2 * b + c) / (2 * du * du);
  const slope = (c - a) / (2 * du);
  const rest = b - should;
  if (Math.abs(curve) < 1e-12) return Math.abs(slope) > 1e-12 ? [scale(u - rest / slope)] : [];
  const inside = slope * slope - 4 * curve * rest;
  if (inside < 0) return [];
  return [1, -1].map((sign) => scale(u + (-slope + sign * Math.sqrt(inside)) / (2 * curve)));
}

/**
 * The order of a text, within the digits of its decimals; -1 where none is proved, or a first look in doubles shows none
 * above a given one.
 */
function orderOfText(text: string, above: number): number {
  const reading = parseMethod(text);
  if (!reading.ok) return -1;
  if (roundedDecimals(reading.value).length === 0 && roughOrder(reading.value) <= above) return -1;
  const linear = readLinear(reading.value);
  if ('why' in linear) return -1;
  const { best, problems } = provedOrders(linear);
  if (best === null) return -1;
  const proof = withinDigits(reading.value, linear, best, problems)?.proof ?? best;
  return proof.zero?.stable === false ? -1 : proof.order;
}

/** The order of a changed tree, in doubles: a first look. */
function roughOrder(method: Method): number {
  const linear = readLinear(method, inexactly);
  return 'why' in linear ? -1 : (provedOrders(linear).best?.order ?? -1);
}

/** What is tried: the method, its proof if it has one, and how high an order a formula like it can have. */
export interface Trial {
  readonly method: Method;
  readonly linear: LinearMethod;
  readonly proof: ProvedOrder | null;
  readonly suggested: SuggestedOrder;
}

function applied(method: Method, { at, text }: Change): string {
  return method.text.slice(0, at.from) + text + method.text.slice(at.to);
}

/** Highest rank of the changes that are tried first. */
const LIKELY = 1;

/** Orders by which a change must raise that of a text that does not come to the highest possible one. */
const MUCH = 2;

/** Whether so high an order is no accident: it is the highest that stages of this kind allow, or far above the present one. */
function isTelling(order: number, { proof, suggested }: Trial): boolean {
  if (proof === null) return order >= 1;
  return order > proof.order && (order >= suggested.usual || order >= proof.order + MUCH);
}

function nearMiss(method: Method, change: Change, order: number): NearMiss {
  const { from, to } = change.at;
  const written = method.text.slice(from, to).trim();
  const { line } = placeOf(lineStarts(method.text), from);
  const instead = change.text.trim();
  return {
    written,
    instead,
    order,
    message: `${instead} instead of ${written} in line ${line} gives order ${order}`,
    at: change.at,
    repair: { from, to, text: change.text },
  };
}

/**
 * Those changes whose text is proved to have a telling order: the highest orders first, and of these the likeliest. Less
 * likely changes are made only where none before them comes to what the stages suggest.
 */
function proved(trial: Trial, groups: readonly (() => readonly Change[])[]): readonly NearMiss[] {
  const texts = new Set<string>([trial.method.text]);
  const found: { readonly change: Change; readonly order: number }[] = [];
  for (const group of groups) {
    for (const change of group()) {
      const text = applied(trial.method, change);
      if (texts.has(text)) continue;
      texts.add(text);
      const order = orderOfText(text, trial.proof?.order ?? 0);
      if (isTelling(order, trial)) found.push({ change, order });
    }
    if (found.some(({ order }) => order >= trial.suggested.usual)) break;
  }
  const best = Math.max(...found.map(({ order }) => order));
  return found
    .filter(({ order }) => order === best)
    .sort((a, b) => a.change.rank - b.change.rank || a.change.at.from - b.change.at.from)
    .slice(0, MAX)
    .map(({ change, order }) => nearMiss(trial.method, change, order));
}

/** Conditions that fail that a number is tried on, one after another, until it has an effect on one. */
const MAX_CONDITIONS = 8;

/** What a number may be instead, so that a condition that fails is satisfied. */
function rootsOfConditions({ proof }: Trial, samples: Samples): readonly number[] {
  for (const condition of proof?.failing.slice(0, MAX_CONDITIONS) ?? []) {
    const roots = rootsFor(samples, condition.should.value, (form) => conditionOf(form, condition));
    if (roots.length > 0) return roots;
  }
  return [];
}

/** What a number may be instead, so that a value is moved as far as its time is. */
function rootsOfShifts({ linear }: Trial, samples: Samples): readonly number[] {
  return shiftsOf(linear).flatMap(({ moved, shift, stage }, i) => {
    if (stage.partial !== null || areEqual(moved, shift)) return [];
    return rootsFor(samples, 0, (form) => {
      const own = shiftsOf(form)[i];
      return own === undefined ? null : own.moved.value - own.shift.value;
    });
  });
}

/** Numbers of a text, each with the fraction that would satisfy what fails. */
function numberChanges(trial: Trial): readonly Change[] {
  const { method, linear, proof } = trial;
  const literals = [...literalsOf(method), ...bareSlopes(method, slopeNames(linear))];
  if (proof === null || literals.length > MAX_TRIED) return [];
  return literals.flatMap((literal) => {
    const samples = samplesOf(method, literal);
    if (samples === null) return [];
    return [...rootsOfConditions(trial, samples), ...rootsOfShifts(trial, samples)].flatMap(
      (root): readonly Change[] => {
        const { node, value } = literal;
        const short = shortFraction(root);
        const far = Math.abs(root - value) / Math.max(Math.abs(value), 0.25);
        const isOpposite = Math.abs(root + value) < 1e-9;
        if (short === null || (far > FARTHEST && !isOpposite) || far < 1e-9 || short.value === 0) return [];
        if (roughOrder(withNode(method, node, literal.make(short.value))) <= proof.order) return [];
        const text = bracketed(literal.written(short.text), method, node.at);
        return [{ at: node.at, text, rank: 2 }];
      },
    );
  });
}

function slopeNames({ stages }: LinearMethod): readonly string[] {
  return stages.flatMap(({ name: own }) => (own === null ? [] : [own]));
}

/** The places of the statements that give names, by name. */
function placesGiven({ statements }: Method): ReadonlyMap<string, number> {
  return new Map(
    statements.flatMap((statement, i) =>
      givenBy(statement).flatMap((one): readonly [string, number][] =>
        one.kind === 'name' ? [[one.name, i]] : [],
      ),
    ),
  );
}

/** Names of slopes, each with another that is known there and satisfies the condition that fails. */
function nameChanges({ method, proof }: Trial): readonly Change[] {
  const [condition] = proof?.failing ?? [];
  if (condition === undefined) return [];
  const slopes = [...vectorNames(method)];
  const given = placesGiven(method);
  const unused = unusedNames(method);
  const found: Change[] = [];
  method.statements.forEach((statement, i) => {
    for (const value of valuesOf(statement))
      walk(value, (node) => {
        if (node.kind !== 'name' || !slopes.includes(node.name)) return;
        for (const other of slopes) {
          const isKnown = (given.get(other) ?? Infinity) < i || statement.kind === 'solve';
          if (other === node.name || !isKnown) continue;
          // without its unused stages a text may ask other conditions
          const isSatisfied = (): boolean => {
            const changed = conditionIn(withNode(method, node, name(other, 0, node.at)), condition);
            return changed !== null && Math.abs(changed - condition.should.value) < 1e-9;
          };
          if (unused.has(other) || isSatisfied()) found.push({ at: node.at, text: other, rank: 1 });
        }
      });
  });
  return found;
}

/** A slope that a sum may lack, with the weight that satisfies the condition that fails. */
function droppedTerms({ method, proof }: Trial): readonly Change[] {
  const [condition] = proof?.failing ?? [];
  if (condition === undefined) return [];
  const slopes = [...vectorNames(method)];
  const hasHistory = method.depth > 0 || method.startWith !== null;
  const history = Array.from({ length: hasHistory ? method.depth + 2 : 0 }, (_, back) =>
    storedText('f', back),
  );
  const given = placesGiven(method);
  return sumsOf(method).flatMap(({ sum, held, statement }) => {
    const written = method.text.slice(sum.at.from, sum.at.to);
    const isBracketed = written.startsWith('(') && written.endsWith(')');
    const end = sum.at.to - (isBracketed ? 1 : 0);
    const candidates = [
      ...slopes.filter((slope) => (given.get(slope) ?? Infinity) < statement && !held.has(slope)),
      ...history.filter((slope) => !held.has(slope)),
    ];
    // a sum without a bracket holds values as well, and its slopes come with h
    const factor = isBracketed || !holdsStep(sum) ? '' : 'h*';
    return candidates.flatMap((slope): readonly Change[] => {
      const before = method.text.slice(sum.at.from, end);
      const changeBy = (weight: number, size: string): Change => {
        const multiple = size === '1' ? '' : `${size}*`;
        const text = `${before} ${weight < 0 ? '-' : '+'} ${multiple}${factor}${slope}`;
        return { at: { from: sum.at.from, to: end }, text, rank: 3 };
      };
      const [one, two] = [1, 2].map((weight) => {
        const reading = parseMethod(applied(method, changeBy(weight, String(weight))));
        return reading.ok ? conditionIn(reading.value, condition) : null;
      });
      if (one == null || two == null || Math.abs(two - one) < 1e-12) return [];
      const weight = 1 + (condition.should.value - one) / (two - one);
      const short = shortFraction(Math.abs(weight));
      return short === null || short.value === 0 ? [] : [changeBy(weight, short.text)];
    });
  });
}

/**
 * Single changes of a text that would raise its proved order to what its stages suggest: a number, a name, a time, an index,
 * two slopes exchanged, a sign, a forgotten term. Each is proved from the changed text before it is said.
 */
export function nearMisses(trial: Trial): readonly NearMiss[] {
  const { method, linear, proof } = trial;
  if (proof === null || proof.atLeast || proof.failing.length === 0) return [];
  if (linear.stages.length > MAX_STAGES) return [];
  const all = structuralChanges(method, linear);
  const structural = all.length > MAX_TRIED ? [] : all;
  return proved(trial, [
    () => [...structural.filter(({ rank }) => rank <= LIKELY), ...nameChanges(trial)],
    () => [...structural.filter(({ rank }) => rank > LIKELY), ...numberChanges(trial)],
    () => droppedTerms(trial),
  ]);
}

/** Changes of where h is, and with which power, that make every term measured alike. */
export function stepMisses(trial: Trial): readonly NearMiss[] {
  if (trial.linear.stages.length > MAX_STAGES) return [];
  return proved(trial, [() => stepChanges(trial.method)]);
}
