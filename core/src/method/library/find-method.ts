import { memoize } from '../../text/memoize.ts';
import type { Method } from '../method.ts';
import { parseMethod } from '../parse-method.ts';
import { LIBRARY } from './library.ts';

const known = memoize<Method | null>(100);

/**
 * A method of the library by its title, upper and lower case alike; null where there is none.
 *
 * @example findInLibrary('rk4')?.statements.length // 5
 */
export function findInLibrary(title: string): Method | null {
  const key = title.toLowerCase();
  return known(key, () => {
    const text = LIBRARY.find((method) => method.title.toLowerCase() === key)?.text;
    const reading = text === undefined ? null : parseMethod(text);
    return reading?.ok === true ? reading.value : null;
  });
}
