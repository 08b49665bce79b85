import { count, counted, short } from '@schritt/core/text';
import { Button, Select } from 'antd';
import { type MouseEvent, type ReactNode, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { copiedTable } from '../frame/copied-table.ts';
import { UnderWay } from '../frame/under-way.tsx';
import { ColumnChoice } from './column-choice.tsx';
import { FullNumberText } from './full-number.tsx';
import { useFullNumber } from './use-full-number.ts';
import { FormatContext, FORMATS, USUAL_FORMAT } from './number-format.tsx';
import { rowErrors } from './row-error.ts';
import { RowsChoice } from './rows-choice.tsx';
import { RowsPages } from './rows-pages.tsx';
import { sideCells, stepsCells } from './rows-text.ts';
import { SideTable } from './side-table.tsx';
import { STEP_COLUMNS, stepCells, type StepColumn, StepsTable, USUAL_COLUMNS } from './steps-table.tsx';
import { MAX_ROWS, type RunRows, useRunRows } from './use-run-rows.ts';

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

/** What became of a copy: how many rows were copied, and of how many. */
type Copied =
  | { readonly kind: 'under way' }
  | { readonly kind: 'done'; readonly rows: number; readonly of: number }
  | { readonly kind: 'failed'; readonly why: string };

function copiedText(copied: Copied | null): string {
  switch (copied?.kind) {
    case undefined:
      return 'Copy rows';
    case 'under way':
      return 'Copying ...';
    case 'done':
      return copied.rows < copied.of
        ? `Copied the first ${count(copied.rows)} of ${count(copied.of)} rows`
        : `Copied ${counted(copied.rows, 'row')}`;
    case 'failed':
      return `Not copied: ${copied.why}`;
  }
}

/** Copies all rows of what is shown, also those of other pages, in full unless a person has said to how many digits. */
function CopyRows({
  shown,
  columns,
  formatName,
}: {
  readonly shown: RunRows;
  readonly columns: readonly StepColumn[];
  readonly formatName: string | null;
}): ReactNode {
  const { independent, error } = useStudyState('independent', 'error');
  const errors = rowErrors(error.scale);
  const [copied, setCopied] = useState<Copied | null>(null);
  const format = FORMATS.find(({ value }) => value === formatName)?.format ?? ({ kind: 'full' } as const);
  const copy = async (): Promise<void> => {
    setCopied({ kind: 'under way' });
    try {
      const all = await shown.all();
      if (all === null) {
        setCopied(null);
        return;
      }
      const titles = shown.methods.map(({ title }) => title);
      const cells =
        all.kind === 'side'
          ? sideCells(all.side, independent, { titles, errors }, format)
          : stepsCells(all.window, stepCells(all.window, columns, errors), independent, format);
      const { text, html } = copiedTable(cells);
      await navigator.clipboard.write([
        new ClipboardItem({
          'text/plain': new Blob([text], { type: 'text/plain' }),
          'text/html': new Blob([html], { type: 'text/html' }),
        }),
      ]);
      const { byTimes, every, steps } = shown;
      const rows = cells.length - 1;
      const of = byTimes === null && rows === MAX_ROWS ? Math.ceil((steps + 1) / every) : rows;
      setCopied({ kind: 'done', rows, of });
    } catch (thrown) {
      setCopied({ kind: 'failed', why: thrown instanceof Error ? thrown.message : String(thrown) });
    }
  };
  return (
    <Button
      size="small"
      disabled={copied?.kind === 'under way'}
      onClick={() => void copy()}
      onBlur={() => setCopied((now) => (now?.kind === 'under way' ? now : null))}
    >
      {copiedText(copied)}
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
  const { independent, error, view, setView, setMarked } = useStudyState(
    'independent',
    'error',
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
        errors={rowErrors(error.scale)}
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
  const { independent, error, setMarked } = useStudyState('independent', 'error', 'setMarked');
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
        <UnderWay computed={method < 0 ? side : rows} what="the rows" />
        {shown.isPaged && <RowsPages from={from} every={every} steps={steps} onGo={shown.goTo} />}
      </div>
      <TimesNotes shown={shown} />
      <FormatContext value={FORMATS.find(({ value }) => value === formatName)?.format ?? USUAL_FORMAT}>
        {method < 0 && <AllMethods shown={shown} onClick={onClick} />}
        {method >= 0 && rows.value !== null && (
          <StepsTable
            window={rows.value}
            errors={rowErrors(error.scale)}
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
