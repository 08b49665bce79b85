import { plainToInstance } from 'class-transformer';
import { type ValidationError, validateSync } from 'class-validator';
import { presentLadder } from '../study/runs/ladder.ts';
import type { SchrittDocument } from './document.ts';
import { documentClass } from './document-class.ts';
import { jsonFault } from './json-fault.ts';
import { DOCUMENT_LIMITS, jsonExcess, reservedKey } from './json-limits.ts';

/** What is wrong with a file, at a place such as `methods[1].text`, or a line and column where it is no JSON. */
export interface DocumentError {
  readonly place: string;
  readonly message: string;
}

export type DocumentReading =
  | { readonly ok: true; readonly document: SchrittDocument }
  | { readonly ok: false; readonly errors: readonly DocumentError[] };

function refused(place: string, message: string): DocumentReading {
  return { ok: false, errors: [{ place, message }] };
}

/**
 * The faults of validated objects with their places, those of fields inside of fields included.
 *
 * @example faultsOf([]) // []
 */
export function faultsOf(errors: readonly ValidationError[], around = '', isList = false): DocumentError[] {
  return errors.flatMap(({ property, value, constraints = {}, children = [] }) => {
    // a field may have an empty name
    const own = property === '' ? '""' : property;
    const place = isList ? `${around}[${own}]` : around === '' ? own : `${around}.${own}`;
    const found = Object.entries(constraints).map(([name, message]) => ({
      place,
      message:
        name === 'whitelistValidation'
          ? 'is not a field of this format'
          : value === undefined
            ? 'is missing'
            : message,
    }));
    // of a value that is wrong as a whole nothing is said of its fields
    return found.length > 0 ? found.slice(0, 1) : faultsOf(children, place, Array.isArray(value));
  });
}

/**
 * A document in the present way of writing it, where it is in an older one.
 *
 * @example presentDocument(document).title // 'Sluice'
 */
export function presentDocument(document: SchrittDocument): SchrittDocument {
  return document.kind === 'study' ? { ...document, ladder: presentLadder(document.ladder) } : document;
}

/**
 * Checks a value, such as one read from JSON, against the file format; every fault is listed with its place.
 *
 * @example readDocument(document).ok // true
 */
export function readDocument(value: unknown): DocumentReading {
  const reserved = reservedKey(value);
  if (reserved !== null) return refused(reserved, 'is not a field of this format');
  const found = documentClass(value);
  if (typeof found !== 'function') return refused(found.place, found.message);
  const instance = plainToInstance(found, value);
  const errors = faultsOf(
    validateSync(instance, { whitelist: true, forbidNonWhitelisted: true, stopAtFirstError: true }),
  );
  if (errors.length > 0) return { ok: false, errors };
  return { ok: true, document: presentDocument(instance) };
}

/**
 * Reads the text of a `*.schritt.json` file; a byte order mark before it is passed over.
 *
 * @example readDocumentText('{}').ok // false
 */
export function readDocumentText(file: string): DocumentReading {
  const text = file.startsWith('\ufeff') ? file.slice(1) : file;
  const excess = jsonExcess(text, DOCUMENT_LIMITS);
  if (excess !== null) return refused('the file', excess);
  try {
    return readDocument(JSON.parse(text));
  } catch (thrown) {
    if (!(thrown instanceof SyntaxError)) throw thrown;
    const { line, column, message } = jsonFault(text);
    return refused(`line ${line}, column ${column}`, `this is not JSON: ${message}`);
  }
}
