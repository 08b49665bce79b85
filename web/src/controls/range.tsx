import type { CSSProperties, ReactNode } from 'react';
import './controls.css';

/** A number drawn along a line, by pointer or keys. */
export function Range({
  label,
  value,
  min,
  max,
  step = 1,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  /** Default 1. */
  readonly step?: number;
  readonly onChange: (value: number) => void;
}): ReactNode {
  const part = max > min ? (value - min) / (max - min) : 0;
  const style: CSSProperties & { readonly '--part': string } = { '--part': `${100 * part}%` };
  return (
    <input
      type="range"
      className="range"
      aria-label={label}
      value={value}
      min={min}
      max={max}
      step={step}
      style={style}
      onChange={(event) => onChange(event.target.valueAsNumber)}
    />
  );
}
