import type { Repair, Span } from '../../text/place.ts';

/** Something in a text that is likely not meant. */
export interface Slip {
  readonly kind: 'dimension' | 'weights' | 'shift' | 'unused' | 'start' | 'growing' | 'index' | 'digits';
  readonly message: string;
  readonly at: Span;
  /** Other texts for a place, each of which was checked to do better. */
  readonly repairs: readonly Repair[];
}
