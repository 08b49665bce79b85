import type { StudyDocument, StudyResult } from '@schritt/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Computer, Superseded } from '../worker/computer.ts';
import type { Curves } from '../worker/messages.ts';

/** A computed value: the last that came, whether a newer one is under way, and what went wrong. */
export interface Computed<T> {
  readonly value: T | null;
  readonly busy: boolean;
  readonly why: string | null;
}

type Ask<T> = (computer: Computer) => Promise<T>;

function useComputed<T>(ask: Ask<T> | null): Computed<T> {
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

/** The results of a study together with the keys of the methods they belong to. */
export interface KeyedResult {
  readonly result: StudyResult;
  readonly keys: readonly string[];
}

/** Runs the study in a worker whenever it changes. */
export function useResults(document: StudyDocument | null, keys: readonly string[]): Computed<KeyedResult> {
  const ask = useMemo((): Ask<KeyedResult> | null => {
    if (document === null) return null;
    return async (computer) => {
      const answer = await computer.ask({ kind: 'study', document });
      if (answer.kind === 'study') return { result: answer.result, keys };
      throw new Error(answer.kind === 'failed' ? answer.why : 'an answer to another question');
    };
  }, [document, keys]);
  return useComputed(ask);
}

/** Curves together with the keys of the methods they belong to. */
export interface KeyedCurves {
  readonly curves: Curves;
  readonly keys: readonly string[];
}

/** Computes the curves at one step size in a worker of their own. */
export function useCurves(
  document: StudyDocument | null,
  keys: readonly string[],
  h: number | null,
): Computed<KeyedCurves> {
  const ask = useMemo((): Ask<KeyedCurves> | null => {
    if (document === null || h === null) return null;
    return async (computer) => {
      const answer = await computer.ask({ kind: 'curves', document, wish: { h } });
      if (answer.kind === 'curves') return { curves: answer.curves, keys };
      throw new Error(answer.kind === 'failed' ? answer.why : 'an answer to another question');
    };
  }, [document, keys, h]);
  return useComputed(ask);
}
