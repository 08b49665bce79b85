import { ApiError } from '../errors/api-error.ts';

/** Fields and values inside one another that a body may have: more than any document has. */
const MOST_FIELDS = 2_000;
const DEEPEST = 12;

const [QUOTE, ESCAPE, COLON] = [0x22, 0x5c, 0x3a];
const OPEN: ReadonlySet<number> = new Set([0x5b, 0x7b]);
const CLOSE: ReadonlySet<number> = new Set([0x5d, 0x7d]);

function refuse(message: string): never {
  throw new ApiError('bad-request', 'what was sent is not as it should be', [{ place: 'the body', message }]);
}

/**
 * Looks at the characters of a body before it is read as JSON: tens of thousands of names or of brackets take longer to
 * read than any answer may take.
 *
 * @throws ApiError for one that no document looks like
 */
export function checkShape(body: Uint8Array): void {
  let isText = false;
  let fields = 0;
  let depth = 0;
  for (let i = 0; i < body.length; i += 1) {
    const byte = body[i]!;
    if (isText) {
      if (byte === ESCAPE) i += 1;
      else if (byte === QUOTE) isText = false;
    } else if (byte === QUOTE) isText = true;
    else if (byte === COLON) fields += 1;
    else if (OPEN.has(byte)) depth += 1;
    else if (CLOSE.has(byte)) depth -= 1;
    if (depth > DEEPEST) refuse(`values are nested at most ${DEEPEST} deep here`);
    if (fields > MOST_FIELDS) refuse(`has more than ${MOST_FIELDS} fields`);
  }
}
