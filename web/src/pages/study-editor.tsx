import type { StudyDocument } from '@schritt/core/document';
import {
  type ComponentType,
  memo,
  type ReactNode,
  Suspense,
  useCallback,
  useDeferredValue,
  useMemo,
  useState,
} from 'react';
import type { Entry } from '../api/client.ts';
import { StudyStateContext, type StudyWork } from '../state/study-state.ts';
import { IsKeptContext } from '../state/is-kept.ts';
import { useAutosave } from '../state/use-autosave.ts';
import { historyKeeper } from '../state/kept-history.ts';
import { useHistory } from '../state/use-history.ts';
import { hasErrors } from '../state/use-reading.ts';
import { keepUnsaved } from '../state/unsaved.ts';
import { useUnsaved } from '../state/use-unsaved.ts';
import type { UnsavedOfferProps } from '../entries/unsaved-offer.tsx';
import { useStep } from '../state/use-results.ts';
import { useStudyEditing } from '../state/use-study-editing.ts';
import { WorkedStepContext } from '../state/use-worked-step.ts';
import { type Depth, type Panel, USUAL, USUAL_PANELS } from '../state/view.ts';
import { documentOf, STUDY_HISTORY, workOn, type WorkingStudy } from '../state/working-study.ts';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { TopBar } from '../frame/top-bar.tsx';
import { usePageTitle } from '../frame/use-page-title.ts';
import { designed } from '../theme/designed.tsx';
import { StepRuler } from '../ruler/step-ruler.tsx';
import { useKeys } from '../step/use-keys.ts';
import { TablePart } from '../tables/table-part.tsx';
import type { StepView } from '../worker/messages.ts';
import type { Computed } from '../worker/use-work.ts';
import './study-editor.css';
import './class-view.css';
import './study-sheet.css';

/** Parts that are fetched, all of them at once, when one of them is first shown. */
function part<Props extends object>(
  pick: (parts: typeof import('./study-parts.ts')) => ComponentType<Props>,
): ComponentType<Props> {
  return designed(async () => pick(await import('./study-parts.ts')));
}

// parts follow single fields of the state: they are rendered when one of these changes, not with the page
const Bar = memo(part(({ StudyBar }) => StudyBar));
const Guard = part(({ LeaveGuard }) => LeaveGuard);
const Offer = part<UnsavedOfferProps<StudyDocument>>(({ UnsavedOffer }) => UnsavedOffer);
const Head = memo(part(({ StepHead }) => StepHead));
const Ruler = memo(StepRuler);
const Rungs = memo(TablePart);
const Keys = part(({ KeyList }) => KeyList);
const Panels = memo(part(({ ClassPanels }) => ClassPanels));
const Statement = memo(part(({ StatementColumn }) => StatementColumn));
const PlotPanel = memo(part(({ PlotFrame }) => PlotFrame));
const Rows = memo(part(({ RunPart }) => RunPart));
const Worked = memo(part(({ WorkedPart }) => WorkedPart));
const Findings = memo(part(({ FindingsList }) => FindingsList));
const Comparison = memo(part(({ ComparisonPart }) => ComparisonPart));

/** A part that is fetched, or its place until it is there; a failure stays in it. */
function Place({
  isWhole,
  what,
  of,
  place = null,
  children,
}: {
  /** Whether the parts beside the numbers are made already; before, their places are kept. */
  readonly isWhole: boolean;
  /** What cannot be shown when it fails, and at which change it is tried again. */
  readonly what: string;
  readonly of: unknown;
  /** Default: nothing. */
  readonly place?: ReactNode;
  readonly children: ReactNode;
}): ReactNode {
  if (!isWhole) return place;
  return (
    <ErrorBoundary what={what} of={of}>
      <Suspense fallback={place}>{children}</Suspense>
    </ErrorBoundary>
  );
}

interface PlaceProps {
  readonly study: WorkingStudy;
  readonly isWhole: boolean;
}

/** The bar at the top; before it is there, the title alone. */
function BarPlace({ study, isWhole, children }: PlaceProps & { readonly children: ReactNode }): ReactNode {
  const place = <TopBar title={<h1>{study.title}</h1>} />;
  return (
    <Place isWhole={isWhole} what="The bar" of={study} place={place}>
      {children}
    </Place>
  );
}

/** The choice of panels in the presentation view. */
function PanelsPlace({ study, isWhole }: PlaceProps): ReactNode {
  return (
    <Place isWhole={isWhole} what="The choice of panels" of={study}>
      <Panels />
    </Place>
  );
}

/** The step size in large type. */
function HeadPlace({ study, isWhole }: PlaceProps): ReactNode {
  return (
    <Place isWhole={isWhole} what="The step size" of={study} place={<div className="step-now" />}>
      <Head />
    </Place>
  );
}

/** The problem, the methods and the step sizes. */
function StatementPlace({ study, isWhole }: PlaceProps): ReactNode {
  return (
    <Place isWhole={isWhole} what="The panel" of={study} place={<div className="statement-column" />}>
      <Statement />
    </Place>
  );
}

/** The plots. */
function PlotPlaces({
  study,
  isWhole,
  inClass,
  hasSecond,
}: PlaceProps & { readonly inClass: boolean; readonly hasSecond: boolean }): ReactNode {
  const plot = (area: 'large' | 'beside', what: string): ReactNode => (
    <Place
      isWhole={isWhole}
      what={what}
      of={study}
      place={<div className={`plot-panel plot-panel-${area}`} />}
    >
      <PlotPanel area={area} key={String(inClass)} />
    </Place>
  );
  return (
    <>
      {plot('large', 'The main plot')}
      {hasSecond && plot('beside', 'The second plot')}
    </>
  );
}

