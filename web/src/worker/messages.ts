import type { StudyDocument, ExportRequest } from '@schritt/core/document';
import type {
  Box,
  Complex,
  EdgeSegment,
  Inspection,
  MethodSlips,
  Stability,
  TestBench,
} from '@schritt/core/inspect';
import type { Method, ParameterValues, Problem, Reading } from '@schritt/core/notation';
import type {
  Curves,
  LocalErrors,
  MethodRun,
  Portrait,
  Row,
  RungRun,
  RunToDraw,
  Stroke,
  StudyResult,
  TruthCurve,
  StepsForError,
  GridRequest,
  WorkedStep,
} from '@schritt/core/study';
import type { MethodFacts } from './method-facts.ts';
import type { ExportedFile } from './exported-file.ts';
import type { MarkingAnswers, MarkingQuestions } from './marking-answers.ts';

/** All elements of a family at one grid point. */
export interface Profile {
  readonly name: string;
  readonly indices: readonly number[];
  readonly t: number;
  /** One a method; null where its run does not come that far. */
  readonly methods: readonly (readonly number[] | null)[];
  readonly truth: TruthCurve | null;
  /** Steps of the run. */
  readonly steps: number;
}

/** Which family, at which grid point of which step size. */
export interface ProfileRequest {
  readonly gridRequest: GridRequest;
  readonly n: number;
  /** Place of the family among those of the problem. */
  readonly family: number;
}

/** What is to be seen of a problem beyond its text. */
export interface ProblemView {
  readonly portrait: Portrait;
  /** What came of putting the exact solution into the equations; null where none is given. */
  readonly check: { readonly satisfied: boolean; readonly sentence: string } | null;
  /** What came of comparing derivatives typed by hand with those made from the right-hand sides. */
  readonly typed: readonly { readonly satisfied: boolean; readonly sentence: string }[];
}

/** A window of the steps of one run, as a table shows them. */
export interface RowsWindow {
  /** Names of the columns behind n and t: components, their slopes, stages, conserved quantities. */
  readonly components: readonly string[];
  readonly slopes: readonly string[];
  readonly stages: readonly string[];
  readonly conserved: readonly string[];
  /** What the exact values of each component are: a reference where no exact solution is given; null without any. */
  readonly truths: readonly (TruthCurve['kind'] | null)[];
  readonly rows: readonly Row[];
  /** The errors of the steps that start in the rows; none for a method without an embedded formula. */
  readonly localErrors: readonly (LocalErrors | null)[];
  /** Steps of the whole run. */
  readonly steps: number;
  /** Where and why the run became non-finite within this window; null where it did not. */
  readonly stopped: string | null;
}

/** Which window of which run. */
export interface RowsRequest {
  readonly method: number;
  readonly gridRequest: GridRequest;
  readonly from: number;
  readonly count: number;
  /** Every which row is shown, 1 for all. */
  readonly every: number;
  /** The grid points that are shown instead, in their order; null for a window. */
  readonly points: readonly number[] | null;
}

/** Which rows of all methods side by side. */
export interface SideRequest extends Omit<RowsRequest, 'method'> {
  /** The components that are shown, by place. */
  readonly components: readonly number[];
  /** Whether stages are shown, too. */
  readonly stages: boolean;
}

/** The digits of one method in a row: of the components that are shown, and of the stages. */
export interface SideDigits {
  readonly values: readonly (string | null)[];
  readonly stages: readonly (string | null)[];
  /** Values less the exact ones. */
  readonly errors: readonly (number | null)[];
}

/** One grid point with the values of every method; empty where a method has none. */
export interface SideRow {
  readonly n: number;
  readonly t: number;
  /** By component. */
  readonly exact: readonly (number | null)[];
  /** By method, then by component. */
  readonly values: readonly (readonly (number | null)[])[];
  /** By method, all digits of the row, where the method is run in decimals. */
  readonly digits: readonly (SideDigits | null)[];
  /** By method, then by stage. */
  readonly stages: readonly (readonly (number | null)[])[];
  /** The first conserved quantity for every method; null where there is none. */
  readonly conserved: readonly (number | null)[];
}

/** Rows of all methods side by side. */
export interface SideRows {
  readonly components: readonly string[];
  /** What the exact values of each component are; null where none is known. */
  readonly truths: readonly (TruthCurve['kind'] | null)[];
  /** Headings of the stages of each method. */
  readonly stages: readonly (readonly string[])[];
  readonly rows: readonly SideRow[];
  /** Steps of the longest run. */
  readonly steps: number;
  /** Where and why each method became non-finite within these rows; null where it did not. */
  readonly stopped: readonly (string | null)[];
}

/** Which step of which run, and of which component. */
export interface StepRequest {
  readonly method: number;
  readonly gridRequest: GridRequest;
  readonly n: number;
  readonly component: number;
}

/** One step computed, and what is drawn around it. */
export interface StepView {
  readonly worked: WorkedStep;
  /** Steps of the whole run. */
  readonly steps: number;
  readonly method: number;
  readonly component: number;
  /** The direction field around the step, for a problem of one component. */
  readonly field: readonly Stroke[];
}

