import { createHash } from 'node:crypto';

/** What secrets are compared by and stored as: it has the same length for all of them, and does not tell them. */
export function digest(text: string): Buffer {
  return createHash('sha256').update(text).digest();
}
