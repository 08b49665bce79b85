import { CLASSICAL } from './classical.ts';
import { HIGH_ORDER } from './high-order.ts';
import { IMPLICIT } from './implicit.ts';
import type { LibraryMethod } from './library-method.ts';
import { MULTISTEP } from './multistep.ts';
import { SECOND_ORDER } from './second-order.ts';
import { TAYLOR } from './taylor.ts';

/** The methods that come with the program, as texts without private powers. */
export const LIBRARY: readonly LibraryMethod[] = [
  ...CLASSICAL,
  ...HIGH_ORDER,
  ...TAYLOR,
  ...MULTISTEP,
  ...SECOND_ORDER,
  ...IMPLICIT,
];
