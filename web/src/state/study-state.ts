import { type RungColumn, USUAL_RUNG_COLUMNS } from '@schritt/core/document';
import type { ErrorChoice, Grid, Rung } from '@schritt/core/study';
import type { ParameterValues, Problem } from '@schritt/core/notation';
import type { KeyedCurves, KeyedResult } from '@schritt/plot';
import { createContext, useContext } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { Computed } from '../worker/use-work.ts';
import type { GoodStudy } from './use-good-study.ts';
import type { Editing } from './use-history.ts';
import type { View } from './view.ts';
import type { WorkingMethod, WorkingStudy } from './working-study.ts';

/** Rungs that a finding speaks of: of one method, or of all where the key is null. */
export interface Pointed {
  readonly key: string | null;
  readonly rows: readonly number[];
}

/** The step size of the page: that of a rung, or one between the rungs that divides the interval. */
export interface StepNow {
  readonly h: number;
  readonly steps: number;
  /** Null between the rungs. */
  readonly rung: number | null;
}

/** The step size that is chosen, and how to choose another. */
export interface ChosenStep {
  /** All rungs of the ladder, and which of them each row of a table is. */
  readonly rungs: readonly Rung[];
  readonly rows: readonly number[];
  /** The chosen rung; -1 between the rungs. */
  readonly rung: number;
  /** The grid of the page; null where there is none. */
  readonly grid: Grid | null;
  readonly now: StepNow | null;
  readonly choose: (rung: number) => void;
  readonly chooseRow: (row: number) => void;
  /** Takes a number of steps that is no rung. */
  readonly chooseSteps: (steps: number) => void;
  /** Makes a rung of the chosen step size; null on a rung. */
  readonly addAsRung: (() => void) | null;
}

/** The methods of the study, by key, and what can be done with each. */
export interface StudyMethods {
  /** Place of a method in the study: its colour and marker. */
  readonly placeOf: (key: string) => number;
  readonly titleOf: (key: string) => string;
  readonly change: (key: string, about: string, change: (method: WorkingMethod) => WorkingMethod) => void;
  /** Moves the nearer end of a method's window to a rung; a window of the rules becomes the person's own. */
  readonly moveWindow: (key: string, rung: number) => void;
}

/** What of a problem decides which plots there are of it. */
export interface ProblemShape {
  readonly size: number;
  readonly hasFamily: boolean;
  readonly hasInvariants: boolean;
}

/** What is open and what is computed from it. */
export interface StudyWork {
  readonly study: WorkingStudy;
  readonly edit: Editing<WorkingStudy>['edit'];
  readonly good: GoodStudy;
  /** Values that sliders give to parameters; the text stays as it is. */
  readonly parameters: ParameterValues;
  readonly setParameters: (values: ParameterValues) => void;
  /** The last good problem; null before there was one. */
  readonly problem: Problem | null;
  /** Another object only where it is another shape. */
  readonly shape: ProblemShape;
  readonly independent: string;
  readonly error: ErrorChoice;
  /** What the errors are, as a sentence. */
  readonly caption: string;
  readonly chosen: ChosenStep;
  readonly methods: StudyMethods;
  /** The proved order of a method in a few words, by its text; null where none is proved. */
  readonly proved: ReadonlyMap<string, string | null>;
  /** The largest h at which the runs of a method do not grow, by key; null where none is known. */
  readonly limits: ReadonlyMap<string, number | null>;
  readonly results: Computed<KeyedResult>;
  readonly curves: Computed<KeyedCurves>;
  /** What the page shows: level, plot panels, step. */
  readonly view: View;
  readonly setView: (change: Partial<View>) => void;
  readonly component: { readonly wanted: number; readonly choose: (component: number) => void };
}

/** What the table of step sizes shows: an export of it begins with the same. */
export interface ShownTable {
  readonly columns: readonly RungColumn[];
  /** Digits of values at the end; null for all. */
  readonly digits: number | null;
}

/** What is pointed at, switched off and listed: it changes often, and nothing is computed from it. */
interface Pointing {
  /** Lines of the worked step that are shown while it is played; null for all. */
  readonly played: number | null;
  readonly setPlayed: (played: number | null) => void;
  /** A time that is pointed at; null for none. */
  readonly marked: number | null;
  readonly setMarked: (t: number | null) => void;
  readonly pointed: Pointed | null;
  readonly setPointed: (pointed: Pointed | null) => void;
  /** What the legends have switched off: keys of methods, `exact` for the solution. */
  readonly hidden: ReadonlySet<string>;
  readonly toggle: (id: string) => void;
  readonly table: ShownTable;
  readonly setTable: (change: Partial<ShownTable>) => void;
}

/** The state of the page of one study: what is chosen and what is computed, for all of its parts. */
export type StudyState = StudyWork & Pointing;

/** A store of the page of one study, which parts of the page subscribe to field by field. */
export function createStudyState(work: StudyWork): StoreApi<StudyState> {
  return createStore<StudyState>()((set) => ({
    ...work,
    played: null,
    setPlayed: (played) => set({ played }),
    marked: null,
    setMarked: (marked) => set({ marked }),
    pointed: null,
    setPointed: (pointed) => set({ pointed }),
    table: { columns: USUAL_RUNG_COLUMNS, digits: 10 },
    setTable: (change) => set(({ table }) => ({ table: { ...table, ...change } })),
    hidden: new Set<string>(),
    toggle: (id) =>
      set(({ hidden }) => {
        const next = new Set(hidden);
        if (!next.delete(id)) next.add(id);
        return { hidden: next };
      }),
  }));
}

export const StudyStateContext = createContext<StoreApi<StudyState> | null>(null);

function useStudyStore(): StoreApi<StudyState> {
  const store = useContext(StudyStateContext);
  if (store === null) throw new Error('this part of the page has no study state');
  return store;
}

/**
 * Fields of the state that a part of the page uses; the part is rendered again when one of them changes.
 *
 * @example const { view, setView } = useStudyState('view', 'setView');
 */
export function useStudyState<K extends keyof StudyState>(...fields: readonly K[]): Pick<StudyState, K> {
  const store = useStudyStore();
  // what is compared are the fields; the state that holds them is a new object after each change of any
  useStore(
    store,
    useShallow((now) => fields.map((field) => now[field])),
  );
  return store.getState();
}

/**
 * What a part of the page makes of the state; the part is rendered again when it is something else. Of arrays and
 * objects the entries are compared.
 *
 * @example const isFolded = useStudyValue(({ view }) => view.folded);
 */
export function useStudyValue<T>(pick: (state: StudyState) => T): T {
  return useStore(useStudyStore(), useShallow(pick));
}
