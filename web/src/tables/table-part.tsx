import { Segmented } from 'antd';
import { type ReactNode, useState } from 'react';
import { UnderWay } from '../frame/under-way.tsx';
import { useDesk } from '../desk/desk.ts';
import type { KeyedResult } from '../desk/use-results.ts';
import type { RungView } from './rung-cells.tsx';
import { RungTable } from './rung-table.tsx';

const VIEWS = [
  { value: 'errors', label: 'Errors' },
  { value: 'differences', label: 'Without exact' },
  { value: 'cost', label: 'Cost' },
] satisfies readonly { value: RungView; label: string }[];

/** The rungs of the study against its methods. */
function Table({ keyed }: { readonly keyed: KeyedResult }): ReactNode {
  const [view, setView] = useState<RungView>('errors');
  return (
    <>
      <div className="table-head">
        <Segmented<RungView> size="small" options={VIEWS} value={view} onChange={setView} />
        {view === 'differences' && (
          <span className="quiet">from three successive rungs, without any exact solution</span>
        )}
      </div>
      <RungTable keyed={keyed} view={view} />
    </>
  );
}

/** The table under the pictures, with what is to be said of the work that it waits for. */
export function TablePart(): ReactNode {
  const { results, curves, chosen, good } = useDesk();
  // where nothing can be run nothing is under way
  if (good.document === null)
    return (
      <section className="table-part" aria-label="Rungs">
        <p className="quiet">No rungs: the text of the problem has errors.</p>
      </section>
    );
  return (
    <section className="table-part" aria-label="Rungs">
      <UnderWay computed={results} what="the study" kept="shown is what there was of it" />
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
