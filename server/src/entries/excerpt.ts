import type { SchrittDocument } from '@schritt/core/document';

/** Characters of a text that a list shows. */
export const LONGEST_EXCERPT = 1200;
/** Methods that a list names. */
const MAX_METHODS = 6;

/** What is stored of a document besides itself, for lists. */
export interface Stored {
  readonly title: string;
  readonly document: string;
  readonly excerpt: string;
  readonly methods: string;
}

/** A document as it is stored. */
export function stored(document: SchrittDocument): Stored {
  const text = document.kind === 'study' ? document.problem.text : document.text;
  const methods = document.kind === 'study' ? document.methods.slice(0, MAX_METHODS) : [];
  return {
    title: document.title,
    document: JSON.stringify(document),
    excerpt: text.slice(0, LONGEST_EXCERPT),
    methods: JSON.stringify(methods.map(({ title }) => title)),
  };
}
