import { useCallback, useEffect, useRef, useState } from 'react';
import { isTyping } from '../frame/is-typing.ts';
import type { HistoryKeeper } from './kept-history.ts';
import { change, type UndoHistory, redo, startHistory, undo } from './undo-history.ts';

export interface Editing<T> {
  readonly value: T;
  /** Makes a change; `about` names what it touches. */
  readonly edit: (about: string, make: (value: T) => T) => void;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
}

/** Milliseconds after a change until the history is kept. */
const WAIT = 400;

/** Keeps the history a moment after a change, and at once when the page is left. */
function useKeeping<T>(history: UndoHistory<T>, keeper: HistoryKeeper<T> | null): void {
  const due = useRef<UndoHistory<T> | null>(null);
  const keep = useCallback(() => {
    if (due.current !== null) void keeper?.keep(due.current);
    due.current = null;
  }, [keeper]);
  useEffect(() => {
    if (history.past.length === 0 && history.future.length === 0) return undefined;
    due.current = history;
    const timer = setTimeout(keep, WAIT);
    return () => clearTimeout(timer);
  }, [history, keep]);
  useEffect(() => {
    window.addEventListener('pagehide', keep);
    return () => {
      window.removeEventListener('pagehide', keep);
      keep();
    };
  }, [keep]);
}

/**
 * A value with undo and redo, also by Ctrl+Z and Ctrl+Shift+Z outside of text fields.
 *
 * @param onChange called with every change before anything is rendered or computed from it
 * @param keeper keeps the history when the page is left; what was undone or can be undone is there again afterwards
 */
export function useHistory<T>(
  first: T,
  onChange?: (value: T) => void,
  keeper: HistoryKeeper<T> | null = null,
): Editing<T> {
  const [history, setHistory] = useState<UndoHistory<T>>(() => startHistory(first));
  const latest = useRef(history);
  const told = useRef(onChange);
  useEffect(() => {
    told.current = onChange;
  }, [onChange]);
  const move = useCallback((next: UndoHistory<T>) => {
    if (next === latest.current) return;
    latest.current = next;
    told.current?.(next.present);
    setHistory(next);
  }, []);
  const edit = useCallback(
    (about: string, make: (value: T) => T) =>
      move(change(latest.current, make(latest.current.present), about, Date.now())),
    [move],
  );
  useKeeping(history, keeper);
  useEffect(() => {
    let isHere = true;
    const shown = latest.current;
    void keeper?.load(shown.present).then((kept) => {
      // what was changed in the meantime has begun a history of its own
      if (!isHere || kept === null || latest.current !== shown) return;
      latest.current = kept;
      setHistory(kept);
    });
    return () => {
      isHere = false;
    };
  }, [keeper]);
  const goBack = useCallback(() => move(undo(latest.current)), [move]);
  const goOn = useCallback(() => move(redo(latest.current)), [move]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || isTyping(event.target)) return;
      const key = event.key.toLowerCase();
      if (key === 'z' && !event.shiftKey) goBack();
      else if (key === 'y' || (key === 'z' && event.shiftKey)) goOn();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [goBack, goOn]);
  return {
    value: history.present,
    edit,
    undo: history.past.length > 0 ? goBack : null,
    redo: history.future.length > 0 ? goOn : null,
  };
}
