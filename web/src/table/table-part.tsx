import type { StudyDocument } from '@schritt/core/document';
import { Segmented, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { UnderWay } from '../study/under-way.tsx';
import { useRows } from '../study/use-results.ts';
import type { RungView } from './rung-cells.tsx';
import { RungTable, type RungTableProps } from './rung-table.tsx';
import { STEPS_SHOWN, StepsTable } from './steps-table.tsx';

type View = RungView | 'steps';

const VIEWS = [
  { value: 'errors', label: 'Errors' },
  { value: 'differences', label: 'Without exact' },
  { value: 'cost', label: 'Cost' },
  { value: 'steps', label: 'Steps of one run' },
] satisfies readonly { value: View; label: string }[];

interface TablePartProps extends Omit<RungTableProps, 'view'> {
  readonly document: StudyDocument | null;
  /** The step size whose steps are shown. */
  readonly h: number | null;
  readonly independent: string;
  /** Told the time of the step that is pointed at; null for none. */
  readonly onMark: (t: number | null) => void;
}

/** The table under the pictures: the rungs of the study, or the steps of one run. */
export function TablePart(props: TablePartProps): ReactNode {
  const { keyed, document, h, independent, titleOf, onMark } = props;
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
  const steps = useRows(document, window);
  return (
    <>
      <div className="table-head">
        <Segmented<View> size="small" options={VIEWS} value={view} onChange={setView} />
        {view === 'steps' && (
          <Select<string>
            size="small"
            aria-label="Method whose steps are shown"
            value={keyed.keys[method] ?? ''}
            options={keyed.keys.map((value) => ({ value, label: titleOf(value) }))}
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
              onMark={onMark}
            />
          )}
        </>
      ) : (
        <RungTable {...props} view={view} />
      )}
    </>
  );
}
