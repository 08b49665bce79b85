import type { RungRun } from '@schritt/core/study';

/** Bytes that a double takes as JSON, at most about. */
const DOUBLE = 20;
/** Bytes of what else there is of a rung. */
const REST = 400;

/** About how many bytes a rung takes as it is stored. */
export function bytesOf(rung: RungRun): number {
  return REST + DOUBLE * rung.values.length;
}
