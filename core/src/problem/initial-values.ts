import { elementName } from './problem.ts';
import { count } from '../text/number-text.ts';
import { measure } from '../formula/measure.ts';
import { evaluate } from '../formula/evaluate.ts';
import { type Complaints, PlaceError, type Span, writing } from '../text/place.ts';
import { Meanings, type Naming } from './meaning.ts';
import { constantValue } from './constant-value.ts';
import type { Block } from './problem.ts';
import type { Statement } from './statement.ts';

type Value = Statement & { readonly kind: 'value' };

/** Most operations for all initial values of a problem: 30 for each of 20,000 elements. */
const MAX_OPERATIONS = 600_000;

/** A problem that is being read: what its statements are and what they have given so far. */
export interface ProblemReading {
  readonly statements: readonly Statement[];
  /** Values of parameters. */
  readonly known: ReadonlyMap<string, number>;
  readonly textEnd: Span;
  readonly complaints: Complaints;
}

/** The initial values of all components; missing, doubled and misplaced ones are complained of. */
export function readInitialValues(
  { statements, known, textEnd, complaints }: ProblemReading,
  naming: Naming,
  start: number,
): readonly number[] {
  const initial: (number | undefined)[] = [];
  const meanings = new Meanings(naming);
  const blocks = new Map(naming.blocks.map((b) => [`${b.unknown.name}/${b.derivative}`, b]));
  let spent = 0;
  const spend = (operations: number, at: Span): void => {
    spent += operations;
    if (spent > MAX_OPERATIONS)
      throw new PlaceError(
        at,
        `the initial values take ${count(spent)} operations up to here; at most ${count(MAX_OPERATIONS)} are allowed`,
      );
  };
  for (const statement of statements) {
    if (statement.kind !== 'value') continue;
    const { argument } = statement;
    if (argument.kind === 'name' && argument.name === naming.independent) continue;
    complaints.attempt(() => {
      const block = blockOf(statement, blocks);
      if (block === null) {
        complaints.missing(
          statement.target.at,
          `${statement.target.name} has no equation; add a line ${statement.target.name}' = ...`,
        );
        return;
      }
      const at = constantValue(argument, known);
      if (Math.abs(at - start) > 1e-12 * Math.max(1, Math.abs(start)))
        throw new PlaceError(
          argument.at,
          `initial values belong to the start of the interval: write ${block.name}(${start})`,
          writing(argument.at, String(start)),
        );
      for (const [place, value] of valuesOf(statement, block, { meanings, known, spend })) {
        if (initial[place] !== undefined)
          throw new PlaceError(statement.target.at, `the initial value of ${block.name} is given twice`);
        initial[place] = value;
      }
    });
  }
  if (complaints.any) return naming.blocks.flatMap((block) => new Array<number>(block.size).fill(1));
  for (const block of naming.blocks)
    for (let k = 0; k < block.size; k += 1)
      if (initial[block.offset + k] === undefined) {
        const meant = meantFor(block, statements);
        if (meant === null) complaints.missing(textEnd, missing(block, k, start));
        else
          complaints.add(
            meant,
            `the initial value of ${block.name} is written ${block.name}(${start}) = ...`,
            writing(meant, `${block.name}(${start})`),
          );
        break;
      }
  return initial.map((value) => value ?? 1);
}

/**
 * Where a value was given that may be meant as the initial one: `y0 = 1`, `y_0 = 1`, `y[0] = 1`; null where none was.
 */
function meantFor(block: Block, statements: readonly Statement[]): Span | null {
  if (block.unknown.range !== null || block.derivative > 0) return null;
  for (const statement of statements) {
    if (statement.kind === 'parameter' && /^_?0$/.test(statement.name.slice(block.name.length)))
      if (statement.name.startsWith(block.name)) return statement.nameAt;
    if (statement.kind === 'given' && statement.target.name === block.name) return statement.target.at;
  }
  return null;
}

function missing(block: Block, k: number, start: number): string {
  const { range } = block.unknown;
  if (range === null)
    return `the initial value of ${block.name} is missing; add a line ${block.name}(${start}) = ...`;
  return (
    `the initial value of ${elementName(block, range.from + k)} is missing; ` +
    `add ${elementName(block, range.variable)}(${start}) = ... for ${range.variable} = ${range.from}..${range.to}`
  );
}

function blockOf(statement: Value, blocks: ReadonlyMap<string, Block>): Block | null {
  const { target } = statement;
  const block = blocks.get(`${target.name}/${target.primes}`);
  if (block !== undefined) return block;
  if (!blocks.has(`${target.name}/0`)) return null;
  throw new PlaceError(
    target.at,
    `initial values are given only for derivatives of ${target.name} below the highest one`,
  );
}

/** What reading a value takes. */
interface ValueReading {
  readonly meanings: Meanings;
  readonly known: ReadonlyMap<string, number>;
  /** Counts operations, until there are too many. */
  readonly spend: (operations: number, at: Span) => void;
}

/** The places and values that one statement gives: one, or a run of them for a range. */
function* valuesOf(
  statement: Value,
  block: Block,
  { meanings, known, spend }: ValueReading,
): Generator<readonly [number, number]> {
  const { target, range, value } = statement;
  const over = block.unknown.range;
  if (over === null) {
    if (target.index !== null || range !== null)
      throw new PlaceError(target.at, `${target.name} is not a family and takes no index`);
    yield [block.offset, constantValue(value, known)];
    return;
  }
  if (target.index === null)
    throw new PlaceError(target.at, `${target.name} is a family: write ${target.name}[${over.variable}]`);
  const variable = range?.variable ?? null;
  const from = range === null ? null : constantValue(range.from, known);
  const to = range === null ? null : constantValue(range.to, known);
  const first = from ?? constantValue(target.index, known);
  const last = to ?? first;
  if (range !== null && (target.index.kind !== 'name' || target.index.name !== variable))
    throw new PlaceError(target.index.at, `with this range the index must be ${range.variable} itself`);
  if (!Number.isSafeInteger(first) || !Number.isSafeInteger(last) || first < over.from || last > over.to)
    throw new PlaceError(
      range?.at ?? target.at,
      `the index of ${target.name} runs from ${over.from} to ${over.to}`,
    );
  spend(measure(value).terms * (last - first + 1), value.at);
  let position = first;
  const leaf = (node: Parameters<Parameters<typeof evaluate>[1]>[0]): number => {
    if (node.kind !== 'name') throw new PlaceError(node.at, 'only numbers and parameters are allowed here');
    const meaning = meanings.of(node, variable);
    if (meaning.kind === 'position') return position;
    if (meaning.kind === 'constant') return meaning.value;
    throw new PlaceError(node.at, `${node.name} is not allowed in an initial value`);
  };
  for (; position <= last; position += 1) {
    const number = evaluate(value, leaf);
    if (!Number.isFinite(number))
      throw new PlaceError(
        value.at,
        `at ${variable ?? 'this index'} = ${position} this is not a finite number`,
      );
    yield [block.offset + position - over.from, number];
  }
}
