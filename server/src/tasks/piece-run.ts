import type { PieceRun } from '@schritt/core/study';
import { hasField } from './read-json.ts';

/** Whether a value is what a piece of a study comes to. */
export function isPieceRun(value: unknown): value is PieceRun {
  return hasField(value, 'kind') && (hasField(value, 'rungs') || hasField(value, 'why'));
}
