import type { Method } from '../method.ts';
import { parseMethod } from '../parse-method.ts';
import { LIBRARY } from './library.ts';

const read = new Map<string, Method | null>();

/** A method of the library by its title, upper and lower case alike; null where there is none. */
export function findInLibrary(title: string): Method | null {
  const key = title.toLowerCase();
  const known = read.get(key);
  if (known !== undefined) return known;
  const text = LIBRARY.find((method) => method.title.toLowerCase() === key)?.text;
  const reading = text === undefined ? null : parseMethod(text);
  const found = reading?.ok === true ? reading.value : null;
  read.set(key, found);
  return found;
}
