import { useId, type ReactNode } from 'react';
import type { Choosable } from './pick-list.tsx';
import './controls.css';

/** One of a few, all of them in sight. */
export function Segments<V extends string>({
  label,
  value,
  options,
  onChange,
  size = 'usual',
}: {
  readonly label: string;
  /** None of them is marked where it is not among them. */
  readonly value: V;
  readonly options: readonly Choosable<V>[];
  readonly onChange: (value: V) => void;
  readonly size?: 'small' | 'usual';
}): ReactNode {
  const name = useId();
  return (
    <span role="radiogroup" aria-label={label} className={`segments ${size}`}>
      {options.map((option) => (
        <label key={option.value} className={option.value === value ? 'chosen' : undefined}>
          <input
            type="radio"
            name={name}
            checked={option.value === value}
            onChange={() => onChange(option.value)}
          />
          {option.label}
        </label>
      ))}
    </span>
  );
}
