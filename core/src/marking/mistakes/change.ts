import type { Trial } from '../trial-run.ts';

/** The kinds of mistakes that are looked for. */
export const MISTAKE_KINDS = [
  'missing h',
  'power of h',
  'time of a stage',
  'stage',
  'exchanged',
  'index',
  'coefficient',
  'weights',
  'sign',
  'missing term',
  'missing factor',
  'bracket',
  'power',
  'negative base',
  'name',
  'degrees',
  'logarithm',
  'integer division',
  'corrector',
  'order of lines',
  'time constant',
  'time ahead',
  'time in single precision',
  'single precision',
  'rounded rows',
  'one after the other',
  'together',
  'step size',
  'number of steps',
  'past the end',
  'initial value',
  'shifted rows',
  'method',
  'starting method',
  'exact values',
  'exact arguments',
] as const;

export type MistakeKind = (typeof MISTAKE_KINDS)[number];

/** A line of a text as it is and as it would be. */
export interface ChangedLine {
  readonly of: 'method' | 'problem';
  /** From 1. */
  readonly line: number;
  readonly given: string;
  readonly right: string;
}

/** One mistake: a change of the right run. */
export interface Change {
  readonly kind: MistakeKind;
  /** What it is, as a sentence without a full stop. */
  readonly says: string;
  /** The line that it changes; null for a change of the run. */
  readonly line: ChangedLine | null;
  /** Whether it is frequent enough to be tried together with others. */
  readonly isFrequent: boolean;
  /** Of the same text and place at most one change is made at once; changes of the run are distinguished by what they set. */
  readonly place: string;
  /** The run with the mistake; null where the mistake cannot be made in it. */
  readonly apply: (trial: Trial) => Trial | null;
  /** How many rows later a value of the run is written; 0 for all mistakes but shifted rows. */
  readonly shift: number;
}
