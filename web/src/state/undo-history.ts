/** A value with what it was before and, after an undo, what it was after. */
export interface UndoHistory<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
  /** What the last change was about, and when: changes about the same thing soon after one another are one. */
  readonly last: { readonly about: string; readonly at: number } | null;
}

const MAX_PAST = 200;
/** Milliseconds within which typing in one place counts as one change. */
const ONE_CHANGE = 1500;

export function startHistory<T>(present: T): UndoHistory<T> {
  return { past: [], present, future: [], last: null };
}

/** A change; `about` names what it touches, so that a run of keystrokes is undone at once. */
export function change<T>(history: UndoHistory<T>, present: T, about: string, at: number): UndoHistory<T> {
  if (present === history.present) return history;
  const goesOn = history.last !== null && history.last.about === about && at - history.last.at < ONE_CHANGE;
  const past = goesOn ? history.past : [...history.past, history.present].slice(-MAX_PAST);
  return { past, present, future: [], last: { about, at } };
}

export function undo<T>(history: UndoHistory<T>): UndoHistory<T> {
  const before = history.past.at(-1);
  if (before === undefined) return history;
  return {
    past: history.past.slice(0, -1),
    present: before,
    future: [history.present, ...history.future],
    last: null,
  };
}

export function redo<T>(history: UndoHistory<T>): UndoHistory<T> {
  const [after, ...future] = history.future;
  if (after === undefined) return history;
  return { past: [...history.past, history.present], present: after, future, last: null };
}
