import type { Reading } from '@schritt/core/notation';
import { useState, useSyncExternalStore } from 'react';
import type { ReadTexts, TextReader } from '../worker/text-reader.ts';

/** Stands for the reading of a text that a worker is still at. */
const UNDER_WAY = { ok: false, errors: [] } as const;

/** The reading of a text, and the last good one while another text is typed or read. */
export interface ReadText<T> {
  /** Without errors of its own while a worker is at it. */
  readonly now: Reading<T>;
  readonly good: T | null;
}

/** Whether a text was read and has errors; one that a worker is still at has none yet. */
export function hasErrors(reading: Reading<unknown>): boolean {
  return !reading.ok && reading.errors.length > 0;
}

/** What a reader has read; the page follows what comes from its worker. */
export function useReader<T>(reader: TextReader<T>): ReadTexts<T> {
  return useSyncExternalStore(reader.watch, reader.now, reader.now);
}

/** Reads a text, and keeps its last good reading. */
export function useReading<T>(reader: TextReader<T>, text: string): ReadText<T> {
  const now: Reading<T> = useReader(reader).read(text) ?? UNDER_WAY;
  const [good, setGood] = useState<T | null>(now.ok ? now.value : null);
  if (now.ok && good !== now.value) setGood(now.value);
  return { now, good: now.ok ? now.value : good };
}
