import type { ReactNode } from 'react';
import { PopUp } from '../controls/pop-up.tsx';
import { Tick } from '../controls/tick.tsx';

interface ColumnChoiceProps<C extends string> {
  readonly columns: readonly { readonly value: C; readonly label: string }[];
  readonly chosen: readonly C[];
  /** At least one stays chosen. */
  readonly onChange: (chosen: readonly C[]) => void;
}

/** Which columns a table has; they keep their order. */
export function ColumnChoice<C extends string>({
  columns,
  chosen,
  onChange,
}: ColumnChoiceProps<C>): ReactNode {
  const toggle = (column: C): void => {
    const next = columns.flatMap(({ value }) =>
      chosen.includes(value) !== (value === column) ? [value] : [],
    );
    if (next.length > 0) onChange(next);
  };
  return (
    <PopUp label="Columns" size="small">
      <div className="column-choice" role="group" aria-label="Columns">
        {columns.map(({ value, label }) => (
          <Tick key={value} isTicked={chosen.includes(value)} onChange={() => toggle(value)}>
            {label}
          </Tick>
        ))}
      </div>
    </PopUp>
  );
}
