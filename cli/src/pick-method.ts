import type { Study } from '@schritt/core/study';
import { Failure } from './failure.ts';

/** A method of a study by its title. */
export function pickMethod(study: Study, title: string): Study['methods'][number] {
  const found = study.methods.find((m) => m.title === title);
  if (found !== undefined) return found;
  const titles = study.methods.map((m) => m.title).join(', ');
  throw new Failure([`there is no method "${title}" in this study; there are ${titles}`]);
}
