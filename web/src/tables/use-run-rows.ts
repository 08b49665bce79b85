import { Computer } from '../worker/computer.ts';
import type { Computed } from '../worker/use-work.ts';
import type { RowsWindow, SideRows } from '../worker/messages.ts';
import { useMemo, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { useRows, useSide } from '../state/use-results.ts';
import { timesToShow } from './rows-asked.ts';
import { STEPS_SHOWN } from './steps-table.tsx';

/** What represents a list of times among the strides. */
export const TIMES = 0;

/** A method of the study as the tables name it. */
export interface MethodOfRows {
  readonly key: string;
  readonly title: string;
  readonly place: number;
}

/** Which rows of the chosen run are shown, and the rows. */
export interface RunRows {
  readonly methods: readonly MethodOfRows[];
  /** The place of the method whose stages are shown; below 0 for all methods side by side. */
  readonly method: number;
  readonly chooseMethod: (key: string) => void;
  /** Whether rows side by side have the first components together, and stages. */
  readonly together: boolean;
  readonly setTogether: (together: boolean) => void;
  readonly stages: boolean;
  readonly setStages: (stages: boolean) => void;
  /** Every k-th row, or `TIMES`. */
  readonly stride: number;
  readonly setStride: (stride: number) => void;
  /** Times as they are typed, and what they come to; null where none are asked for. */
  readonly times: string;
  readonly setTimes: (times: string) => void;
  readonly byTimes: ReturnType<typeof timesToShow> | null;
  /** Whether rows follow one another, so that pages can be turned. */
  readonly isPaged: boolean;
  readonly from: number;
  readonly every: number;
  readonly steps: number;
  readonly goTo: (n: number) => void;
  /** All rows of what is shown, and not one window of them: at most so many. */
  readonly all: () => Promise<AllRows | null>;
  readonly side: Computed<SideRows>;
  readonly rows: Computed<RowsWindow>;
}

/** Most components that are shown together side by side. */
export const MAX_TOGETHER = 4;

/** Most rows that are taken at once. */
export const MAX_ROWS = 50_000;

/** All rows of one method, or of all methods side by side. */
export type AllRows =
  { readonly kind: 'rows'; readonly window: RowsWindow } | { readonly kind: 'side'; readonly side: SideRows };

/** Chooses rows of the run at the chosen step size, and has them computed. */
export function useRunRows(): RunRows {
  const { good, chosen, methods, view, component, problem } = useStudyState(
    'good',
    'chosen',
    'methods',
    'view',
    'component',
    'problem',
  );
  const { grid } = chosen;
  const h = grid?.wished ?? null;
  const [key, setKey] = useState('all');
  const [stride, setStride] = useState(1);
  const [together, setTogether] = useState(false);
  const [stages, setStages] = useState(false);
  const [times, setTimes] = useState('');
  const [place, setPlace] = useState({ run: '', from: 0 });
  const every = Math.max(1, stride);
  const run = `${h ?? ''}/${every}`;
  const method = good.keys.indexOf(key);
  // the window goes with the chosen step until the page is turned
  const around = Math.max(0, view.depth === 'step' ? view.n - 4 : 0);
  const from = place.run === run ? place.from : around;
  const byTimes = useMemo(
    () => (stride === TIMES && grid !== null && times !== '' ? timesToShow(times, grid) : null),
    [stride, grid, times],
  );
  const points = byTimes !== null && 'points' in byTimes ? byTimes.points : null;
  const window = useMemo(
    () => (h === null ? null : { gridRequest: { h }, from, count: STEPS_SHOWN, every, points }),
    [h, from, every, points],
  );
  const { wanted } = component;
  const size = problem?.size ?? 1;
  const components = useMemo(
    () => (together ? Array.from({ length: Math.min(size, MAX_TOGETHER) }, (_, c) => c) : [wanted]),
    [together, size, wanted],
  );
  const sideRequest = useMemo(
    () => (window === null || method >= 0 ? null : { ...window, components, stages }),
    [window, method, components, stages],
  );
  const rowsRequest = useMemo(
    () => (window === null || method < 0 ? null : { ...window, method }),
    [window, method],
  );
  const side = useSide(good.document, sideRequest);
  const rows = useRows(good.document, rowsRequest);
  const all = async (): Promise<AllRows | null> => {
    const { document } = good;
    if (document === null) return null;
    const computer = new Computer();
    const whole = { from: 0, count: MAX_ROWS };
    try {
      if (rowsRequest !== null)
        return {
          kind: 'rows',
          window: await computer.ask('rows', { document, window: { ...rowsRequest, ...whole } }),
        };
      return sideRequest === null
        ? null
        : {
            kind: 'side',
            side: await computer.ask('side', { document, window: { ...sideRequest, ...whole } }),
          };
    } finally {
      computer.close();
    }
  };
  return {
    methods: good.keys.map((one) => ({
      key: one,
      title: methods.titleOf(one),
      place: methods.placeOf(one),
    })),
    method,
    chooseMethod: setKey,
    together,
    setTogether,
    stages,
    setStages,
    stride,
    setStride,
    times,
    setTimes,
    byTimes,
    isPaged: points === null,
    from,
    every,
    steps: grid?.steps ?? 0,
    goTo: (n) => setPlace({ run, from: n }),
    all,
    side,
    rows,
  };
}
