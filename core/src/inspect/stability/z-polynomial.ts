import { type Amount, amountText, isZero, less, NOTHING, plus, times } from '../form/amount.ts';

/** A polynomial in z = h*lambda, from the constant on, without zeros at its end. */
export type ZPolynomial = readonly Amount[];

function trimmed(coefficients: readonly Amount[]): ZPolynomial {
  let length = coefficients.length;
  while (length > 0 && isZero(coefficients[length - 1]!)) length -= 1;
  return coefficients.slice(0, length);
}

export function zSum(a: ZPolynomial, b: ZPolynomial): ZPolynomial {
  return trimmed(
    Array.from({ length: Math.max(a.length, b.length) }, (_, k) => plus(a[k] ?? NOTHING, b[k] ?? NOTHING)),
  );
}

export function zLess(a: ZPolynomial, b: ZPolynomial): ZPolynomial {
  return trimmed(
    Array.from({ length: Math.max(a.length, b.length) }, (_, k) => less(a[k] ?? NOTHING, b[k] ?? NOTHING)),
  );
}

export function zProduct(a: ZPolynomial, b: ZPolynomial): ZPolynomial {
  if (a.length === 0 || b.length === 0) return [];
  const product: Amount[] = Array.from({ length: a.length + b.length - 1 }, () => NOTHING);
  a.forEach((x, i) => {
    b.forEach((y, j) => {
      product[i + j] = plus(product[i + j] ?? NOTHING, times(x, y));
    });
  });
  return trimmed(product);
}

/** z^power times a number. */
export function zTerm(amount: Amount, power: number): ZPolynomial {
  return trimmed([...Array.from({ length: power }, () => NOTHING), amount]);
}

/** Coefficients that are zero but for rounding are dropped. */
export function zCleaned(a: ZPolynomial): ZPolynomial {
  const largest = Math.max(0, ...a.map(({ value }) => Math.abs(value)));
  return trimmed(
    a.map((amount) =>
      amount.exact === null && Math.abs(amount.value) <= 1e-13 * largest ? NOTHING : amount,
    ),
  );
}

function fractionTex(amount: Amount): string {
  const match = /^(\d+)\/(\d+)$/.exec(amountText(amount));
  return match === null ? amountText(amount) : `\\tfrac{${match[1]}}{${match[2]}}`;
}

/**
 * A polynomial in z as TeX, from the constant on; '0' for none.
 *
 * @example zTex(inspection.stability!.polynomial.below)
 */
export function zTex(a: ZPolynomial, variable = 'z'): string {
  const parts = a.flatMap((amount, k) => {
    if (isZero(amount)) return [];
    const isNegative = amount.value < 0;
    const size = isNegative ? less(NOTHING, amount) : amount;
    const power = k === 0 ? '' : k === 1 ? variable : `${variable}^{${k}}`;
    const number = k > 0 && size.value === 1 ? '' : fractionTex(size);
    return [{ isNegative, text: `${number}${power}` }];
  });
  if (parts.length === 0) return '0';
  return parts
    .map(({ isNegative, text }, i) =>
      i === 0 ? (isNegative ? `-${text}` : text) : `${isNegative ? '-' : '+'} ${text}`,
    )
    .join(' ');
}
