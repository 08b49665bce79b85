import type { TitledMethod } from '../../compile/starting-chain.ts';
import { evaluationsPerStep, isImplicit } from '../../method/method.ts';
import { attempt } from '../../text/refusal.ts';
import { agrees, type KeptDigits } from '../kept-digits.ts';
import { rowAgrees } from '../row-verdicts.ts';
import type { StudentRow } from '../student-rows.ts';
import { runTrial, timeIn, type Trial } from '../trial-run.ts';
import type { Change, ChangedLine, MistakeKind } from './change.ts';
import { changedTrial, type FirstRows, knownRun } from './known-run.ts';
import { exactRow, isSmall, rowChanges, type RowsOfTrial } from './run-changes.ts';

/** A mistake that reproduces all rows of a student, to the digits given. */
export interface Mistake {
  /** Two kinds for two mistakes together. */
  readonly kinds: readonly MistakeKind[];
  /** The lines that are changed, in the order of the mistakes. */
  readonly lines: readonly ChangedLine[];
  /** Rows that it reproduces. */
  readonly explains: number;
  readonly sentence: string;
}

/** What the rows of a student are compared with. */
export interface MistakesOf extends RowsOfTrial {
  /** Other methods that may have been used, such as those of the study. */
  readonly methods: readonly TitledMethod[];
  readonly title: string;
  /** Whether mistakes are tried in pairs: not where most steps are right from the rows before them. */
  readonly inPairs: boolean;
  readonly timeDigits: KeptDigits | null;
}

/** Most operations of runs that are tried in pairs: each has as many as its first wrong row needs. */
const MAX_WORK = 4_000_000;

/** Whether a run has all rows of a student, to the digits given. */
class Reproduction {
  readonly #of: MistakesOf;
  readonly #rows: ReadonlyMap<number, StudentRow>;
  readonly #last: number;

  constructor(of: MistakesOf) {
    this.#of = of;
    this.#rows = new Map(of.rows.map((row) => [row.n, row]));
    this.#last = Math.max(0, ...of.rows.map(({ n }) => n));
  }

  /** @param shift how many rows later a value is found in the run */
  by(trial: Trial, shift: number): boolean {
    const { digits, timeDigits } = this.#of;
    const until = this.#last + Math.max(0, shift);
    let left = this.#rows.size;
    const run = attempt(() =>
      runTrial({ ...trial, steps: until }, (row) => {
        const n = row.n - shift;
        const given = this.#rows.get(n);
        if (given === undefined) return n < this.#last;
        const t = timeIn(trial, n);
        if (!rowAgrees(given, { ...row, t }, digits, timeDigits)) return false;
        left -= 1;
        return n < this.#last;
      }),
    );
    // what cannot be run with a change is not what a student did
    return run.ok && left === 0;
  }

  /** Whether first rows of a run are those of the student, as far as both are there. */
  mayBe(first: FirstRows | undefined): boolean {
    if (first === undefined) return true;
    if (first === null) return false;
    const { digits, trial } = this.#of;
    const { size } = trial.problem;
    return first.every((value, i) => {
      const cell = this.#rows.get(1 + Math.floor(i / size))?.values[i % size];
      return cell == null || agrees(cell.value, value, digits);
    });
  }

  exact(): boolean {
    const exact = exactRow(this.#of.trial);
    const { rows, digits, timeDigits, trial } = this.#of;
    return (
      exact !== null &&
      rows.every((row) =>
        rowAgrees(
          row,
          { n: row.n, t: timeIn(trial, row.n), values: exact(row.n), stages: () => null },
          digits,
          timeDigits,
        ),
      )
    );
  }
}

/** What a change is, as a sentence: with its line beside it, where it is one of a text. */
function sentenceOf({ says, line }: Change): string {
  return line === null ? `${says}.` : `In line ${line.line} of the ${line.of}, ${says}: ${line.given}.`;
}

function mistakeOf(changes: readonly Change[], explains: number): Mistake {
  return {
    kinds: changes.map(({ kind }) => kind),
    lines: changes.flatMap(({ line }) => (line === null ? [] : [line])),
    explains,
    sentence: changes.map(sentenceOf).join(' '),
  };
}

/** Whether two changes are made in one run: of different places, and not of lines of a method that is another one. */
function goTogether(one: Change, other: Change): boolean {
  const isOfMethod = (change: Change): boolean =>
    change.line?.of === 'method' || change.kind === 'order of lines';
  const isOther = (change: Change): boolean => change.kind === 'method';
  return (
    one.place !== other.place && !(isOther(one) && isOfMethod(other)) && !(isOther(other) && isOfMethod(one))
  );
}

/** Pairs of frequent changes. */
function pairsOf(changes: readonly Change[]): readonly (readonly [Change, Change])[] {
  const frequent = changes.filter(({ isFrequent }) => isFrequent);
  return frequent.flatMap((one, i) =>
    frequent.slice(i + 1).flatMap((other) => (goTogether(one, other) ? [[one, other] as const] : [])),
  );
}

/** Operations of one step, about: those of an implicit one are done again and again. */
function workOf({ problem, methods: [method] }: Trial): number {
  if (method === undefined) return 1;
  const calls = evaluationsPerStep(method);
  const rounds = isImplicit(method) ? 10 * (1 + calls * problem.size) : 1;
  return rounds * calls * problem.size * 10;
}

/**
 * The mistakes that reproduce all rows of a student to the digits given: each of the catalogue alone, and where none does,
 * frequent ones in pairs. What does not reproduce the rows is not named.
 */
export function findMistakes(of: MistakesOf): readonly Mistake[] {
  const { trial, rows } = of;
  const [method] = trial.methods;
  if (rows.length === 0 || method === undefined || !isSmall(trial.problem)) return [];
  const reproduction = new Reproduction(of);
  const known = knownRun(trial, method, of.methods, of.title);
  const changes = [...known.changes, ...rowChanges(of)];
  const explained = (list: readonly Change[]): boolean => {
    if (!reproduction.mayBe(known.firstRows(list))) return false;
    const changed = changedTrial(trial, list);
    const shift = list.reduce((sum, one) => sum + one.shift, 0);
    return changed !== null && reproduction.by(changed, shift);
  };
  const alone = changes
    .filter((change) => explained([change]))
    .map((change) => mistakeOf([change], rows.length));
  const exact: readonly Mistake[] = reproduction.exact()
    ? [
        {
          kinds: ['exact values'],
          lines: [],
          explains: rows.length,
          sentence: 'The values are those of the exact solution.',
        },
      ]
    : [];
  const single = [...alone, ...exact];
  if (single.length > 0 || !of.inPairs) return single;
  const pairs = pairsOf(changes).slice(0, Math.ceil(MAX_WORK / workOf(trial)));
  return pairs.filter(explained).map((pair) => mistakeOf(pair, rows.length));
}
