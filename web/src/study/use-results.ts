import type { StudyDocument } from '@schritt/core/document';
import type { StudyResult } from '@schritt/core/study';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Superseded } from '../worker/computer.ts';
import type { Curves, RowsWindow, RowsWish } from '../worker/messages.ts';
import { StudyComputer } from '../worker/study-computer.ts';
import { type Ask, type Computed, useComputed } from '../worker/use-computed.ts';

/** The results of a study together with the keys of the methods they belong to. */
export interface KeyedResult {
  readonly result: StudyResult;
  readonly keys: readonly string[];
}

/** A study that is computed here or on the server. */
export interface ComputedStudy extends Computed<KeyedResult> {
  readonly onServer: boolean;
}

/** Runs the study on workers, or on the server if it is long, whenever it changes; finished rungs are shown as they come. */
export function useResults(document: StudyDocument | null, keys: readonly string[]): ComputedStudy {
  const [state, setState] = useState<Omit<ComputedStudy, 'cancel'>>({
    value: null,
    part: 0,
    why: null,
    onServer: false,
  });
  const computer = useRef<StudyComputer | null>(null);
  useEffect(
    () => () => {
      computer.current?.close();
      computer.current = null;
    },
    [],
  );
  useEffect(() => {
    if (document === null) return;
    computer.current ??= new StudyComputer();
    const slow = setTimeout(() => setState((now) => ({ ...now, part: now.part ?? 0 })), 150);
    computer.current
      .run(document, ({ result, part, onServer }) => {
        clearTimeout(slow);
        setState((now) => ({
          value: result === null ? now.value : { result, keys },
          part,
          why: null,
          onServer,
        }));
      })
      .then((result) => setState({ value: { result, keys }, part: null, why: null, onServer: false }))
      .catch((thrown: unknown) => {
        if (thrown instanceof Superseded) return;
        const why = thrown instanceof Error ? thrown.message : String(thrown);
        setState((now) => ({ ...now, part: null, why }));
      })
      .finally(() => clearTimeout(slow));
  }, [document, keys]);
  const cancel = useCallback(() => {
    computer.current?.cancel();
    setState((now) => ({ ...now, part: null, why: 'cancelled' }));
  }, []);
  return { ...state, cancel };
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
    return async (computer, progress) => {
      const answer = await computer.ask({ kind: 'curves', document, wish: { h } }, progress);
      if (answer.kind === 'curves') return { curves: answer.curves, keys };
      throw new Error(answer.kind === 'failed' ? answer.why : 'an answer to another question');
    };
  }, [document, keys, h]);
  return useComputed(ask);
}

/** Computes a window of the steps of one run in a worker of its own; null for no window. */
export function useRows(document: StudyDocument | null, window: RowsWish | null): Computed<RowsWindow> {
  const ask = useMemo((): Ask<RowsWindow> | null => {
    if (document === null || window === null) return null;
    return async (computer, progress) => {
      const answer = await computer.ask({ kind: 'rows', document, window }, progress);
      if (answer.kind === 'rows') return answer.rows;
      throw new Error(answer.kind === 'failed' ? answer.why : 'an answer to another question');
    };
  }, [document, window]);
  return useComputed(ask);
}