/** What is under the plots, by level. */
function Below({
  depth,
  shows,
  isWhole,
}: Pick<PlaceProps, 'isWhole'> & {
  readonly depth: Depth;
  readonly shows: (panel: Panel) => boolean;
}): ReactNode {
  const [table, words] = [shows('table'), shows('words')];
  if (depth === 'study')
    return (
      <>
        {table && (
          <ErrorBoundary what="The table" of={depth}>
            <Rungs />
          </ErrorBoundary>
        )}
        {words && (
          <aside className="sentences" aria-label="Findings">
            <Place isWhole={isWhole} what="The findings" of={depth}>
              <Findings />
              <Comparison />
            </Place>
          </aside>
        )}
      </>
    );
  return (
    <>
      {table && (
        <Place isWhole={isWhole} what="The rows" of={depth}>
          <Rows />
        </Place>
      )}
      {words && depth === 'step' && (
        <Place isWhole={isWhole} what="The step" of={depth}>
          <Worked />
        </Place>
      )}
    </>
  );
}

/** The work of the chosen step, for all parts that show it; only while one does. */
function useStepOf(work: StudyWork): Computed<StepView> {
  const { view, chosen, good } = work;
  const usual = USUAL[view.depth];
  const isShown =
    view.depth === 'step' || [view.large ?? usual.large, view.beside ?? usual.beside].includes('slopes');
  const h = chosen.grid?.wished ?? null;
  const method = Math.min(view.method, Math.max(0, good.keys.length - 1));
  const { n, component } = view;
  const gridRequest = useMemo(
    () =>
      isShown && h !== null && good.keys.length > 0 ? { method, gridRequest: { h }, n, component } : null,
    [isShown, h, good.keys.length, method, n, component],
  );
  return useStep(good.document, gridRequest);
}

/** One study on one page: its parts are in fixed places and move together. */
export function StudyEditor(props: {
  readonly document: StudyDocument;
  /** Where it is stored; null for a page that keeps nothing. */
  readonly entry: Entry<StudyDocument> | null;
}): ReactNode {
  // the copy that was opened; from here on this page holds the newest one itself
  const [{ entry, document: opened }] = useState(props);
  const [first] = useState(() => workOn(opened));
  const keeper = useMemo(
    () => (entry === null ? null : historyKeeper(entry.id, 'study', STUDY_HISTORY)),
    [entry],
  );
  const onChange = (changed: WorkingStudy): void => {
    if (entry === null) return;
    const draft = { version: entry.version, at: Date.now(), document: documentOf(changed) };
    void keepUnsaved('study', entry.id, draft);
  };
  const { value: study, edit, undo, redo } = useHistory(first, onChange, keeper);
  const document = useMemo(() => (study === first ? opened : documentOf(study)), [study, first, opened]);
  const autosave = useAutosave('study', entry, document);
  const left = useUnsaved('study', entry);
  const take = useCallback((other: StudyDocument) => edit('other copy', () => workOn(other)), [edit]);
  const { store, work } = useStudyEditing(study, edit);
  usePageTitle(study.title);
  const step = useStepOf(work);
  const [keysShown, setKeysShown] = useState(false);
  const { good, view, setView } = work;
  const panels = view.panels ?? USUAL_PANELS[view.depth];
  const shows = (panel: Panel): boolean => !view.inClass || panels.includes(panel);
  // what is shown is from the text before, while the one that is there has errors
  const isOlder = [good.problem, ...good.methods].some(({ now }) => hasErrors(now));
  const showKeys = useCallback(() => setKeysShown(true), []);
  useKeys(store, step.value?.worked.lines.length ?? 0, showKeys);
  // numbers come first: what is beside them is made right after the first picture, in the places that are kept for it
  const isWhole = useDeferredValue(true, false);
  return (
    <StudyStateContext value={store}>
      <IsKeptContext value={entry !== null}>
        <WorkedStepContext value={step}>
          <div className="page-frame">
            {!view.inClass && (
              <BarPlace study={study} isWhole={isWhole}>
                <Bar
                  document={document}
                  edit={edit}
                  undo={undo}
                  redo={redo}
                  autosave={autosave}
                  onUse={take}
                  setView={setView}
                  showKeys={showKeys}
                  entry={entry}
                />
              </BarPlace>
            )}
            <Place isWhole={isWhole} what="The dialog" of={study}>
              {keysShown && <Keys onClose={() => setKeysShown(false)} />}
              <Guard state={autosave.state} isSaved={autosave.isSaved} />
              {left !== null && <Offer left={left} onUse={take} />}
            </Place>
            <main
              className={[
                'study-editor',
                `depth-${view.depth}`,
                study.methods.length > 3 ? 'many' : '',
                isOlder ? 'older' : '',
                view.folded ? 'statement-folded' : '',
                view.inClass ? 'in-class' : '',
                ...(view.inClass ? panels.map((panel) => `with-${panel}`) : []),
              ].join(' ')}
            >
              <HeadPlace study={study} isWhole={isWhole} />
              {view.inClass && <PanelsPlace study={study} isWhole={isWhole} />}
              <div className="ruler-strip">
                <ErrorBoundary what="The ruler" of={study}>
                  <Ruler />
                </ErrorBoundary>
              </div>
              {!view.inClass && <StatementPlace study={study} isWhole={isWhole} />}
              {isOlder && (
                <p className="older-note" role="status">
                  Showing the last valid input; the current text has errors.
                </p>
              )}
              <PlotPlaces
                study={study}
                isWhole={isWhole}
                inClass={view.inClass}
                hasSecond={shows('beside')}
              />
              <Below depth={view.depth} shows={shows} isWhole={isWhole} />
            </main>
          </div>
        </WorkedStepContext>
      </IsKeptContext>
    </StudyStateContext>
  );
}
