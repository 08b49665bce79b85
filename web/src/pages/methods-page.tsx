import { LIBRARY, methodTex } from '@schritt/core/notation';
import type { TableColumnsType, TableColumnType } from 'antd';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import type { EntryRow } from '../api/client.ts';
import { EntryList } from '../entries/entry-list.tsx';
import { hasErrors, useReading } from '../state/use-reading.ts';
import type { MethodFacts } from '../worker/method-facts.ts';
import { methodReader } from '../worker/text-reader.ts';
import { type Ask, useComputed } from '../worker/use-work.ts';
import { Tex } from '../math/tex.tsx';
import './methods-page.css';

/** Longest text that a list reads and sets; of a longer one it shows the beginning as it is. */
const LONGEST = 1199;

/** The whole formula of a method, and where it comes from if it is one of the library. */
function FormulaPreview({ text }: { readonly text: string }): ReactNode {
  const { now, good } = useReading(methodReader, text.length > LONGEST ? '' : text);
  const lines = useMemo(() => (good === null ? null : methodTex(good)), [good]);
  const known = LIBRARY.find((method) => method.text === text);
  if (text.length > LONGEST) return <code>{text.split('\n', 1)[0]?.slice(0, 80)} …</code>;
  if (lines === null) return hasErrors(now) ? <span className="wrong">text with errors</span> : null;
  return (
    <span className="formula-preview">
      {lines.map((line, i) => (
        <span key={`${i}${line}`}>
          <Tex tex={line} />
        </span>
      ))}
      {known !== undefined && <small className="quiet">{known.source}</small>}
    </span>
  );
}

/** The facts of methods by their texts; null until they are known. */
function useFacts(rows: readonly EntryRow[] | null): ReadonlyMap<string, MethodFacts> | null {
  const texts = useMemo(
    () => rows?.map(({ excerpt }) => excerpt).filter((text) => text.length <= LONGEST) ?? [],
    [rows],
  );
  const ask = useMemo(
    (): Ask<readonly (MethodFacts | null)[]> => (computer, progress) =>
      computer.ask('facts', { texts }, progress),
    [texts],
  );
  const { value } = useComputed(ask);
  return useMemo(() => {
    if (value === null) return null;
    return new Map(
      value.flatMap((facts, i) => {
        const text = texts[i];
        return facts === null || text === undefined ? [] : [[text, facts]];
      }),
    );
  }, [value, texts]);
}

/** A column of one fact, by which the list is sorted and filtered. */
function factColumn(
  facts: ReadonlyMap<string, MethodFacts>,
  {
    key,
    title,
    width,
    of,
  }: {
    readonly key: string;
    readonly title: string;
    readonly width: number;
    readonly of: (facts: MethodFacts) => string;
  },
): TableColumnType<EntryRow> {
  const textOf = ({ excerpt }: EntryRow): string => {
    const found = facts.get(excerpt);
    return found === undefined ? '' : of(found);
  };
  const all = [...new Set([...facts.values()].map(of))].filter((text) => text !== '');
  const compare = (a: string, b: string): number => a.localeCompare(b, 'en', { numeric: true });
  return {
    key,
    title,
    width,
    render: (_, row) => textOf(row),
    sorter: (a, b) => compare(textOf(a), textOf(b)),
    filters: all.sort(compare).map((text) => ({ text, value: text })),
    onFilter: (chosen, row) => textOf(row) === chosen,
  };
}

/** Methods of one family together, in it by order, then by title. */
function byFamily(facts: ReadonlyMap<string, MethodFacts>): (a: EntryRow, b: EntryRow) => number {
  return (a, b) => {
    const [one, other] = [facts.get(a.excerpt), facts.get(b.excerpt)];
    return (
      (one?.family ?? '').localeCompare(other?.family ?? '') ||
      (one?.order ?? 0) - (other?.order ?? 0) ||
      a.title.localeCompare(b.title)
    );
  };
}

/** Milliseconds for which the list waits for its facts; if they come later, its rows keep their places. */
const HOLD = 1500;

/** Whether facts are still waited for, came in time for the list to be grouped by them, or did not. */
function useArrival(hasCome: boolean): 'waiting' | 'in time' | 'late' {
  const [arrival, setArrival] = useState<'waiting' | 'in time' | 'late'>('waiting');
  if (hasCome && arrival === 'waiting') setArrival('in time');
  useEffect(() => {
    const timer = setTimeout(() => setArrival((now) => (now === 'waiting' ? 'late' : now)), HOLD);
    return () => clearTimeout(timer);
  }, []);
  return arrival;
}

/** Family, order, stages, explicit or implicit, and A-stability of methods; null while they are waited for. */
function useMethodColumns(rows: readonly EntryRow[] | null): TableColumnsType<EntryRow> | null {
  const facts = useFacts(rows);
  const arrival = useArrival(facts !== null);
  return useMemo(
    () =>
      facts === null
        ? arrival === 'waiting'
          ? null
          : []
        : [
            {
              ...factColumn(facts, {
                key: 'family',
                title: 'Family',
                width: 130,
                of: ({ family }) => family,
              }),
              sorter: byFamily(facts),
              ...(arrival === 'late' ? {} : { defaultSortOrder: 'ascend' as const }),
            },
            factColumn(facts, {
              key: 'order',
              title: 'Order',
              width: 94,
              of: ({ order }) => (order === null ? '' : String(Math.max(0, order))),
            }),
            factColumn(facts, {
              key: 'stages',
              title: 'Stages',
              width: 100,
              of: ({ stages }) => (stages === null ? '' : String(stages)),
            }),
            factColumn(facts, {
              key: 'type',
              title: 'Type',
              width: 100,
              of: ({ isImplicit }) => (isImplicit ? 'implicit' : 'explicit'),
            }),
            factColumn(facts, {
              key: 'stability',
              title: 'Stable',
              width: 98,
              of: ({ stability }) => stability,
            }),
          ],
    [facts, arrival],
  );
}

/** All methods. */
export function MethodsPage(): ReactNode {
  return (
    <EntryList
      kind="method"
      heading="Methods"
      empty="No methods yet. A method is a formula that advances y by one step of size h."
      path="/methods"
      blank={{ schritt: 1, kind: 'method', title: 'New method', text: 'k1 = f(t, y)\ny[n+1] = y + h*k1\n' }}
      newLabel="New method"
      preview={(row) => <FormulaPreview text={row.excerpt} />}
      useColumns={useMethodColumns}
    />
  );
}
