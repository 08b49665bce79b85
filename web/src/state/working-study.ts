import { type ParameterValues, type Problem, writeParameters } from '@schritt/core/notation';
import { rounded } from '@schritt/core/text';
import {
  type ArithmeticFields,
  arithmeticFields,
  type MethodInStudy,
  type StudyDocument,
} from '@schritt/core/document';
import type { HistoryForm } from './kept-history.ts';
import { type Amount, type Ladder, layLadder } from '@schritt/core/study';

/** A method under work, with a key that stays its own when methods are added, moved or removed. */
export interface WorkingMethod extends MethodInStudy {
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

/** Studies under work from documents that were stored with the keys of their methods: the same keys are the same methods. */
export const STUDY_HISTORY: HistoryForm<WorkingStudy, StudyDocument> = {
  write: (study) => ({ document: documentOf(study), keys: study.methods.map(({ key }) => key) }),
  reader: (present, shown) => {
    // keys are those of this page, where others have been given since
    const own = new Map(present.keys.map((key, i) => [key, shown.methods[i]?.key ?? newKey()]));
    return ({ document, keys }) => ({
      ...document,
      methods: document.methods.map((method, i) => {
        const kept = keys[i] ?? '';
        const key = own.get(kept) ?? newKey();
        own.set(kept, key);
        return { ...method, key };
      }),
    });
  },
};

/** A method as a file holds it: without its key, and without what says nothing. */
export function inStudy({ title, text, struck = [], window, ...arithmetic }: MethodInStudy): MethodInStudy {
  return {
    title,
    text,
    ...(struck.length === 0 ? {} : { struck }),
    ...(window === undefined ? {} : { window }),
    ...arithmeticFields(arithmetic),
  };
}

/** A study or a method with another arithmetic; without any field for what a file leaves out. */
export function withArithmetic<T extends ArithmeticFields>(
  { precision: _, rounding: __, rounded: ___, ...rest }: T,
  fields: ArithmeticFields,
): Omit<T, keyof ArithmeticFields> & ArithmeticFields {
  return { ...rest, ...fields };
}

export function documentOf(study: WorkingStudy): StudyDocument {
  return {
    ...study,
    methods: study.methods.map((method) => inStudy(method)),
  };
}

/** The step sizes of a ladder as a list that can be added to. */
function amounts(ladder: Ladder): readonly Amount[] {
  if ('sizes' in ladder) return ladder.sizes;
  if ('counts' in ladder) return ladder.counts;
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
  if ('counts' in ladder) {
    const [before = 1, last = 10] = [ladder.counts.at(-2), ladder.counts.at(-1)];
    const factor = ladder.counts.length > 1 && last > before ? last / before : 2;
    return { counts: [...ladder.counts, Math.round(last * factor)] };
  }
  const sizes = layLadder(ladder, 0, 1, 'overrun').flatMap((rung) => (rung.ok ? [rung.grid.wished] : []));
  const [before, last] = [sizes.at(-2), sizes.at(-1) ?? 0.1];
  const factor = before !== undefined && before > last ? before / last : 2;
  return { sizes: [...ladder.sizes, rounded(last / factor, 15)] };
}

/** The ladder without one of its rungs; a regular ladder becomes a list where it must. */
export function withoutRung(ladder: Ladder, index: number): Ladder {
  if ('first' in ladder && index === ladder.rungs - 1 && ladder.rungs > 1)
    return { ...ladder, rungs: ladder.rungs - 1 };
  const list = amounts(ladder).filter((_, i) => i !== index);
  return 'counts' in ladder ? { counts: list.map(Number) } : { sizes: list };
}

/** Number of rungs of a ladder. */
function rungCount(ladder: Ladder): number {
  if ('first' in ladder) return ladder.rungs;
  return 'sizes' in ladder ? ladder.sizes.length : ladder.counts.length;
}

/** The study without one rung of its ladder; strikes and windows of other rungs stay with them. */
export function withoutRungAt(study: WorkingStudy, rung: number): WorkingStudy {
  const place = (other: number): number => (other > rung ? other - 1 : other);
  return {
    ...withLadder(study, withoutRung(study.ladder, rung)),
    methods: study.methods.map(({ struck, window, ...method }) => ({
      ...method,
      ...(struck === undefined ? {} : { struck: struck.filter((other) => other !== rung).map(place) }),
      ...(window === undefined || window.from === window.to
        ? {}
        : { window: { from: place(window.from), to: window.to >= rung ? window.to - 1 : window.to } }),
    })),
  };
}

/**
 * The study with one rung more, between those that are there by its size; strikes and windows stay with their rungs.
 */
export function withRungOf(study: WorkingStudy, steps: number, length: number): WorkingStudy {
  const { ladder } = study;
  const h = length / steps;
  const sizes = layLadder(ladder, 0, length, 'overrun').map((rung) => (rung.ok ? rung.grid.wished : 0));
  const found = sizes.findIndex((size) => size < h);
  const place = found < 0 ? sizes.length : found;
  const inserted = <T>(list: readonly T[], item: T): readonly T[] => [
    ...list.slice(0, place),
    item,
    ...list.slice(place),
  ];
  const moved = (rung: number): number => (rung >= place ? rung + 1 : rung);
  return {
    ...study,
    ladder:
      'counts' in ladder
        ? { counts: inserted(ladder.counts, steps) }
        : { sizes: inserted(amounts(ladder), h) },
    methods: study.methods.map(({ struck, window, ...method }) => ({
      ...method,
      ...(struck === undefined ? {} : { struck: struck.map(moved) }),
      ...(window === undefined ? {} : { window: { from: moved(window.from), to: moved(window.to) } }),
    })),
  };
}

/** The study with another ladder; strikes and windows beyond its rungs go. */
export function withLadder(study: WorkingStudy, ladder: Ladder): WorkingStudy {
  const count = rungCount(ladder);
  return {
    ...study,
    ladder,
    methods: study.methods.map(({ struck, window, ...method }) => ({
      ...method,
      ...(struck === undefined ? {} : { struck: struck.filter((rung) => rung < count) }),
      ...(window === undefined || window.to >= count ? {} : { window }),
    })),
  };
}

/** A method with a rung excluded or included. */
export function strike(method: WorkingMethod, rung: number): WorkingMethod {
  const { struck = [] } = method;
  return {
    ...method,
    struck: struck.includes(rung)
      ? struck.filter((other) => other !== rung)
      : [...struck, rung].sort((a, b) => a - b),
  };
}

/** A window whose nearer end was moved to a rung; an end that is moved to itself lets that rung go. */
export function movedWindow(
  { from, to }: { readonly from: number; readonly to: number },
  rung: number,
): { readonly from: number; readonly to: number } {
  if (rung < from) return { from: rung, to };
  if (rung > to) return { from, to: rung };
  if (to - from < 2) return { from, to };
  if (rung - from < to - rung) return { from: rung === from ? from + 1 : rung, to };
  return { from, to: rung === to ? to - 1 : rung };
}

/** The study with other values for parameters of its problem; as it is where its text is not read as a problem. */
export function withParameters(
  study: WorkingStudy,
  problem: Problem | null,
  values: ParameterValues,
): WorkingStudy {
  if (problem === null || Object.keys(values).length === 0) return study;
  return { ...study, problem: { ...study.problem, text: writeParameters(problem, values) } };
}
