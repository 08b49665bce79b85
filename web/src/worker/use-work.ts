import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { ServerWork } from '../api/jobs.ts';
import { Computer, Superseded } from './computer.ts';

/** Where a piece of work is: the last value that came, how far a newer one is, and what went wrong. */
export interface Computed<T> {
  readonly value: T | null;
  /** The part of the work under way that is done; null where none is under way. */
  readonly part: number | null;
  readonly why: string | null;
  /** How far the work is on the server, where it goes on without this page; null where it is done here. */
  readonly elsewhere: ServerWork | null;
  /** Ends the work under way; the last value stays. */
  readonly cancel: () => void;
  /** Lets work elsewhere go on when this page goes; null where it does already, or there is none. */
  readonly continueInBackground: (() => void) | null;
}

/** Who does the work; made when it is first needed, closed when the page goes. */
interface AcquiredWorker {
  readonly cancel: () => void;
  readonly close: () => void;
  readonly continueInBackground?: () => void;
}

/** Tells how far the work is; a value that is there already may come along. */
export type Tell<T> = (part: number, value?: T | null, elsewhere?: ServerWork | null) => void;

/** Milliseconds after which work that has said nothing is shown as under way. */
const SLOW = 150;

/**
 * Does a piece of work whenever it changes; the last value stays until the next one is there.
 *
 * @param first what the first piece of work is known to come to
 */
export function useWork<W extends AcquiredWorker, T>(
  acquire: () => W,
  work: ((worker: W, tell: Tell<T>) => Promise<T>) | null,
  first: T | null = null,
): Computed<T> {
  const [state, setState] = useState<Omit<Computed<T>, 'cancel' | 'continueInBackground'>>({
    value: first,
    part: first === null ? 0 : null,
    why: null,
    elsewhere: null,
  });
  const worker = useRef<W | null>(null);
  const acquiring = useRef(acquire);
  // the work that was let go on
  const [goesOn, setGoesOn] = useState<typeof work>(null);
  const latest = useRef(work);
  useEffect(() => {
    const close = (): void => {
      worker.current?.close();
      worker.current = null;
    };
    // a page that is closed leaves no work behind, as one that is left for another
    window.addEventListener('pagehide', close);
    return () => {
      window.removeEventListener('pagehide', close);
      close();
    };
  }, []);
  useEffect(() => {
    latest.current = work;
    if (work === null) return;
    worker.current ??= acquiring.current();
    const slow = setTimeout(() => setState((now) => ({ ...now, part: now.part ?? 0 })), SLOW);
    work(worker.current, (part, value = null, elsewhere = null) => {
      clearTimeout(slow);
      setState((now) => ({ value: value ?? now.value, part, why: null, elsewhere }));
    })
      .then((value) =>
        setState((now) =>
          now.value === value && now.part === null && now.why === null
            ? now
            : { value, part: null, why: null, elsewhere: null },
        ),
      )
      .catch((thrown: unknown) => {
        if (thrown instanceof Superseded) return;
        const why = thrown instanceof Error ? thrown.message : String(thrown);
        setState((now) => ({ ...now, part: null, why }));
      })
      .finally(() => clearTimeout(slow));
  }, [work]);
  const cancel = useCallback(() => {
    worker.current?.cancel();
    setState((now) => ({ ...now, part: null, why: 'cancelled' }));
  }, []);
  const continueInBackground = useCallback(() => {
    worker.current?.continueInBackground?.();
    setGoesOn(() => latest.current);
  }, []);
  const isGoing = goesOn !== null && goesOn === work;
  return useMemo(
    () => ({
      ...state,
      cancel,
      continueInBackground: state.elsewhere !== null && !isGoing ? continueInBackground : null,
    }),
    [state, cancel, continueInBackground, isGoing],
  );
}

/** A question to a web worker of one's own; it may tell which part of the work is done. */
export type Ask<T> = (computer: Computer, progress: (part: number) => void) => Promise<T>;

/** Asks a worker whenever the question changes. */
export function useComputed<T>(ask: Ask<T> | null): Computed<T> {
  const work = useMemo(() => {
    if (ask === null) return null;
    // a worker's progress report carries more than the part that is done
    return (computer: Computer, tell: Tell<T>): Promise<T> => ask(computer, (part) => tell(part));
  }, [ask]);
  return useWork(() => new Computer(), work);
}
