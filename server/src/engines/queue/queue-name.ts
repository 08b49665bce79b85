import { NUMBERS_VERSION } from '@schritt/core/document';
import { numericsDigest } from './numerics.ts';

/** The version of the numbers of this program on this machine. */
export const NUMERICS = `${NUMBERS_VERSION}-${numericsDigest()}`;

/** The queue of tasks: a worker whose numbers would be others does not even listen to it. */
export const TASKS = `tasks-${NUMERICS}`;
