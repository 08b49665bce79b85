import type { ReactNode } from 'react';
import './power-number.css';

/** A number with three significant digits and its power of ten: 1.35 ×10⁻¹. */
export function PowerNumber({
  value,
  digits = 3,
}: {
  readonly value: number;
  readonly digits?: number;
}): ReactNode {
  if (value === 0) return <>0</>;
  const [mantissa = '', exponent = ''] = value.toExponential(digits - 1).split('e');
  return (
    <span className="power-number" title={String(value)}>
      {mantissa.replace('-', '−')}
      <small>
        ×10<sup>{exponent.replace('+', '').replace('-', '−')}</sup>
      </small>
    </span>
  );
}
