import type { ErrorChoice } from '../study/runs/error-choice.ts';
import type { Ladder } from '../study/runs/ladder.ts';
import type { LastStep } from '../run/grid.ts';
import type { Precision } from '../compile/precision.ts';

/** A text with a title: a problem or a method inside a study. */
export interface TitledText {
  readonly title: string;
  readonly text: string;
}

/** A problem or a method as a file of its own. */
export interface ProblemDocument extends TitledText {
  readonly schritt: 1;
  readonly kind: 'problem';
}

export interface MethodDocument extends TitledText {
  readonly schritt: 1;
  readonly kind: 'method';
}

/** A method inside a study, with what a person decided about its rungs, counted from 0. */
export interface MethodInStudy extends TitledText {
  /** Rungs of the ladder that do not count for its order. */
  readonly struck?: readonly number[];
  /** First and last rung that count; without it the rules choose. */
  readonly window?: { readonly from: number; readonly to: number };
}

/** A study as a file: it holds its own copies of the texts. */
export interface StudyDocument {
  readonly schritt: 1;
  readonly kind: 'study';
  readonly title: string;
  readonly problem: TitledText;
  readonly methods: readonly MethodInStudy[];
  readonly ladder: Ladder;
  readonly lastStep?: LastStep;
  readonly error?: ErrorChoice;
  /** What does the first steps of formulas that reach back, instead of what they name: a method, or "exact". */
  readonly start?: string;
  /** `single` rounds every operation to 32 bits. */
  readonly precision?: Precision;
  /** The error at which the costs of methods are compared; without it one that all of them reach. */
  readonly wished?: number;
}

export type Document = StudyDocument | ProblemDocument | MethodDocument;

/** What is wrong with a file, at a place such as `methods[1].text`, or a line and column where it is no JSON. */
export interface DocumentError {
  readonly place: string;
  readonly message: string;
}

export type DocumentReading =
  | { readonly ok: true; readonly document: Document }
  | { readonly ok: false; readonly errors: readonly DocumentError[] };

/** Most methods of a study. */
export const MOST_METHODS = 24;
/** Longest title. */
export const LONGEST_TITLE = 200;
