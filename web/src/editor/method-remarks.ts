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

/** The proved order of a method in a few words; null where none is proved. */
export function provedText(method: Method): string | null {
  const { order, orderWithoutVelocity } = inspectMethod(method);
  const isFree = orderWithoutVelocity !== null && order !== null && orderWithoutVelocity.order > order.order;
  const proof = isFree ? orderWithoutVelocity : order;
  if (proof === null) return null;
  if (proof.zero?.stable === false) return 'not stable';
  return proof.order < 1 ? 'order 0' : `order ${proof.order}${proof.atLeast ? ' or more' : ''}`;
}
