import { componentNames, short } from '@schritt/core/notation';
import { Button, Input, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { useDesk } from '../desk/desk.ts';
import { useRows, useSide } from '../desk/use-results.ts';
import { UnderWay } from '../frame/under-way.tsx';
import { ColumnChoice } from './column-choice.tsx';
import { FullNumberText, useFullNumber } from './full-number.tsx';
import { FormatContext, FORMATS, USUAL_FORMAT } from './number-format.tsx';
import { pointAsked, timesAsked } from './rows-asked.ts';
import { RowsPages } from './rows-pages.tsx';
import { sideText, stepsText } from './rows-text.ts';
import { SideTable } from './side-table.tsx';
import {
  STEP_COLUMNS,
  stepCells,
  type StepColumn,
  STEPS_SHOWN,
  StepsTable,
  USUAL_COLUMNS,
} from './steps-table.tsx';

/** Components that can be chosen at most: those whose curves are kept. */
const MAX_COMPONENTS = 12;
/** What stands for a list of times among the strides. */
const TIMES = 0;

/** The rows of the run at the chosen step size: of all methods side by side, or of one with every stage. */
export function RunPart(): ReactNode {
  const { good, chosen, independent, methods, setMarked, problem, view, setView, component } = useDesk(
    'good',
    'chosen',
    'independent',
    'methods',
    'setMarked',
    'problem',
    'view',
    'setView',
    'component',
  );
  const grid = chosen.grid;
  const h = grid?.wished ?? null;
  const [key, setKey] = useState('all');
  const [stride, setStride] = useState(1);
  const [times, setTimes] = useState('');
  const [asked, setAsked] = useState('');
  const [copied, setCopied] = useState(false);
  const [formatName, setFormatName] = useState<string | null>(null);
  const [columns, setColumns] = useState<readonly StepColumn[]>(USUAL_COLUMNS);
  const [place, setPlace] = useState({ run: '', from: 0 });
  const { full, onClick } = useFullNumber();
  const format = FORMATS.find(({ value }) => value === formatName)?.format ?? USUAL_FORMAT;
  const every = Math.max(1, stride);
  const run = `${h ?? ''}/${every}`;
  const method = good.keys.indexOf(key);
  const steps = grid?.steps ?? 0;
  // the window goes with the chosen step until the page is turned
  const around = Math.max(0, view.depth === 'step' ? view.n - 4 : 0);
  const from = place.run === run ? place.from : around;
  const byTimes = useMemo(
    () => (stride === TIMES && grid !== null && times !== '' ? timesAsked(times, grid) : null),
    [stride, grid, times],
  );
  const points = byTimes !== null && 'points' in byTimes ? byTimes.points : null;
  const window = useMemo(
    () => (h === null ? null : { wish: { h }, from, count: STEPS_SHOWN, every, points }),
    [h, from, every, points],
  );
  const wanted = component.wanted;
  const sideWish = useMemo(
    () => (window === null || method >= 0 ? null : { ...window, component: wanted }),
    [window, method, wanted],
  );
  const rowsWish = useMemo(
    () => (window === null || method < 0 ? null : { ...window, method }),
    [window, method],
  );
  const side = useSide(good.document, sideWish);
  const rows = useRows(good.document, rowsWish);
  const names = useMemo(
    () => (problem === null ? [] : componentNames(problem).slice(0, MAX_COMPONENTS)),
    [problem],
  );
  const own = good.keys.map((one) => ({
    key: one,
    title: methods.titleOf(one),
    place: methods.placeOf(one),
  }));
  const toPoint = (n: number): void => setPlace({ run, from: n });
  const goTo = (): void => {
    const point = grid === null ? null : pointAsked(asked, independent, grid);
    if (point !== null) toPoint(point);
  };
  const copy = (): void => {
    // rounded only where a person has said to what
    const as = formatName === null ? ({ kind: 'full' } as const) : format;
    const titles = own.map(({ title }) => title);
    const text =
      method < 0
        ? side.value && sideText(side.value, independent, titles, as)
        : rows.value && stepsText(rows.value, stepCells(rows.value, columns), independent, as);
    if (text !== null) void navigator.clipboard.writeText(text).then(() => setCopied(true));
  };
  const isAsked = asked === '' || grid === null || pointAsked(asked, independent, grid) !== null;
  return (
    <section className="table-part" aria-label="Rows">
      <div className="table-head">
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="Methods whose rows are shown"
          value={method < 0 ? 'all' : key}
          options={[
            { value: 'all', label: 'all methods' },
            ...own.map(({ key: value, title }) => ({ value, label: `${title}, all stages` })),
          ]}
          onChange={setKey}
        />
        {names.length > 1 && method < 0 && (
          <Select
            size="small"
            popupMatchSelectWidth={false}
            aria-label="Component"
            value={Math.min(wanted, names.length - 1)}
            options={names.map((label, value) => ({ value, label }))}
            onChange={component.choose}
          />
        )}
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="Which rows"
          value={stride}
          options={[
            ...[1, 2, 4, 5, 10, 16, 20, 50, 100, 1000]
              .filter((k) => k === 1 || k < steps)
              .map((value) => ({
                value,
                label: value === 1 ? 'every row' : `every ${value}${value === 2 ? 'nd' : 'th'} row`,
              })),
            { value: TIMES, label: 'at given times' },
          ]}
          onChange={setStride}
        />
        {stride === TIMES ? (
          <Input
            size="small"
            className="go-to"
            aria-label="Times of the rows"
            placeholder="0.5, 1, ..., 8"
            value={times}
            aria-invalid={byTimes !== null && 'why' in byTimes}
            status={byTimes !== null && 'why' in byTimes ? 'error' : ''}
            onChange={(event) => setTimes(event.target.value)}
          />
        ) : (
          <Input
            size="small"
            className="go-to"
            aria-label="Go to n or time"
            placeholder={`n = 12 or ${independent} = 0.5`}
            value={asked}
            aria-invalid={!isAsked}
            status={!isAsked ? 'error' : ''}
            onChange={(event) => setAsked(event.target.value)}
            onPressEnter={goTo}
          />
        )}
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="How numbers are rounded"
          value={formatName ?? '8 digits'}
          options={FORMATS.map(({ value, label }) => ({ value, label }))}
          onChange={setFormatName}
        />
        {method >= 0 && <ColumnChoice columns={STEP_COLUMNS} chosen={columns} onChange={setColumns} />}
        <Button size="small" onClick={copy} onBlur={() => setCopied(false)}>
          {copied ? 'Copied' : 'Copy rows'}
        </Button>
        <FullNumberText full={full} />
        {points === null && <RowsPages from={from} every={every} steps={steps} onGo={toPoint} />}
      </div>
      {byTimes !== null && 'why' in byTimes && <p className="wrong">{byTimes.why}</p>}
      {byTimes !== null && 'points' in byTimes && byTimes.between.length > 0 && (
        <p className="quiet">
          not grid points of this step size:{' '}
          {byTimes.between
            .slice(0, 12)
            .map((t) => `${independent} = ${short(t, 6)}`)
            .join(', ')}
          {byTimes.between.length > 12 ? ', ...' : ''}
        </p>
      )}
      <FormatContext value={format}>
        {method < 0 ? (
          <UnderWay computed={side} what="the rows" />
        ) : (
          <UnderWay computed={rows} what="the rows" />
        )}
        {method < 0 && side.value !== null && (
          <>
            <SideTable
              side={side.value}
              independent={independent}
              methods={own}
              chosen={view.depth === 'step' ? view.n : -1}
              onMark={setMarked}
              onStep={(n, at) =>
                setView({ depth: 'step', n: Math.min(n, Math.max(0, steps - 1)), method: at })
              }
              onClick={onClick}
            />
            {side.value.stopped.map(
              (why, i) =>
                why !== null && (
                  <p key={own[i]?.key ?? i} className="wrong">
                    {own[i]?.title} stops in {why}.
                  </p>
                ),
            )}
          </>
        )}
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
