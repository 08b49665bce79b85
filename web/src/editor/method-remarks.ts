import { inspectMethod } from '@schritt/core/inspect';
import type { Method } from '@schritt/core/notation';
import type { Remark } from './text-editor.tsx';

/** What is likely not meant in a method, and changes that would raise its order, each with its repair. */
export function methodRemarks(method: Method): readonly Remark[] {
  const { slips, nearMisses } = inspectMethod(method);
  return [
    ...slips.map(({ message, at, repairs }) => ({ message, at, repairs })),
    ...nearMisses.map(({ message, at, repair }) => ({ message, at, repairs: [repair] })),
  ];
}
