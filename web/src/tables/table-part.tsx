import { Checkbox, Segmented } from 'antd';
import { memo, type ReactNode, useState } from 'react';
import { UnderWay } from '../frame/under-way.tsx';
import { useStudyState } from '../state/study-state.ts';
import type { KeyedResult } from '@schritt/plot';
import { ColumnChoice } from './column-choice.tsx';
import { FullNumberText, useFullNumber } from './full-number.tsx';
import { RUNG_COLUMNS, RUNG_VIEWS, type RungColumn } from './rung-cells.tsx';
import { RungTable } from './rung-table.tsx';

/** The rungs of the study against its methods; what is under way does not touch them. */
const Table = memo(function Table({ keyed }: { readonly keyed: KeyedResult }): ReactNode {
  const [columns, setColumns] = useState<readonly RungColumn[]>(RUNG_VIEWS[0]?.columns ?? ['error']);
  const [asParts, setAsParts] = useState(false);
  const { full, onClick } = useFullNumber();
  const view = RUNG_VIEWS.find((one) => one.columns.join() === columns.join())?.value;
  return (
    <>
      <div className="table-head">
        <Segmented<string>
          size="small"
          aria-label="What the table shows"
          options={RUNG_VIEWS.map(({ value, label }) => ({ value, label }))}
          value={view ?? ''}
          onChange={(name) => setColumns(RUNG_VIEWS.find(({ value }) => value === name)?.columns ?? columns)}
        />
        <ColumnChoice columns={RUNG_COLUMNS} chosen={columns} onChange={setColumns} />
        <Checkbox
          checked={asParts}
          onChange={() => setAsParts((now) => !now)}
          title="Write every h as a fraction of the interval"
        >
          h as a fraction
        </Checkbox>
        <FullNumberText full={full} />
        {view === 'differences' && (
          <span className="quiet">from three successive step sizes, without an exact solution</span>
        )}
      </div>
      <RungTable keyed={keyed} columns={columns} asParts={asParts} onClick={onClick} />
    </>
  );
});

/** The table under the plots, with what is to be said of the work that it waits for. */
export function TablePart(): ReactNode {
  const { results, curves, chosen, good } = useStudyState('results', 'curves', 'chosen', 'good');
  // where nothing can be run nothing is under way
  if (good.document === null)
    return (
      <section className="table-part" aria-label="Step sizes and errors">
        <p className="quiet">No results: the problem has errors.</p>
      </section>
    );
  return (
    <section className="table-part" aria-label="Step sizes and errors">
      <UnderWay computed={results} what="the study" kept="partial results are shown" />
      <UnderWay computed={curves} what="the curves" />
      {chosen.rungs.map((rung) =>
        rung.ok ? null : (
          <p key={rung.written} className="wrong">
            {`${rung.written}: ${rung.message}`}
          </p>
        ),
      )}
      {results.value !== null && <Table keyed={results.value} />}
    </section>
  );
}
