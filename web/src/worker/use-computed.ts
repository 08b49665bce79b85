import { useCallback, useEffect, useRef, useState } from 'react';
import { Computer, Superseded } from './computer.ts';

/** A question to a worker of one's own; it may tell which part of the work is done. */
export type Ask<T> = (computer: Computer, progress: (part: number) => void) => Promise<T>;

/** A computed value: the last that came, how far a newer one is, and what went wrong. */
export interface Computed<T> {
  readonly value: T | null;
  /** The part of the work under way that is done; null where none is under way. */
  readonly part: number | null;
  readonly why: string | null;
  /** Ends the work under way; the last value stays. */
  readonly cancel: () => void;
}

/** Asks whenever the question changes; the last answer stays until the next one is there. */
export function useComputed<T>(ask: Ask<T> | null): Computed<T> {
  const [state, setState] = useState<Omit<Computed<T>, 'cancel'>>({ value: null, part: 0, why: null });
  const computer = useRef<Computer | null>(null);
  useEffect(
    () => () => {
      computer.current?.close();
      computer.current = null;
    },
    [],
  );
  useEffect(() => {
    if (ask === null) return;
    computer.current ??= new Computer();
    const progress = (part: number): void => setState((now) => ({ ...now, part }));
    const slow = setTimeout(() => progress(0), 150);
    ask(computer.current, (part) => {
      clearTimeout(slow);
      progress(part);
    })
      .then((value) => setState({ value, part: null, why: null }))
      .catch((thrown: unknown) => {
        if (thrown instanceof Superseded) return;
        setState((now) => ({
          ...now,
          part: null,
          why: thrown instanceof Error ? thrown.message : String(thrown),
        }));
      })
      .finally(() => clearTimeout(slow));
  }, [ask]);
  const cancel = useCallback(() => {
    computer.current?.cancel();
    setState((now) => ({ ...now, part: null, why: 'cancelled' }));
  }, []);
  return { ...state, cancel };
}
