import { derivative } from '../formula/derivative.ts';
import { type Expression, type IndexedLeaf, type NameLeaf, number } from '../formula/expression.ts';
import { type Complaints, PlaceError, type Span, writing } from '../text/place.ts';
import { primed } from '../text/primes.ts';
import type { Unknown } from './problem.ts';
import type { Statement } from './statement.ts';

/** What follows the name of an unknown where its exact solution is meant. */
const EXACT = /^_?(?:exact|ex|true|sol)$/;

/** Exact solutions by unknown and derivative; derivatives that are not given come by differentiation. */
export function readExact(
  statements: readonly Statement[],
  unknowns: readonly Unknown[],
  independent: string,
  complaints: Complaints,
): ReadonlyMap<string, Expression> {
  const exact = new Map<string, Expression>();
  const givenAt = new Map<string, Span>();
  for (const statement of statements) {
    if (statement.kind !== 'value') continue;
    const { argument, target, range } = statement;
    if (argument.kind !== 'name' || argument.name !== independent || argument.primes > 0) continue;
    const unknown = unknowns.find((u) => u.name === target.name);
    if (unknown === undefined) {
      const meant = unknowns.find(
        ({ name }) => EXACT.test(target.name.slice(name.length)) && target.name.startsWith(name),
      );
      if (meant === undefined)
        complaints.missing(
          target.at,
          `${target.name} has no equation; an exact solution belongs to an unknown`,
        );
      else
        complaints.add(
          target.at,
          `the exact solution is written with the name of its unknown: ${meant.name}(${independent}) = ...`,
          writing(target.at, meant.name),
        );
      continue;
    }
    if (target.primes >= unknown.order) {
      complaints.add(
        target.at,
        `give the exact solution for ${target.name} or a derivative below the highest one`,
      );
      continue;
    }
    const key = `${target.name}/${target.primes}`;
    if (exact.has(key))
      complaints.add(target.at, `the exact solution of ${primed(target.name, target.primes)} is given twice`);
    const value = complaints.attempt(() =>
      indexedAlike(statement.value, target.index, range?.variable ?? null, unknown),
    );
    if (value !== null) exact.set(key, value);
    givenAt.set(target.name, statement.at);
  }
  const time = (leaf: NameLeaf | IndexedLeaf): Expression =>
    number(leaf.kind === 'name' && leaf.name === independent && leaf.primes === 0 ? 1 : 0);
  for (const unknown of unknowns)
    for (let d = 1; d < unknown.order; d += 1) {
      const lower = exact.get(`${unknown.name}/${d - 1}`);
      if (lower === undefined || exact.has(`${unknown.name}/${d}`)) continue;
      const own = `${primed(unknown.name, d)}(${independent})`;
      const about = {
        at: givenAt.get(unknown.name) ?? lower.at,
        what: `${own}, made from this by differentiation,`,
        remedy: `give ${own} = ... on a line of its own`,
      };
      const value = complaints.attempt(() => derivative(lower, time, about));
      if (value !== null) exact.set(`${unknown.name}/${d}`, value);
    }
  return exact;
}

/** Checks that an exact solution of a family runs over the same index as its equation. */
function indexedAlike(
  value: Expression,
  index: Expression | null,
  variable: string | null,
  unknown: Unknown,
): Expression {
  const { range } = unknown;
  if (range === null) {
    if (index !== null) throw new PlaceError(index.at, `${unknown.name} is not a family and takes no index`);
    return value;
  }
  if (index?.kind !== 'name' || index.name !== range.variable || variable !== range.variable)
    throw new PlaceError(
      index?.at ?? value.at,
      `${unknown.name} is a family: write ${unknown.name}[${range.variable}](t) = ... for ${range.variable} = ${range.from}..${range.to}`,
    );
  return value;
}
