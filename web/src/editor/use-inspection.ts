import type { Inspection, MethodSlips } from '@schritt/core/inspect';
import type { Method } from '@schritt/core/notation';
import { useMemo } from 'react';
import type { Remark } from './diagnostics.ts';
import type { Answers } from '../worker/messages.ts';
import { type Ask, type Computed, useComputed } from '../worker/use-work.ts';

/** What is asked of a method, by a worker of its own; null for none. */
function useAnswer<K extends 'inspection' | 'slips'>(kind: K, method: Method | null): Computed<Answers[K]> {
  const text = method?.text ?? null;
  const ask = useMemo((): Ask<Answers[K]> | null => {
    if (text === null) return null;
    return (computer) => computer.ask(kind, { text });
  }, [kind, text]);
  return useComputed(ask);
}

/** What can be proved of a method. */
export function useInspection(method: Method | null): Computed<Inspection> {
  return useAnswer('inspection', method);
}

const NO_REMARKS: readonly Remark[] = [];

/** Likely mistakes as remarks on the text of a method. */
export function remarksOf({ slips, nearMisses }: MethodSlips): readonly Remark[] {
  return [
    ...slips.map(({ message, at, repairs }) => ({ message, at, repairs })),
    ...nearMisses.map(({ message, at, repair }) => ({ message, at, repairs: [repair] })),
  ];
}

/** Likely mistakes in a method, and changes that would raise its order, each with its repair. */
export function useMethodRemarks(method: Method | null): readonly Remark[] {
  const { value, part } = useAnswer('slips', method);
  return useMemo(() => {
    // what was found of another text has other places
    return value === null || method === null || part !== null ? NO_REMARKS : remarksOf(value);
  }, [value, method, part]);
}
