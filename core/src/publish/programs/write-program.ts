import { cProgram } from './c-program.ts';
import { fortranProgram } from './fortran-program.ts';
import { jsProgram } from './js-program.ts';
import type { LanguageName, ProgramParts } from './language.ts';
import { programParts, type ProgramRequest } from './program-parts.ts';
import { pythonProgram } from './python-program.ts';
import { WRITINGS } from './writings.ts';

const WRITERS: Readonly<Record<LanguageName, (parts: ProgramParts) => string>> = {
  c: cProgram,
  py: pythonProgram,
  js: jsProgram,
  f90: fortranProgram,
};

/**
 * A run as a program of its own: C99, Python 3, JavaScript or Fortran 2008, without any library beyond the language's own. It
 * prints the rows as CSV with 17 digits, and with step sizes as arguments the errors and orders. Algebraic problems give the
 * same bits as the run.
 *
 * @throws Refusal as `programParts`
 */
export function writeProgram(request: ProgramRequest, language: LanguageName): string {
  return WRITERS[language](programParts(request, WRITINGS[language]));
}
