import { Button, Checkbox, Popover } from 'antd';
import type { ReactNode } from 'react';

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
  const choose = (values: readonly C[]): void => {
    const next = columns.flatMap(({ value }) => (values.includes(value) ? [value] : []));
    if (next.length > 0) onChange(next);
  };
  return (
    <Popover
      trigger="click"
      placement="bottomLeft"
      content={
        <div role="group" aria-label="Columns">
          <Checkbox.Group<C>
            className="column-choice"
            options={[...columns]}
            value={[...chosen]}
            onChange={choose}
          />
        </div>
      }
    >
      <Button size="small">Columns</Button>
    </Popover>
  );
}
