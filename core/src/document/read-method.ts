import { parseMethod } from '../method/parse-method.ts';
import { memoize } from '../text/memoize.ts';

/** Texts that were read last: of a study of which one text is typed all others stay as they are. */
const known = memoize<ReturnType<typeof parseMethod>>(64);

/**
 * Reads the text of a method; one that was read lately is not read again.
 *
 * @example readMethod('y[n+1] = y + h*f(t, y)').ok // true
 */
export function readMethod(text: string): ReturnType<typeof parseMethod> {
  return known(text, () => parseMethod(text));
}
