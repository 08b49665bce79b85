import type { Inspection } from '@schritt/core/inspect';
import type { Method } from '@schritt/core/notation';
import { useMemo } from 'react';
import type { Remark } from './diagnostics.ts';
import { type Ask, type Computed, useComputed } from '../worker/use-work.ts';

/** What can be proved of a method, by a worker of its own; null for none. */
export function useInspection(method: Method | null): Computed<Inspection> {
  const text = method?.text ?? null;
  const ask = useMemo((): Ask<Inspection> | null => {
    if (text === null) return null;
    return (computer) => computer.ask('inspection', { text });
  }, [text]);
  return useComputed(ask);
}

const NO_REMARKS: readonly Remark[] = [];

/** What an inspection remarks on the text of a method. */
export function remarksOf({
  slips,
  nearMisses,
}: Pick<Inspection, 'slips' | 'nearMisses'>): readonly Remark[] {
  return [
    ...slips.map(({ message, at, repairs }) => ({ message, at, repairs })),
    ...nearMisses.map(({ message, at, repair }) => ({ message, at, repairs: [repair] })),
  ];
}

/** Likely mistakes in a method, and changes that would raise its order, each with its repair. */
export function useMethodRemarks(method: Method | null): readonly Remark[] {
  const { value, part } = useInspection(method);
  return useMemo(() => {
    // what was found of another text has other places
    return value === null || method === null || part !== null ? NO_REMARKS : remarksOf(value);
  }, [value, method, part]);
}
