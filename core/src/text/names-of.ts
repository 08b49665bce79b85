/**
 * The names in a registry, in their order.
 *
 * @example namesOf({ c: 'C', py: 'Python' }) // ['c', 'py']
 */
export function namesOf<K extends string>(registry: Readonly<Record<K, unknown>>): readonly K[] {
  const isName = (name: string): name is K => Object.hasOwn(registry, name);
  return Object.keys(registry).filter(isName);
}
