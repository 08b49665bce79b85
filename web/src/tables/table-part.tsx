import { RUNG_COLUMN_LABELS, RUNG_COLUMNS } from '@schritt/core/document';
import { componentNames } from '@schritt/core/notation';
import { Checkbox, Segmented, Select } from 'antd';
import { memo, type ReactNode, useState } from 'react';
import { UnderWay } from '../frame/under-way.tsx';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import type { KeyedResult } from '@schritt/plot';
import { ColumnChoice } from './column-choice.tsx';
import { FullNumberText, useFullNumber } from './full-number.tsx';
import { RUNG_VIEWS, type ValueChoice } from './rung-cells.tsx';
import { RungTable } from './rung-table.tsx';

/** What stands for all digits among numbers of them. */
const ALL_DIGITS = 17;
/** Digits of values at the end. */
const DIGITS = [4, 6, 8, 10, 12, ALL_DIGITS] as const;

const COLUMN_OPTIONS = RUNG_COLUMNS.map((value) => ({ value, label: RUNG_COLUMN_LABELS[value] }));

/** What the table shows of the rungs, and how; new numbers leave it as it is. */
const TableHead = memo(function TableHead({
  isImplicit,
  asParts,
  onAsParts,
  full,
}: {
  /** Whether a method has iterations to count. */
  readonly isImplicit: boolean;
  readonly asParts: boolean;
  readonly onAsParts: (change: (asParts: boolean) => boolean) => void;
  readonly full: string | null;
}): ReactNode {
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
});

/** The rungs of the study against its methods; what is under way does not touch them. */
const Table = memo(function Table({
  keyed,
  place,
  name,
}: { readonly keyed: KeyedResult } & Omit<ValueChoice, 'digits'>): ReactNode {
  const { table } = useStudyState('table');
  const { columns, digits } = table;
  const [asParts, setAsParts] = useState(false);
  const { full, onClick } = useFullNumber();
  const isImplicit = keyed.result.methods.some(({ rungs }) => rungs.some(({ cost }) => cost.newton > 0));
  return (
    <>
      <TableHead isImplicit={isImplicit} asParts={asParts} onAsParts={setAsParts} full={full} />
      <RungTable
        keyed={keyed}
        columns={columns}
        value={{ place, name, digits }}
        asParts={asParts}
        onClick={onClick}
      />
    </>
  );
});

/** The table under the plots, with what is to be said of the work that it waits for. */
export function TablePart(): ReactNode {
  const { results, curves, component, problem } = useStudyState('results', 'curves', 'component', 'problem');
  const rungs = useStudyValue(({ chosen }) => chosen.rungs);
  const isRun = useStudyValue(({ good }) => good.document !== null);
  const place = component.wanted;
  const name = (problem === null ? [] : componentNames(problem))[place] ?? '';
  // where nothing can be run nothing is under way
  if (!isRun)
    return (
      <section className="table-part" aria-label="Step sizes and errors">
        <p className="quiet">No results: the problem has errors.</p>
      </section>
    );
  return (
    <section className="table-part" aria-label="Step sizes and errors">
      <UnderWay computed={results} what="the study" kept="partial results are shown" />
      <UnderWay computed={curves} what="the curves" />
      {rungs.map((rung) =>
        rung.ok ? null : (
          <p key={rung.written} className="wrong">
            {`${rung.written}: ${rung.message}`}
          </p>
        ),
      )}
      {results.value !== null && <Table keyed={results.value} place={place} name={name} />}
    </section>
  );
}
