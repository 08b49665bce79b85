import { Segmented, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { UnderWay } from '../frame/under-way.tsx';
import { useDesk } from '../desk/desk.ts';
import { type KeyedResult, useRows } from '../desk/use-results.ts';
import type { RungView } from './rung-cells.tsx';
import { RungTable } from './rung-table.tsx';
import { STEPS_SHOWN, StepsTable } from './steps-table.tsx';

type View = RungView | 'steps';

const VIEWS = [
  { value: 'errors', label: 'Errors' },
  { value: 'differences', label: 'Without exact' },
  { value: 'cost', label: 'Cost' },
  { value: 'steps', label: 'Steps of one run' },
] satisfies readonly { value: View; label: string }[];

/** The rungs of the study against its methods, or the steps of one run. */
function Table({ keyed }: { readonly keyed: KeyedResult }): ReactNode {
  const { good, chosen, independent, methods, setMarked } = useDesk();
  const h = chosen.grid?.wished ?? null;
  const [view, setView] = useState<View>('errors');
  const [key, setKey] = useState<string | null>(null);
  const [place, setPlace] = useState({ run: '', from: 0 });
  const method = Math.max(0, keyed.keys.indexOf(key ?? ''));
  const run = `${method}/${h ?? ''}`;
  const from = place.run === run ? place.from : 0;
  const window = useMemo(
    () =>
      view === 'steps' && h !== null && keyed.keys.length > 0
        ? { method, wish: { h }, from, count: STEPS_SHOWN }
        : null,
    [view, h, keyed.keys.length, method, from],
  );
  const steps = useRows(good.document, window);
  return (
    <>
      <div className="table-head">
        <Segmented<View> size="small" options={VIEWS} value={view} onChange={setView} />
        {view === 'steps' && (
          <Select<string>
            size="small"
            aria-label="Method whose steps are shown"
            value={keyed.keys[method] ?? ''}
            options={keyed.keys.map((value) => ({ value, label: methods.titleOf(value) }))}
            onChange={setKey}
          />
        )}
        {view === 'differences' && (
          <span className="quiet">from three successive rungs, without any exact solution</span>
        )}
      </div>
      {view === 'steps' ? (
        <>
          <UnderWay computed={steps} what="the steps" />
          {steps.value !== null && (
            <StepsTable
              window={steps.value}
              independent={independent}
              from={from}
              onFrom={(next) => setPlace({ run, from: next })}
              onMark={setMarked}
            />
          )}
        </>
      ) : (
        <RungTable keyed={keyed} view={view} />
      )}
    </>
  );
}

/** The table under the pictures, with what is to be said of the work that it waits for. */
export function TablePart(): ReactNode {
  const { results, curves, chosen } = useDesk();
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
