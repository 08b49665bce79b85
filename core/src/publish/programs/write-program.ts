import { C, cProgram } from './c-program.ts';
import { FORTRAN, fortranProgram } from './fortran-program.ts';
import { JAVASCRIPT, jsProgram } from './js-program.ts';
import { JULIA, juliaProgram } from './julia-program.ts';
import type { LanguageName, ProgramParts, Writing } from './language.ts';
import { MATLAB, matlabProgram } from './matlab-program.ts';
import { programParts, type ProgramRequest } from './program-parts.ts';
import { PYTHON, pythonProgram } from './python-program.ts';

/** How a language writes formulas, and a whole program. */
interface LanguageWriter {
  readonly writing: Writing;
  readonly write: (parts: ProgramParts) => string;
}

const WRITERS: Readonly<Record<LanguageName, LanguageWriter>> = {
  py: { writing: PYTHON, write: pythonProgram },
  c: { writing: C, write: cProgram },
  js: { writing: JAVASCRIPT, write: jsProgram },
  f90: { writing: FORTRAN, write: fortranProgram },
  m: { writing: MATLAB, write: matlabProgram },
  jl: { writing: JULIA, write: juliaProgram },
};

/**
 * A run as a program of its own: C99, Python 3, JavaScript, Fortran 2008, MATLAB/Octave or Julia, without any library beyond the language's
 * own. It prints the rows as CSV with 17 digits, and with step sizes as arguments the errors and orders. Algebraic
 * problems give the same bits as the run.
 *
 * @throws Refusal as `programParts`
 */
export function writeProgram(request: ProgramRequest, language: LanguageName): string {
  const { writing, write } = WRITERS[language];
  return write(programParts(request, writing));
}
