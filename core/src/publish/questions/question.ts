import { namesOf } from '../../text/names-of.ts';
import type { PlotData } from '../plot-data.ts';

/** Kinds of questions for learning platforms, with what they ask for. */
export const QUESTION_LABELS = {
  order: 'observed order',
  value: 'value after N steps',
  stage: 'a stage of a step',
  stable: 'largest stable step size',
  coefficient: 'wrong coefficient',
} as const;
export type QuestionKind = keyof typeof QUESTION_LABELS;
export const QUESTION_KINDS = namesOf(QUESTION_LABELS);

/** A piece of a sentence: words, or a formula in TeX. */
export type Segment = string | { readonly tex: string };

/** A line of a question: a sentence, a formula on a line of its own, or a plot. */
export type QuestionLine =
  | { readonly kind: 'sentence'; readonly segments: readonly Segment[] }
  | { readonly kind: 'formula'; readonly tex: string }
  | { readonly kind: 'plot'; readonly plot: PlotData };

/** A question with one number as its answer. */
export interface Question {
  readonly kind: QuestionKind;
  readonly name: string;
  readonly lines: readonly QuestionLine[];
  readonly answer: number;
  /** How far from the answer a number may be to be right. */
  readonly tolerance: number;
}

/** A sentence of words and formulas. */
export function sentence(...segments: readonly Segment[]): QuestionLine {
  return { kind: 'sentence', segments };
}
