import { componentNames, type Problem } from '../problem/problem.ts';
import type { Layout } from './layout.ts';
import type { Program } from './program.ts';

/**
 * One name for each component of a vector; just the name itself where there is one component.
 *
 * @example vectorNames('k1', ['u', 'v']) // ['k1[u]', 'k1[v]']
 */
export function vectorNames(name: string, components: readonly string[]): readonly string[] {
  const isPlain = components.length === 1 && components[0] !== name;
  return isPlain ? [name] : components.map((component) => `${name}[${component}]`);
}

/**
 * The components of a stage: of a second-order problem one for each position.
 *
 * @param names those of all components
 * @example stageComponents(run, ['level']) // ['level']
 */
export function stageComponents(
  { layout }: { readonly layout: Layout },
  names: readonly string[],
): readonly string[] {
  return (layout.places[0] ?? []).map((place) => names[place] ?? '');
}

/**
 * The name of a stage that is one number: told from a component of the same name.
 *
 * @example scalarName('s', ['s']) // 'stage s'
 */
export function scalarName(name: string, components: readonly string[]): string {
  return components.includes(name) ? `stage ${name}` : name;
}

/** The names of all stages of a method on a problem, with their components where a stage has several. */
export function stageNames(problem: Problem, { stages }: Program, layout: Layout): readonly string[] {
  const all = componentNames(problem);
  const components = stageComponents({ layout }, all);
  return stages.flatMap(({ name, shape }) =>
    shape === 'scalar' ? [scalarName(name, all)] : vectorNames(name, components),
  );
}
