import { RUNG_COLUMN_LABELS, RUNG_COLUMNS } from '@schritt/core/document';
import { Checkbox, Segmented, Select } from 'antd';
import type { ReactNode } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { ColumnChoice } from './column-choice.tsx';
import { FullNumberText } from './full-number.tsx';
import { RUNG_VIEWS } from './rung-cells.tsx';

/** What stands for all digits among numbers of them. */
const ALL_DIGITS = 17;
/** Digits of values at the end. */
const DIGITS = [4, 6, 8, 10, 12, ALL_DIGITS] as const;

const COLUMN_OPTIONS = RUNG_COLUMNS.map((value) => ({ value, label: RUNG_COLUMN_LABELS[value] }));

export interface TableHeadProps {
  /** Whether a method has iterations to count. */
  readonly isImplicit: boolean;
  readonly asParts: boolean;
  readonly onAsParts: (change: (asParts: boolean) => boolean) => void;
  readonly full: string | null;
}

/** What the table shows of the rungs, and how; new numbers leave it as it is. */
export function TableHead({ isImplicit, asParts, onAsParts, full }: TableHeadProps): ReactNode {
  const { table, setTable } = useStudyState('table', 'setTable');
  const { columns, digits } = table;
  const views = RUNG_VIEWS.map((view) => ({
    ...view,
    columns: view.columns.filter((column) => isImplicit || column !== 'Newton'),
  }));
  const view = views.find((one) => one.columns.join() === columns.join())?.value;
  return (
    <div className="table-head">
      <Segmented<string>
        size="small"
        aria-label="What the table shows"
        options={views.map(({ value, label }) => ({ value, label }))}
        value={view ?? ''}
        onChange={(name) =>
          setTable({ columns: views.find(({ value }) => value === name)?.columns ?? columns })
        }
      />
      <ColumnChoice
        columns={COLUMN_OPTIONS}
        chosen={columns}
        onChange={(chosen) => setTable({ columns: chosen })}
      />
      <Checkbox
        checked={asParts}
        onChange={() => onAsParts((now) => !now)}
        title="Write every h as a fraction of the interval"
      >
        h as a fraction
      </Checkbox>
      {columns.includes('value') && (
        <Select<number>
          size="small"
          popupMatchSelectWidth={false}
          aria-label="Digits of the values at the end"
          value={digits ?? ALL_DIGITS}
          options={DIGITS.map((of) => ({
            value: of,
            label: of === ALL_DIGITS ? 'all digits' : `${of} digits`,
          }))}
          onChange={(of) => setTable({ digits: of === ALL_DIGITS ? null : of })}
        />
      )}
      <FullNumberText full={full} />
      {view === 'differences' && (
        <span className="quiet">from three successive step sizes, without an exact solution</span>
      )}
    </div>
  );
}
