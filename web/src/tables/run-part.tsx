import { short } from '@schritt/core/text';
import { Button, Select } from 'antd';
import { type MouseEvent, type ReactNode, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { UnderWay } from '../frame/under-way.tsx';
import { ColumnChoice } from './column-choice.tsx';
import { FullNumberText, useFullNumber } from './full-number.tsx';
import { FormatContext, FORMATS, USUAL_FORMAT } from './number-format.tsx';
import { RowsChoice } from './rows-choice.tsx';
import { RowsPages } from './rows-pages.tsx';
import { sideText, stepsText } from './rows-text.ts';
import { SideTable } from './side-table.tsx';
import { STEP_COLUMNS, stepCells, type StepColumn, StepsTable, USUAL_COLUMNS } from './steps-table.tsx';
import { type RunRows, useRunRows } from './use-run-rows.ts';

/** Times that are named of those which are no grid points. */
const MAX_NAMED = 12;

/** What is wrong with the times that are asked for, and which of them are no grid points. */
function TimesNotes({ shown: { byTimes } }: { readonly shown: RunRows }): ReactNode {
  const { independent } = useStudyState('independent');
  if (byTimes === null) return null;
  if ('why' in byTimes) return <p className="wrong">{byTimes.why}</p>;
  if (byTimes.between.length === 0) return null;
  const named = byTimes.between.slice(0, MAX_NAMED).map((t) => `${independent} = ${short(t, 6)}`);
  return (
    <p className="quiet">
      not grid points of this step size: {named.join(', ')}
      {byTimes.between.length > MAX_NAMED ? ', ...' : ''}
    </p>
  );
}

/** Copies the rows that are shown, in full unless a person has said to how many digits. */
function CopyRows({
  shown,
  columns,
  formatName,
}: {
  readonly shown: RunRows;
  readonly columns: readonly StepColumn[];
  readonly formatName: string | null;
}): ReactNode {
  const { independent } = useStudyState('independent');
  const [copied, setCopied] = useState(false);
  const format = FORMATS.find(({ value }) => value === formatName)?.format ?? ({ kind: 'full' } as const);
  const copy = (): void => {
    const { side, rows, method, methods } = shown;
    const titles = methods.map(({ title }) => title);
    const text =
      method < 0
        ? side.value && sideText(side.value, independent, titles, format)
        : rows.value && stepsText(rows.value, stepCells(rows.value, columns), independent, format);
    if (text !== null) void navigator.clipboard.writeText(text).then(() => setCopied(true));
  };
  return (
    <Button size="small" onClick={copy} onBlur={() => setCopied(false)}>
      {copied ? 'Copied' : 'Copy rows'}
    </Button>
  );
}

/** The rows of all methods side by side, and which of them have stopped. */
function AllMethods({
  shown,
  onClick,
}: {
  readonly shown: RunRows;
  readonly onClick: (event: MouseEvent) => void;
}): ReactNode {
  const { independent, view, setView, setMarked } = useStudyState(
    'independent',
    'view',
    'setView',
    'setMarked',
  );
  const { side, methods, steps } = shown;
  if (side.value === null) return null;
  return (
    <>
      <SideTable
        side={side.value}
        independent={independent}
        methods={methods}
        chosen={view.depth === 'step' ? view.n : -1}
        onMark={setMarked}
        onStep={(n, at) => setView({ depth: 'step', n: Math.min(n, Math.max(0, steps - 1)), method: at })}
        onClick={onClick}
      />
      {side.value.stopped.map(
        (why, i) =>
          why !== null && (
            <p key={methods[i]?.key ?? i} className="wrong">
              {methods[i]?.title} stops in {why}.
            </p>
          ),
      )}
    </>
  );
}

/** The rows of the run at the chosen step size: of all methods side by side, or of one with every stage. */
export function RunPart(): ReactNode {
  const { independent, setMarked } = useStudyState('independent', 'setMarked');
  const shown = useRunRows();
  const [formatName, setFormatName] = useState<string | null>(null);
  const [columns, setColumns] = useState<readonly StepColumn[]>(USUAL_COLUMNS);
  const { full, onClick } = useFullNumber();
  const { method, rows, side, from, every, steps } = shown;
  return (
    <section className="table-part" aria-label="Rows">
      <div className="table-head">
        <RowsChoice shown={shown} />
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="How numbers are rounded"
          value={formatName ?? '8 digits'}
          options={FORMATS.map(({ value, label }) => ({ value, label }))}
          onChange={setFormatName}
        />
        {method >= 0 && <ColumnChoice columns={STEP_COLUMNS} chosen={columns} onChange={setColumns} />}
        <CopyRows shown={shown} columns={columns} formatName={formatName} />
        <FullNumberText full={full} />
        {shown.isPaged && <RowsPages from={from} every={every} steps={steps} onGo={shown.goTo} />}
      </div>
      <TimesNotes shown={shown} />
      <FormatContext value={FORMATS.find(({ value }) => value === formatName)?.format ?? USUAL_FORMAT}>
        {method < 0 ? (
          <UnderWay computed={side} what="the rows" />
        ) : (
          <UnderWay computed={rows} what="the rows" />
        )}
        {method < 0 && <AllMethods shown={shown} onClick={onClick} />}
        {method >= 0 && rows.value !== null && (
          <StepsTable
            window={rows.value}
            columns={columns}
            independent={independent}
            onMark={setMarked}
            onClick={onClick}
          />
        )}
      </FormatContext>
    </section>
  );
}
