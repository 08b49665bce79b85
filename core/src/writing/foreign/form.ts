/** A way of writing that is not of the notation, and what represents it there. */
export interface ForeignForm {
  /** Finds it in a line; the named group `at` is what is replaced, the whole match where there is none. */
  readonly is: RegExp;
  /** What to say of it; null where it has one meaning only and is taken as that. */
  readonly say: ((found: RegExpExecArray) => string) | null;
  /** What to write instead. */
  readonly instead: (found: RegExpExecArray) => string;
}

/** A sentence that is the same for whatever was found. */
export const always =
  (text: string): ((found: RegExpExecArray) => string) =>
  () =>
    text;

/** A group of what was found; '' where it is not there. */
export function group(found: RegExpExecArray, name: string): string {
  return found.groups?.[name] ?? '';
}
