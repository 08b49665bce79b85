import { useEffect, useRef, useState } from 'react';
import { Computer, Superseded } from './computer.ts';

/** A computed value: the last that came, whether a newer one is under way, and what went wrong. */
export interface Computed<T> {
  readonly value: T | null;
  readonly busy: boolean;
  readonly why: string | null;
}

/** A question to a worker of one's own. */
export type Ask<T> = (computer: Computer) => Promise<T>;

/** Asks whenever the question changes; the last answer stays until the next one is there. */
export function useComputed<T>(ask: Ask<T> | null): Computed<T> {
  const [state, setState] = useState<Computed<T>>({ value: null, busy: true, why: null });
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
    const slow = setTimeout(() => setState((now) => ({ ...now, busy: true })), 150);
    ask(computer.current)
      .then((value) => setState({ value, busy: false, why: null }))
      .catch((thrown: unknown) => {
        if (thrown instanceof Superseded) return;
        setState((now) => ({
          ...now,
          busy: false,
          why: thrown instanceof Error ? thrown.message : String(thrown),
        }));
      })
      .finally(() => clearTimeout(slow));
  }, [ask]);
  return state;
}
