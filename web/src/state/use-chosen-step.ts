import type { Problem } from '@schritt/core/notation';
import { layGrid, layLadder } from '@schritt/core/study';
import { useCallback, useMemo } from 'react';
import type { ChosenStep } from './study-state.ts';
import type { Editing } from './use-history.ts';
import type { View } from './view.ts';
import { withRungOf, type WorkingStudy } from './working-study.ts';

/** What is looked at, and how that is changed. */
type ViewState = readonly [view: Pick<View, 'rung' | 'steps'>, change: (change: Partial<View>) => void];

/** Which step size is chosen: a rung of the ladder, or a number of steps between the rungs. */
export function useChosenStep(
  study: WorkingStudy,
  problem: Problem | null,
  edit: Editing<WorkingStudy>['edit'],
  [{ rung: wanted, steps: free }, change]: ViewState,
): ChosenStep {
  const { ladder, lastStep = 'fit' } = study;
  // most changes of a problem leave its interval, and with it the step sizes, as they are
  const [start, end] = [problem?.start ?? null, problem?.end ?? null];
  const rungs = useMemo(
    () => (start === null || end === null ? [] : layLadder(ladder, start, end, lastStep)),
    [start, end, ladder, lastStep],
  );
  const rows = useMemo(() => rungs.flatMap((rung, i) => (rung.ok ? [i] : [])), [rungs]);
  const chosen = rows.includes(wanted) ? wanted : (rows.filter((i) => i < wanted).at(-1) ?? rows[0] ?? 0);
  const rung = rungs[chosen];
  const grid = useMemo(() => {
    if (free !== null && start !== null && end !== null) return layGrid(start, end, { steps: free });
    return rung?.ok === true ? rung.grid : null;
  }, [free, start, end, rung]);
  const choose = useCallback((rung: number) => change({ rung, steps: null, n: 0 }), [change]);
  const chooseSteps = useCallback((steps: number) => change({ steps, n: 0 }), [change]);
  const chooseRow = useCallback((row: number) => choose(rows[row] ?? 0), [rows, choose]);
  const addAsRung = useMemo(() => {
    if (free === null || start === null || end === null || grid === null) return null;
    return () => {
      edit('ladder', (now) => withRungOf(now, free, end - start));
      choose(rungs.filter((other) => other.ok && other.grid.h > grid.h).length);
    };
  }, [free, start, end, grid, rungs, edit, choose]);
  return useMemo(
    () => ({
      rungs,
      rows,
      rung: free === null ? chosen : -1,
      grid,
      now: grid && { h: grid.h, steps: grid.steps, rung: free === null ? chosen : null },
      choose,
      chooseRow,
      chooseSteps,
      addAsRung,
    }),
    [rungs, rows, free, chosen, grid, choose, chooseRow, chooseSteps, addAsRung],
  );
}
