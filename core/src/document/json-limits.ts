/** What the text of a file or of a request may hold. */
export interface JsonLimits {
  /** Members of objects and lists, at all depths together. */
  readonly values: number;
}

/** The limits of a document of the file format. */
export const DOCUMENT_LIMITS: JsonLimits = { values: 5_000 };

/** Values inside one another; no document of the file format has as many. */
const MAX_DEPTH = 12;
/** Keys that have a meaning of their own in the language. */
const RESERVED_KEYS: ReadonlySet<string> = new Set(['__proto__', 'constructor', 'prototype']);

const [QUOTE, BACKSLASH, COMMA] = ['"', '\\', ','].map((sign) => sign.charCodeAt(0));
const OPENING: ReadonlySet<number> = new Set(['[', '{'].map((sign) => sign.charCodeAt(0)));
const CLOSING: ReadonlySet<number> = new Set([']', '}'].map((sign) => sign.charCodeAt(0)));

/**
 * What is too large in a text of JSON, told before anything is built of it.
 *
 * @param text as characters or as the bytes of UTF-8
 * @returns null for a text within the limits
 * @example jsonExcess('[1, 2, 3]', { values: 2 }) !== null // true
 */
export function jsonExcess(text: string | Uint8Array, { values }: JsonLimits): string | null {
  const codeAt =
    typeof text === 'string' ? (i: number): number => text.charCodeAt(i) : (i: number): number => text[i]!;
  let isInString = false;
  let depth = 0;
  let found = 0;
  for (let i = 0; i < text.length; i += 1) {
    const code = codeAt(i);
    if (isInString) {
      if (code === BACKSLASH) i += 1;
      else if (code === QUOTE) isInString = false;
    } else if (code === QUOTE) isInString = true;
    else if (OPENING.has(code)) {
      depth += 1;
      found += 1;
      if (depth > MAX_DEPTH) return `is nested more than ${MAX_DEPTH} levels deep`;
    } else if (CLOSING.has(code)) depth -= 1;
    else if (code === COMMA) found += 1;
    if (found > values) return `has more than ${values} values`;
  }
  return null;
}

/**
 * The place of the first reserved key in a value of JSON within the limits; null where there is none.
 *
 * @example reservedKey({ title: 'Heun' }) // null
 */
export function reservedKey(value: unknown, place = ''): string | null {
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, member] of Object.entries(value)) {
    const own = Array.isArray(value) ? `${place}[${key}]` : place === '' ? key : `${place}.${key}`;
    const found = !Array.isArray(value) && RESERVED_KEYS.has(key) ? own : reservedKey(member, own);
    if (found !== null) return found;
  }
  return null;
}
