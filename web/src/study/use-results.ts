import type { StudyDocument, StudyResult } from '@schritt/core';
import { useMemo } from 'react';
import { type Ask, type Computed, useComputed } from '../worker/use-computed.ts';
import type { Curves } from '../worker/messages.ts';

/** The results of a study together with the keys of the methods they belong to. */
export interface KeyedResult {
  readonly result: StudyResult;
  readonly keys: readonly string[];
}

/** Runs the study in a worker whenever it changes. */
export function useResults(document: StudyDocument | null, keys: readonly string[]): Computed<KeyedResult> {
  const ask = useMemo((): Ask<KeyedResult> | null => {
    if (document === null) return null;
    return async (computer, progress) => {
      const answer = await computer.ask({ kind: 'study', document }, progress);
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
    return async (computer, progress) => {
      const answer = await computer.ask({ kind: 'curves', document, wish: { h } }, progress);
      if (answer.kind === 'curves') return { curves: answer.curves, keys };
      throw new Error(answer.kind === 'failed' ? answer.why : 'an answer to another question');
    };
  }, [document, keys, h]);
  return useComputed(ask);
}
