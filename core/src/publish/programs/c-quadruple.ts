import type { DecimalPrecision } from '../../decimal/decimal-precision.ts';
import { atom } from '../../formula/printer.ts';
import { Refusal } from '../../text/refusal.ts';
import { C, C_NAMES } from './c-writing.ts';
import { constantDigits, decimal, nested, shifted } from './writing-parts.ts';
import type { Writing } from './language.ts';

/** Digits of a run that numbers of 128 bits stand for. */
const QUADRUPLE = { fewest: 16, most: 34 } as const;

/**
 * The same with numbers of 128 bits, which have 33 decimal digits.
 *
 * @throws Refusal for other digits
 */
export function cQuadruple(precision: DecimalPrecision): Writing {
  const { fewest, most } = QUADRUPLE;
  const { digits, rounding } = precision;
  if (digits < fewest || digits > most || rounding !== 'half-even')
    throw new Refusal(
      'form',
      `__float128 of C has 113 binary digits, about 34 decimal ones, and rounds to the nearest; choose Python`,
    );
  return {
    ...C,
    number: (value, all) => `${all ?? decimal(value)}Q`,
    constantDigits: (name) => constantDigits(name, precision),
    power: (base, exponent) => atom(`powq(${base}, ${exponent})`),
    call: (name, inputs) => {
      const own = name === 'sign' || name === 'mod' ? name : `${C_NAMES[name] ?? name}q`;
      return name === 'min' || name === 'max' ? nested(own, inputs) : `${own}(${inputs.join(', ')})`;
    },
    counted: (counter, ahead) => `(__float128)(${shifted(counter, ahead)})`,
  };
}

/** Writes a number of 128 bits; so many can be in one line. */
export const DIGITS_ROUTINE = [
  'static const char *digits(__float128 x) {',
  '  static char text[64][64];',
  '  static int next = 0;',
  '  next = (next + 1) % 64;',
  '  quadmath_snprintf(text[next], sizeof text[next], "%.34Qg", x);',
  '  return text[next];',
  '}',
  '',
];

/** Functions of the library by their names for numbers of 128 bits. */
const OF_LIBRARY = /\b(fabs|floor|ceil|sqrt|log)\(/g;

/** A line in doubles as code in numbers of 128 bits. */
export function inQuadruple(line: string): string {
  return line
    .replace(/\bdouble\b/g, '__float128')
    .replace(OF_LIBRARY, '$1q(')
    .replace(/\bisfinite\(/g, 'finiteq(')
    .replace(/\bHUGE_VAL\b/g, 'HUGE_VALQ');
}
