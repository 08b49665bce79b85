import { type Amount, type Ladder, layLadder, type StudyDocument, type TitledText } from '@schritt/core';

/** A method under work, with a key that stays its own when methods are added, moved or removed. */
export interface WorkingMethod extends TitledText {
  readonly key: string;
}

/** A study under work. */
export interface WorkingStudy extends Omit<StudyDocument, 'methods'> {
  readonly methods: readonly WorkingMethod[];
}

let keys = 0;

export function newKey(): string {
  keys += 1;
  return `m${keys}`;
}

export function workOn(document: StudyDocument): WorkingStudy {
  return { ...document, methods: document.methods.map((method) => ({ ...method, key: newKey() })) };
}

export function documentOf(study: WorkingStudy): StudyDocument {
  return { ...study, methods: study.methods.map(({ title, text }) => ({ title, text })) };
}

/** The step sizes of a ladder as a list that can be added to. */
function amounts(ladder: Ladder): readonly Amount[] {
  if ('steps' in ladder) return ladder.steps;
  if ('intervals' in ladder) return ladder.intervals;
  return Array.from({ length: ladder.rungs }, (_, i) =>
    typeof ladder.first === 'number'
      ? ladder.first / ladder.factor ** i
      : i === 0
        ? ladder.first
        : `(${ladder.first})/${ladder.factor ** i}`,
  );
}

/** The ladder with one rung more at its fine end: the last ratio of step sizes once again. */
export function withFinerRung(ladder: Ladder): Ladder {
  if ('first' in ladder) return { ...ladder, rungs: ladder.rungs + 1 };
  if ('intervals' in ladder) {
    const [before = 1, last = 10] = [ladder.intervals.at(-2), ladder.intervals.at(-1)];
    const factor = ladder.intervals.length > 1 && last > before ? last / before : 2;
    return { intervals: [...ladder.intervals, Math.round(last * factor)] };
  }
  const sizes = layLadder(ladder, 0, 1, 'overrun').flatMap((rung) => (rung.ok ? [rung.grid.wished] : []));
  const [before, last] = [sizes.at(-2), sizes.at(-1) ?? 0.1];
  const factor = before !== undefined && before > last ? before / last : 2;
  return { steps: [...ladder.steps, Number((last / factor).toPrecision(15))] };
}

/** The ladder without one of its rungs; a regular ladder becomes a list where it must. */
export function withoutRung(ladder: Ladder, index: number): Ladder {
  if ('first' in ladder && index === ladder.rungs - 1 && ladder.rungs > 1)
    return { ...ladder, rungs: ladder.rungs - 1 };
  const list = amounts(ladder).filter((_, i) => i !== index);
  return 'intervals' in ladder ? { intervals: list.map(Number) } : { steps: list };
}
