import { Faults, type Form, hasField, oneOf } from '../text/form.ts';
import { lineStarts, placeOf } from '../text/place.ts';
import { type Document, type DocumentReading, METHOD, PROBLEM, STUDY } from './document.ts';

const KIND = oneOf('study', 'problem', 'method');
const FORMS: { readonly [K in Document['kind']]: Form<Document> } = {
  study: STUDY,
  problem: PROBLEM,
  method: METHOD,
};

function field(value: unknown, key: string): unknown {
  return hasField(value, key) ? new Map<string, unknown>(Object.entries(value ?? {})).get(key) : undefined;
}

function readValue(value: unknown, faults: Faults): Document | null {
  const version = field(value, 'schritt');
  if (version !== 1)
    return faults.note(
      'schritt',
      version === undefined
        ? 'is missing; a file of this format begins with "schritt": 1'
        : 'must be 1, the version of the format',
    );
  const kind = KIND.read(field(value, 'kind'), 'kind', faults);
  return kind === null ? null : FORMS[kind].read(value, '', faults);
}

/** Checks a value, such as one read from JSON, against the file format; every fault is listed with its place. */
export function readDocument(value: unknown): DocumentReading {
  const faults = new Faults();
  const document = readValue(value, faults);
  return document === null || faults.list.length > 0
    ? { ok: false, errors: faults.list }
    : { ok: true, document };
}

/** Reads the text of a `*.schritt.json` file. */
export function readDocumentText(text: string): DocumentReading {
  try {
    return readDocument(JSON.parse(text));
  } catch (thrown) {
    if (!(thrown instanceof SyntaxError)) throw thrown;
    return { ok: false, errors: [jsonError(text, thrown.message)] };
  }
}

function jsonError(text: string, message: string): { readonly place: string; readonly message: string } {
  const offset = Number(/position (\d+)/.exec(message)?.[1] ?? text.length);
  const { line, column } = placeOf(lineStarts(text), Math.min(offset, text.length));
  return { place: `line ${line}, column ${column}`, message: `this is not JSON: ${message}` };
}
