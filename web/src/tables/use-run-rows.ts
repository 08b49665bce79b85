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
  readonly side: Computed<SideRows>;
  readonly rows: Computed<RowsWindow>;
}

/** Chooses rows of the run at the chosen step size, and has them computed. */
export function useRunRows(): RunRows {
  const { good, chosen, methods, view, component } = useStudyState(
    'good',
    'chosen',
    'methods',
    'view',
    'component',
  );
  const { grid } = chosen;
  const h = grid?.wished ?? null;
  const [key, setKey] = useState('all');
  const [stride, setStride] = useState(1);
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
  const sideRequest = useMemo(
    () => (window === null || method >= 0 ? null : { ...window, component: wanted }),
    [window, method, wanted],
  );
  const rowsRequest = useMemo(
    () => (window === null || method < 0 ? null : { ...window, method }),
    [window, method],
  );
  const side = useSide(good.document, sideRequest);
  const rows = useRows(good.document, rowsRequest);
  return {
    methods: good.keys.map((one) => ({
      key: one,
      title: methods.titleOf(one),
      place: methods.placeOf(one),
    })),
    method,
    chooseMethod: setKey,
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
    side,
    rows,
  };
}
