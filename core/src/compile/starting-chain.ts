import type { Method } from '../method/method.ts';
import { Refusal } from '../text/refusal.ts';
import type { StartChoice } from './compile-with-start.ts';

/** A method by its title. */
export interface TitledMethod {
  readonly title: string;
  readonly method: Method;
}

/**
 * A method, then its starting method, that of its starting method, and so on; the last one is a multistep method where the
 * starting values are exact.
 *
 * @throws Refusal where a starting method is not known, or names go round in a circle
 */
export function startingChain(
  first: TitledMethod,
  { find, instead: chosen }: Pick<StartChoice, 'find' | 'instead'>,
): readonly TitledMethod[] {
  const chain = [first];
  let [last, instead] = [first.method, chosen];
  while (last.depth > 0) {
    const name = instead ?? last.startWith?.name ?? null;
    if (name === 'exact') break;
    const found = name === null ? null : find(name);
    if (name === null || found === null || chain.some(({ title }) => title === name))
      throw new Refusal('start', 'this multistep method has no starting method');
    chain.push({ title: name, method: found });
    [last, instead] = [found, null];
  }
  return chain;
}
