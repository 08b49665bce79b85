import { stepExpression, type Problem } from '@schritt/core/notation';
import { stepSizeText } from '@schritt/core/text';
import type { Grid, Rung } from '@schritt/core/study';
import type { ChosenStep } from '../state/study-state.ts';
import { labelled, placeOfSize, roundSizes, rulerScale, type RulerScale } from './scale.ts';

/** Pixels that a character of a label takes, about. */
const CHARACTER = 6.6;
/** Room at the left and the right end, in pixels. */
const ENDS = { left: 14, right: 30 };

/** A step size of the study on the ruler. */
export interface RulerMark {
  /** Its place in the list of step sizes. */
  readonly index: number;
  readonly grid: Grid;
}

/** A round step size, and whether there is room for its label. */
export interface RoundSize {
  readonly h: number;
  readonly isLabelled: boolean;
}

/** Everything that the ruler shows, in pixels. */
export interface RulerLayout {
  readonly scale: RulerScale;
  /** The finest first. */
  readonly order: readonly RulerMark[];
  readonly now: NonNullable<ChosenStep['now']>;
  /** Place of the chosen step size, and how that is written. */
  readonly here: number;
  readonly written: string;
  readonly round: readonly RoundSize[];
  /** Pegs whose number of steps is written. */
  readonly counted: ReadonlySet<number>;
}

function widthOf(text: string): number {
  return CHARACTER * text.length;
}

/** Step sizes of a study, the finest first. */
export function rulerMarks(rungs: readonly Rung[]): readonly RulerMark[] {
  return rungs
    .flatMap((rung, index) => (rung.ok ? [{ index, grid: rung.grid }] : []))
    .sort((a, b) => a.grid.h - b.grid.h);
}

/** The chosen step size as the part of the interval that it is, such as pi/8, or as a number. */
function writtenSize(problem: Problem | null, grid: Grid | null, now: RulerLayout['now']): string {
  const isWhole = grid !== null && grid.shorter === null && grid.divides;
  const part = problem === null || !isWhole ? null : stepExpression(problem, now.steps);
  return part?.isSymbolic === true ? part.text : stepSizeText(now.h);
}

/** The chosen number of steps is written in any case, the others where there is room. */
function countedMarks({ order, now, scale, here }: Omit<RulerLayout, 'counted'>): ReadonlySet<number> {
  const chosenFirst = [...order].sort((a, b) => Number(b.index === now.rung) - Number(a.index === now.rung));
  const between = now.rung === null ? [{ x: here, steps: now.steps }] : [];
  const all = [
    ...between,
    ...chosenFirst.map(({ grid }) => ({ x: placeOfSize(scale, grid.h), steps: grid.steps })),
  ];
  const isShown = labelled(
    all.map(({ x }) => x),
    all.map(({ steps }) => widthOf(String(steps)) + 4),
  ).slice(between.length);
  return new Set(chosenFirst.filter((_, i) => isShown[i] === true).map(({ index }) => index));
}

/** Lays the ruler out in a width; null where there is nothing to show. */
export function rulerLayout(
  { rungs, now, grid }: Pick<ChosenStep, 'rungs' | 'now' | 'grid'>,
  problem: Problem | null,
  width: number,
): RulerLayout | null {
  const order = rulerMarks(rungs);
  if (order.length === 0 || now === null) return null;
  const scale = rulerScale(
    order.map((mark) => mark.grid.h),
    ENDS.left,
    width - ENDS.right,
  );
  const here = placeOfSize(scale, now.h);
  const written = writtenSize(problem, grid, now);
  const sizes = roundSizes(scale);
  const isShown = labelled(
    [here, ...sizes.map((h) => placeOfSize(scale, h))],
    [widthOf(written), ...sizes.map((h) => widthOf(stepSizeText(h)))],
  ).slice(1);
  const round = sizes.map((h, i) => ({ h, isLabelled: isShown[i] === true }));
  const laid = { scale, order, now, here, written, round };
  return { ...laid, counted: countedMarks(laid) };
}
