import type { DecimalPrecision } from '../../decimal/decimal-precision.ts';
import { Refusal } from '../../text/refusal.ts';
import { cProgram } from './c-program.ts';
import { cQuadruple } from './c-quadruple.ts';
import { C } from './c-writing.ts';
import { FORTRAN, fortranProgram } from './fortran-program.ts';
import { JAVASCRIPT, jsProgram } from './js-program.ts';
import { JULIA, juliaBig, juliaProgram } from './julia-program.ts';
import { LANGUAGE_LABELS, type LanguageName, type ProgramParts, type Writing } from './language.ts';
import { MATLAB, matlabProgram } from './matlab-program.ts';
import { programParts, type ProgramRequest } from './program-parts.ts';
import { PYTHON, pythonDecimals, pythonProgram } from './python-program.ts';

/** How a language writes formulas, and a whole program. */
interface LanguageWriter {
  readonly writing: Writing;
  readonly write: (parts: ProgramParts) => string;
  /** The same with decimal digits, as far as the language has them; null where it has none. */
  readonly decimal: ((precision: DecimalPrecision) => Writing) | null;
}

const WRITERS: Readonly<Record<LanguageName, LanguageWriter>> = {
  py: { writing: PYTHON, write: pythonProgram, decimal: pythonDecimals },
  c: { writing: C, write: cProgram, decimal: cQuadruple },
  js: { writing: JAVASCRIPT, write: jsProgram, decimal: null },
  f90: { writing: FORTRAN, write: fortranProgram, decimal: null },
  m: { writing: MATLAB, write: matlabProgram, decimal: null },
  jl: { writing: JULIA, write: juliaProgram, decimal: juliaBig },
};

/** How a language writes formulas in the arithmetic of a program. */
function writingOf(language: LanguageName, precision: DecimalPrecision | null): Writing {
  const { writing, decimal } = WRITERS[language];
  if (precision === null) return writing;
  if (precision.rounded === 'stored')
    throw new Refusal('form', 'a program rounds every operation; this study rounds stored values only');
  if (decimal === null)
    throw new Refusal(
      'form',
      `the standard library of ${LANGUAGE_LABELS[language]} has no arithmetic with ${precision.digits} digits; choose Python, Julia or C`,
    );
  return decimal(precision);
}

/**
 * A run as a program of its own: C99, Python 3, JavaScript, Fortran 2008, MATLAB/Octave or Julia, without any library beyond the language's
 * own. It prints the rows as CSV with 17 digits, and with step sizes as arguments the errors and orders. Algebraic
 * problems give the same bits as the run. With decimal digits it is in Python's decimal module, in BigFloat of Julia or
 * in __float128 of C.
 *
 * @throws Refusal as `programParts`
 */
export function writeProgram(request: ProgramRequest, language: LanguageName): string {
  return WRITERS[language].write(programParts(request, writingOf(language, request.decimal)));
}
