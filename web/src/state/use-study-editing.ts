import type { ParameterValues } from '@schritt/core/notation';
import { errorCaption, errorChoice } from '@schritt/core/study';
import type { KeyedResult } from '@schritt/plot';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { StoreApi } from 'zustand';
import { createStudyState, type StudyState, type StudyMethods, type StudyWork } from './study-state.ts';
import { drawnRuns } from './drawn-runs.ts';
import { useChosenStep } from './use-chosen-step.ts';
import { useGoodStudy } from './use-good-study.ts';
import type { Editing } from './use-history.ts';
import { useReading } from './use-reading.ts';
import { problemReader } from '../worker/text-reader.ts';
import { useCurves, useTheory, useResults } from './use-results.ts';
import { useView } from './use-view.ts';
import { movedWindow, withParameters, type WorkingMethod, type WorkingStudy } from './working-study.ts';

/** What can be done with the methods of a study. */
function useMethods(
  { methods }: WorkingStudy,
  edit: Editing<WorkingStudy>['edit'],
  keyed: KeyedResult | null,
  rows: readonly number[],
): StudyMethods {
  const placeOf = useCallback(
    (key: string) =>
      Math.max(
        0,
        methods.findIndex((m) => m.key === key),
      ),
    [methods],
  );
  const titleOf = useCallback((key: string) => methods.find((m) => m.key === key)?.title ?? '', [methods]);
  const change = useCallback(
    (key: string, about: string, make: (method: WorkingMethod) => WorkingMethod) =>
      edit(`${about} ${key}`, (now) => ({
        ...now,
        methods: now.methods.map((method) => (method.key === key ? make(method) : method)),
      })),
    [edit],
  );
  // what numbers come to is asked for when a window is moved, and makes no other functions of these
  const latest = useRef({ keyed, rows });
  useEffect(() => {
    latest.current = { keyed, rows };
  }, [keyed, rows]);
  const moveWindow = useCallback(
    (key: string, rung: number) => {
      const { keyed, rows } = latest.current;
      const fit = keyed?.result.methods[keyed.keys.indexOf(key)]?.fit ?? null;
      const ruled = fit === null ? null : { from: rows[fit.from] ?? 0, to: rows[fit.to] ?? 0 };
      change(key, 'window of', (method) => {
        const window = method.window ?? ruled;
        return window === null ? method : { ...method, window: movedWindow(window, rung) };
      });
    },
    [change],
  );
  return useMemo(() => ({ placeOf, titleOf, change, moveWindow }), [placeOf, titleOf, change, moveWindow]);
}

/** Reads the texts of a study under work and computes what they ask for. */
function useStudyWork(study: WorkingStudy, edit: Editing<WorkingStudy>['edit']): StudyWork {
  const [parameters, setParameters] = useState<ParameterValues>({});
  const typed = useReading(problemReader, study.problem.text).now;
  const problemAsTyped = typed.ok ? typed.value : null;
  const moved = useMemo(
    () => withParameters(study, problemAsTyped, parameters),
    [study, problemAsTyped, parameters],
  );
  const good = useGoodStudy(moved);
  const problem = good.problem.good?.value ?? null;
  const [view, setView] = useView();
  const chosen = useChosenStep(study, problem, edit, [view, setView]);
  const results = useResults(good.document, good.keys);
  const { ticked, method } = view;
  const runs = useMemo(
    () => drawnRuns(good.keys.length, chosen, { ticked, method }),
    [good.keys.length, chosen, ticked, method],
  );
  const curves = useCurves(good.document, good.keys, runs);
  const { proved, limits } = useTheory(good.document, good.keys, good.texts);
  const methods = useMethods(study, edit, results.value, chosen.rows);
  const chooseComponent = useCallback((component: number) => setView({ component }), [setView]);
  const component = useMemo(
    () => ({ wanted: view.component, choose: chooseComponent }),
    [view.component, chooseComponent],
  );
  const error = useMemo(() => errorChoice(study.error), [study.error]);
  const size = problem?.size ?? 1;
  const hasFamily = problem?.unknowns.some(({ range }) => range !== null) ?? false;
  const hasInvariants = (problem?.conserved.length ?? 0) > 0;
  const shape = useMemo(() => ({ size, hasFamily, hasInvariants }), [size, hasFamily, hasInvariants]);
  return {
    study,
    edit,
    good,
    parameters,
    setParameters,
    problem,
    shape,
    independent: problem?.independent ?? 't',
    error,
    caption: problem === null ? '' : errorCaption(problem, error),
    chosen,
    methods,
    proved,
    limits,
    results,
    curves,
    view,
    setView,
    component,
  };
}

/** The state of the editor of one study, kept in a store: parts of the page follow the fields that they show. */
export function useStudyEditing(
  study: WorkingStudy,
  edit: Editing<WorkingStudy>['edit'],
): { readonly store: StoreApi<StudyState>; readonly work: StudyWork } {
  const work = useStudyWork(study, edit);
  const [store] = useState(() => createStudyState(work));
  useLayoutEffect(() => store.setState(work), [store, work]);
  return { store, work };
}
