import type { ReactNode } from 'react';
import './controls.css';

export interface Choosable<V> {
  readonly value: V;
  readonly label: string;
}

/** One of several, from a list that opens: the browser's own, with its keys. */
export function PickList<V extends string | number>({
  label,
  value,
  options,
  onChange,
  isBare = false,
}: {
  /** What is chosen, for who cannot see where the list stands. */
  readonly label: string;
  readonly value: V;
  readonly options: readonly Choosable<V>[];
  readonly onChange: (value: V) => void;
  /** Without a frame, where the list stands in a heading. Default: with one. */
  readonly isBare?: boolean;
}): ReactNode {
  return (
    <select
      aria-label={label}
      className={isBare ? 'pick-list bare' : 'pick-list'}
      value={options.findIndex((option) => option.value === value)}
      onChange={(event) => {
        const chosen = options[Number(event.target.value)];
        if (chosen !== undefined) onChange(chosen.value);
      }}
    >
      {options.map((option, place) => (
        <option key={option.value} value={place}>
          {option.label}
        </option>
      ))}
    </select>
  );
}
