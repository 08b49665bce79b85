import {
  type Amount,
  amountOf,
  areEqual,
  less,
  NOTHING,
  opposite,
  over,
  times,
  UNIT,
} from '../form/amount.ts';
import type { StabilityPolynomial } from './stability-polynomial.ts';
import { type ZPolynomial, zTerm, zTex } from './z-polynomial.ts';

/** The first term of an expansion that is not zero: coefficient * x^power. */
export interface LeadingTerm {
  readonly power: number;
  readonly coefficient: Amount;
}

/**
 * A leading term as TeX.
 *
 * @example leadingTermTex({ power: 5, coefficient: fraction(-1, 120) }) // '-\\tfrac{1}{120}x^{5}'
 */
export function leadingTermTex({ power, coefficient }: LeadingTerm): string {
  return zTex(zTerm(coefficient, power), 'x');
}

/** What a one-step method makes of z, compared with exp(z): leading terms of its errors. */
export interface PhaseErrors {
  /** Of ln R(z) - z. */
  readonly error: LeadingTerm;
  /** Of |R(ix)| - 1, on an oscillation; null where |R(ix)| is 1 for all x. */
  readonly dissipation: LeadingTerm | null;
  /** Of arg R(ix) - x. */
  readonly dispersion: LeadingTerm | null;
}

/** Highest power that is looked at. */
const HIGHEST = 40;

/** A coefficient of a series, with the size of the terms that it was summed from. */
interface Summed {
  readonly value: Amount;
  readonly scale: number;
}

/**
 * The coefficients of ln(p(z) / p(0)), by p' = p (ln p)': k p_0 l_k = k p_k - the sum of j l_j p_(k-j) over j below k.
 *
 * @param p with a constant that is not zero
 */
function logarithm(p: ZPolynomial, highest: number): readonly Summed[] {
  const found: Summed[] = [{ value: NOTHING, scale: 0 }];
  const [constant = UNIT] = p;
  for (let k = 1; k <= highest; k += 1) {
    let value = times(amountOf(k), p[k] ?? NOTHING);
    let scale = Math.abs(value.value);
    for (let j = Math.max(1, k - p.length + 1); j < k; j += 1) {
      const part = times(amountOf(j), times(found[j]?.value ?? NOTHING, p[k - j] ?? NOTHING));
      value = less(value, part);
      scale += Math.abs(part.value);
    }
    const by = times(amountOf(k), constant);
    found.push({ value: over(value, by), scale: scale / Math.abs(by.value) });
  }
  return found;
}

/**
 * Leading terms of dissipation and dispersion of a one-step method on y' = i w y, in x = w h, from the expansion of
 * ln R(z) - z: at z = ix its even powers are real and its odd ones imaginary.
 *
 * Source: P. J. van der Houwen, B. P. Sommeijer, SIAM J. Numer. Anal. 24 (1987) 595-617, with the signs changed.
 *
 * @param slack what coefficients may be off by, relative to their terms: the rounding of typed decimals
 * @returns null for a multistep method, and for one that is not consistent
 *
 * @example RK4: dissipation -x^6/144, dispersion -x^5/120
 */
export function phaseErrors({ below, above }: StabilityPolynomial, slack = 0): PhaseErrors | null {
  const [only, ...others] = above;
  if (only === undefined || others.length > 0 || only.length === 0) return null;
  const [numerator, denominator] = [logarithm(only, HIGHEST), logarithm(below, HIGHEST)];
  const terms = numerator.flatMap(({ value, scale }, k): readonly LeadingTerm[] => {
    const under = denominator[k] ?? { value: NOTHING, scale: 0 };
    const exact = k === 1 ? UNIT : NOTHING;
    const rest = less(less(value, under.value), exact);
    const size = scale + under.scale + exact.value;
    const isZero = Math.abs(rest.value) <= slack * size || areEqual(rest, NOTHING, size);
    return isZero ? [] : [{ power: k, coefficient: rest }];
  });
  const [error] = terms;
  if (error === undefined || error.power < 2) return null;
  // i^k is real for even k and i times a sign for odd ones
  const onAxis = (term: LeadingTerm | undefined): LeadingTerm | null => {
    if (term === undefined) return null;
    const isOpposite = Math.floor(term.power / 2) % 2 === 1;
    return isOpposite ? { ...term, coefficient: opposite(term.coefficient) } : term;
  };
  return {
    error,
    dissipation: onAxis(terms.find(({ power }) => power % 2 === 0)),
    dispersion: onAxis(terms.find(({ power }) => power % 2 === 1)),
  };
}
