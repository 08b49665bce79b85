import { isDecimal } from '../../compile/precision.ts';
import { precisionOf, type Study } from '../../study/runs/study.ts';
import type { Grid } from '../../run/grid.ts';
import { Refusal } from '../../text/refusal.ts';
import type { LanguageName } from './language.ts';
import { writeProgram } from './write-program.ts';

/** A run of a study: of the method at a place in it, on a grid. */
export interface ProgramRun {
  readonly method: number;
  readonly grid: Grid;
}

/**
 * A run of a study as a program.
 *
 * @throws Refusal for what no program is made of, single precision and exact starting values among it
 */
export function programOf(
  title: string,
  study: Study,
  { method, grid }: ProgramRun,
  language: LanguageName,
): string {
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${method}`);
  const { problem, start } = study;
  const precision = precisionOf(study, chosen);
  if (precision === 'single')
    throw new Refusal('form', 'a program is in double precision, and this study is in single');
  const name = start.instead ?? chosen.method.startWith?.name ?? null;
  const found = name === null || chosen.method.depth === 0 ? null : start.find(name);
  if (name === 'exact' && chosen.method.depth > 0)
    throw new Refusal('start', 'a program computes its starting values by a method, and here they are exact');
  return writeProgram(
    {
      title,
      problem,
      method: chosen.method,
      methodTitle: chosen.title,
      starter: found === null || name === null ? null : { title: name, method: found },
      grid,
      lastStep: study.lastStep,
      decimal: isDecimal(precision) ? precision : null,
    },
    language,
  );
}
