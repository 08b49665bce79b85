import { useCallback, useEffect, useRef, useState } from 'react';
import { change, type UndoHistory, redo, startHistory, undo } from './undo-history.ts';

export interface Editing<T> {
  readonly value: T;
  /** Makes a change; `about` names what it touches. */
  readonly edit: (about: string, make: (value: T) => T) => void;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && target.closest('input, textarea, [contenteditable="true"]') !== null
  );
}

/**
 * A value with undo and redo, also by Ctrl+Z and Ctrl+Shift+Z outside of text fields.
 *
 * @param onChange told of every change before anything is rendered or computed from it
 */
export function useHistory<T>(first: T, onChange?: (value: T) => void): Editing<T> {
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
