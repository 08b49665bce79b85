import { mantissaAndExponent, withMinus } from '@schritt/core/text';
import type { ReactNode } from 'react';
import './power-number.css';

/** The power of ten behind a mantissa: ×10⁻¹. */
export function PowerOfTen({ exponent }: { readonly exponent: string }): ReactNode {
  return (
    <small>
      ×10<sup>{withMinus(exponent)}</sup>
    </small>
  );
}

/** A number with three significant digits and its power of ten: 1.35 ×10⁻¹. */
export function PowerNumber({
  value,
  digits = 3,
}: {
  readonly value: number;
  readonly digits?: number;
}): ReactNode {
  if (value === 0) return <>0</>;
  const [mantissa, exponent] = mantissaAndExponent(value, digits);
  return (
    <span className="power-number" title={String(value)} data-full={String(value)}>
      {withMinus(mantissa)}
      <PowerOfTen exponent={String(exponent)} />
    </span>
  );
}
