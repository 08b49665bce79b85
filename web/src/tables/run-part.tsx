import { componentNames, count } from '@schritt/core/notation';
import { Button, Input, Select } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { useDesk } from '../desk/desk.ts';
import { useRows, useSide } from '../desk/use-results.ts';
import { UnderWay } from '../frame/under-way.tsx';
import { SideTable, sideText } from './side-table.tsx';
import { STEPS_SHOWN, StepsTable } from './steps-table.tsx';

/** Components that can be chosen at most: those whose curves are kept. */
const MOST_COMPONENTS = 12;

/** The grid point that was asked for: `12`, `n = 12`, or a time as `t = 0.5`; null for anything else. */
export function pointAsked(
  text: string,
  independent: string,
  { start, h, steps }: { readonly start: number; readonly h: number; readonly steps: number },
): number | null {
  const [, name = 'n', digits = ''] = /^\s*(?:(\w+)\s*=)?\s*(-?[\d.]+(?:e[+-]?\d+)?)\s*$/i.exec(text) ?? [];
  const value = Number(digits);
  if (digits === '' || !Number.isFinite(value)) return null;
  const point = name === 'n' ? value : name === independent ? (value - start) / h : NaN;
  const near = Math.round(point);
  return Number.isFinite(near) && near >= 0 && near <= steps ? near : null;
}

/** The rows of the run at the chosen step size: of all methods side by side, or of one with every stage. */
export function RunPart(): ReactNode {
  const { good, chosen, independent, methods, setMarked, problem, view, setView, component } = useDesk();
  const grid = chosen.grid;
  const h = grid?.wished ?? null;
  const [key, setKey] = useState('all');
  const [every, setEvery] = useState(1);
  const [asked, setAsked] = useState('');
  const [copied, setCopied] = useState(false);
  const [place, setPlace] = useState({ run: '', from: 0 });
  const run = `${h ?? ''}/${every}`;
  const method = good.keys.indexOf(key);
  const steps = grid?.steps ?? 0;
  // the window goes with the chosen step until one leafs away from it
  const around = Math.max(0, view.depth === 'step' ? view.n - 4 : 0);
  const from = place.run === run ? place.from : around;
  const window = useMemo(
    () => (h === null ? null : { wish: { h }, from, count: STEPS_SHOWN, every }),
    [h, from, every],
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
    () => (problem === null ? [] : componentNames(problem).slice(0, MOST_COMPONENTS)),
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
    if (side.value === null) return;
    const text = sideText(
      side.value,
      independent,
      own.map(({ title }) => title),
    );
    void navigator.clipboard.writeText(text).then(() => setCopied(true));
  };
  const last = Math.max(0, steps - (STEPS_SHOWN - 1) * every);
  const isAsked = asked === '' || grid === null || pointAsked(asked, independent, grid) !== null;
  return (
    <section className="table-part" aria-label="Rows">
      <div className="table-head">
        <Select<string>
          size="small"
          aria-label="Methods whose rows are shown"
          value={method < 0 ? 'all' : key}
          options={[
            { value: 'all', label: 'all side by side' },
            ...own.map(({ key: value, title }) => ({ value, label: `${title}, every stage` })),
          ]}
          onChange={setKey}
          popupMatchSelectWidth={false}
        />
        {names.length > 1 && (
          <Select<number>
            size="small"
            aria-label="Component"
            value={Math.min(wanted, names.length - 1)}
            options={names.map((label, value) => ({ value, label }))}
            onChange={component.choose}
            popupMatchSelectWidth={false}
          />
        )}
        <Select<number>
          size="small"
          aria-label="Which rows"
          value={every}
          options={[1, 2, 4, 5, 10, 16, 20, 50, 100, 1000]
            .filter((k) => k === 1 || k < steps)
            .map((value) => ({ value, label: value === 1 ? 'every row' : `every ${value}th row` }))}
          onChange={setEvery}
          popupMatchSelectWidth={false}
        />
        <Input
          size="small"
          className="go-to"
          aria-label="Go to n or time"
          placeholder={`n = 12 or ${independent} = 0.5`}
          value={asked}
          status={isAsked ? '' : 'error'}
          onChange={(event) => setAsked(event.target.value)}
          onPressEnter={goTo}
        />
        {method < 0 && (
          <Button size="small" onClick={copy} onBlur={() => setCopied(false)}>
            {copied ? 'Copied' : 'Copy rows'}
          </Button>
        )}
        {steps + 1 > STEPS_SHOWN * every && (
          <nav className="pages" aria-label="Rows shown">
            <Button size="small" disabled={from === 0} onClick={() => toPoint(0)}>
              first
            </Button>
            <Button
              size="small"
              disabled={from === 0}
              onClick={() => toPoint(Math.max(0, from - STEPS_SHOWN * every))}
            >
              before
            </Button>
            <span className="quiet">
              from n = {count(from)} of {count(steps)}
            </span>
            <Button
              size="small"
              disabled={from >= last}
              onClick={() => toPoint(Math.min(last, from + STEPS_SHOWN * every))}
            >
              next
            </Button>
            <Button size="small" disabled={from >= last} onClick={() => toPoint(last)}>
              last
            </Button>
          </nav>
        )}
      </div>
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
            onStep={(n, at) => setView({ depth: 'step', n: Math.min(n, Math.max(0, steps - 1)), method: at })}
          />
          {side.value.stopped.map(
            (why, i) =>
              why !== null && (
                <p key={own[i]?.key ?? i} className="wrong">
                  {own[i]?.title} left the numbers in {why}.
                </p>
              ),
          )}
        </>
      )}
      {method >= 0 && rows.value !== null && (
        <StepsTable window={rows.value} independent={independent} onMark={setMarked} />
      )}
    </section>
  );
}