/** What of the stability of a method is asked for. */
export interface RegionRequest {
  readonly text: string;
  /** Methods whose regions are drawn together with its own; none for an order star. */
  readonly others: readonly string[];
  readonly isStar: boolean;
}

/** The stability region of a method in the complex plane, or its order star. */
export interface Region {
  readonly isStar: boolean;
  readonly polynomial: Stability['polynomial'];
  readonly box: Box;
  readonly edge: readonly EdgeSegment[];
  /** Lines through the places at which it is stable, or through those of the order star. */
  readonly hatching: readonly EdgeSegment[];
  /** The edges of the regions of others, by their texts, as far as they are known. */
  readonly others: readonly { readonly text: string; readonly edge: readonly EdgeSegment[] }[];
}

/** Eigenvalues of the Jacobian along the solution of a problem; none for larger systems. */
export interface Spectrum {
  readonly eigenvalues: readonly Complex[];
  /**
   * The largest h at which no motion that dies away, or swings, grows; null where none is known, Infinity for no end.
   */
  readonly largestStep: number | null;
}

/** What a worker is asked, by kind. */
export interface Questions extends MarkingQuestions {
  /** Run one method over the whole ladder. */
  readonly method: { readonly document: StudyDocument; readonly method: number };
  /**
   * Run all methods of a study but those that are known, and say what the runs mean; one that is estimated to take more
   * than some seconds is only estimated.
   */
  readonly whole: {
    readonly document: StudyDocument;
    readonly known: readonly (MethodRun | null)[];
    readonly maxSeconds: number;
  };
  /** Say what runs mean; nothing is run again. */
  readonly conclude: { readonly document: StudyDocument; readonly runs: readonly MethodRun[] };
  readonly rows: { readonly document: StudyDocument; readonly window: RowsRequest };
  readonly side: { readonly document: StudyDocument; readonly window: SideRequest };
  readonly step: { readonly document: StudyDocument; readonly step: StepRequest };
  readonly curves: { readonly document: StudyDocument; readonly runs: readonly RunToDraw[] };
  readonly profile: { readonly document: StudyDocument; readonly profile: ProfileRequest };
  readonly limits: { readonly document: StudyDocument };
  readonly readProblem: { readonly text: string };
  readonly readMethod: { readonly text: string };
  /** What can be proved of one method. */
  readonly inspection: { readonly text: string };
  readonly slips: { readonly text: string };
  /** What is proved of the orders of methods. */
  readonly proved: { readonly texts: readonly string[] };
  /** What a list tells of methods. */
  readonly facts: { readonly texts: readonly string[] };
  readonly problem: { readonly text: string; readonly parameters: ParameterValues };
  /** The edge of the stability region of a method. */
  readonly region: RegionRequest;
  /** Eigenvalues of the problem along its solution, and what they mean for a method. */
  readonly spectrum: { readonly document: StudyDocument; readonly method: number };
  /** A method on a battery of problems with known solutions. */
  readonly bench: { readonly text: string };
  /** Which steps theory asks for a target error, and what runs with them come to. */
  readonly wished: { readonly document: StudyDocument; readonly targetError: number };
  /** Something to export: a run, a sheet, a plot, formulas, a handout. */
  readonly taken: { readonly document: StudyDocument; readonly request: ExportRequest };
}

/** What it answers, by the kind of the question. */
export interface Answers extends MarkingAnswers {
  readonly method: MethodRun;
  readonly whole:
    | { readonly kind: 'done'; readonly runs: readonly MethodRun[]; readonly result: StudyResult }
    | { readonly kind: 'long'; readonly seconds: number };
  readonly conclude: StudyResult;
  readonly rows: RowsWindow;
  readonly side: SideRows;
  readonly step: StepView;
  readonly curves: Curves;
  readonly profile: Profile;
  /** Per method the largest h at which its runs do not grow; null where none is known. */
  readonly limits: readonly (number | null)[];
  readonly readProblem: Reading<Problem>;
  readonly readMethod: Reading<Method>;
  readonly inspection: Inspection;
  readonly slips: MethodSlips;
  /** One a text, in a few words; null where none is proved. */
  readonly proved: readonly (string | null)[];
  readonly facts: readonly (MethodFacts | null)[];
  readonly problem: ProblemView;
  readonly region: Region | null;
  readonly spectrum: Spectrum;
  readonly bench: TestBench;
  readonly wished: readonly (StepsForError | null)[];
  readonly taken: ExportedFile;
}

export type Kind = keyof Questions;

/** A question on its way to a worker. */
export type WorkerRequest = {
  readonly [K in Kind]: { readonly id: number; readonly kind: K; readonly question: Questions[K] };
}[Kind];

/** An answer on its way back. */
export interface Done<K extends Kind> {
  readonly id: number;
  readonly kind: K;
  readonly answer: Answers[K];
}

/** What comes back; a failure is a fault of the program, or a refusal. */
export type Message =
  | { readonly [K in Kind]: Done<K> }[Kind]
  /** A progress report: the part of the work that is done, and rungs that were finished since the last one. */
  | {
      readonly id: number;
      readonly kind: 'progress';
      readonly part: number;
      readonly finished: readonly RungRun[];
    }
  | { readonly id: number; readonly kind: 'failed'; readonly why: string };
