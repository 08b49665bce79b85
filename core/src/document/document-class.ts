import { plainToInstance } from 'class-transformer';
import type { SchrittDocument } from './document.ts';
import { DOCUMENT_CLASSES } from './format.ts';

/** What is wrong with the version or the kind of a document. */
interface HeadFault {
  readonly place: 'schritt' | 'kind';
  readonly message: string;
}

/** The class of a document by its version and kind, or what is wrong with those. */
export function documentClass(value: unknown): (new () => SchrittDocument) | HeadFault {
  const fields = new Map<string, unknown>(
    typeof value === 'object' && value !== null ? Object.entries(value) : [],
  );
  const [version, kind] = [fields.get('schritt'), fields.get('kind')];
  if (version === undefined)
    return { place: 'schritt', message: 'is missing; a file of this format begins with "schritt": 1' };
  if (version !== 1) return { place: 'schritt', message: 'must be 1, the version of the format' };
  switch (kind) {
    case 'study':
    case 'problem':
    case 'method':
      return DOCUMENT_CLASSES[kind];
    default:
      return { place: 'kind', message: 'must be one of "study", "problem", "method"' };
  }
}

/**
 * What is wrong with the version or the kind of a document; null for one that a class describes.
 *
 * @example headFault({ schritt: 1, kind: 'method' }) // null
 */
export function headFault(value: unknown): string | null {
  const found = documentClass(value);
  return typeof found === 'function' ? null : `${found.place} ${found.message}`;
}

/**
 * A value as an instance of the class that describes it; the value itself where none does.
 *
 * @example documentInstance({ schritt: 1, kind: 'method', title: 'Heun', text: '' })
 */
export function documentInstance(value: unknown): unknown {
  const found = documentClass(value);
  return typeof found === 'function' ? plainToInstance(found, value) : value;
}
