import { splitInto } from '../text/run-of-names.ts';

/**
 * What to say of a name that a method does not know, and what to write instead; null where that cannot be said.
 *
 * @param lets names that lines above give
 */
export function unknownName(
  name: string,
  lets: readonly string[],
): { readonly message: string; readonly instead: string | null } {
  const near = [...lets, 't', 'y', 'h'].find((known) => known.toLowerCase() === name.toLowerCase());
  if (near !== undefined)
    return { message: `${name} is not known, but ${near} is; names are case-sensitive`, instead: near };
  if (/^(?:d[tx]|Δ[tx]?|delta_?[tx]?|Delta_?[tx]?|dtau|step|stepsize|step_size)$/.test(name))
    return { message: `${name} is not known; the step size is written h`, instead: 'h' };
  const present = /^([ytw])_?0$/.exec(name)?.[1];
  if (present !== undefined)
    return {
      message: `${name} is not known; a method is written for one step, from y[n] at t[n] to y[n+1]`,
      instead: present === 't' ? 't[n]' : 'y[n]',
    };
  const product = splitInto(name, [...lets, 't', 'h', 'y', 'x', 'v'])?.join('*');
  if (product !== undefined)
    return { message: `${name} is not known; to multiply write ${product}`, instead: product };
  if (/^d\d+$/.test(name))
    return {
      message: `${name} is not known; a power of ten is written ${name.replace('d', 'e')}, as in 1.5${name.replace('d', 'e')}`,
      instead: null,
    };
  return {
    message: `${name} is not known; define it on a line above, such as ${name} = f(t, y)`,
    instead: null,
  };
}
