import { LONGEST_TITLE, type StudyDocument } from '@schritt/core/document';
import { Button, Input } from 'antd';
import { memo, type ReactNode, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Entry } from '../api/client.ts';
import { StudyStateContext, type StudyWork } from '../state/study-state.ts';
import { IsKeptContext } from '../state/is-kept.ts';
import { type Autosave, useAutosave } from '../state/use-autosave.ts';
import { historyKeeper } from '../state/kept-history.ts';
import { type Editing, useHistory } from '../state/use-history.ts';
import { hasErrors } from '../state/use-reading.ts';
import { keepUnsaved } from '../state/unsaved.ts';
import { useUnsaved } from '../state/use-unsaved.ts';
import { useStep } from '../state/use-results.ts';
import { useStudyEditing } from '../state/use-study-editing.ts';
import { WorkedStepContext } from '../state/use-worked-step.ts';
import { type Depth, type Panel, USUAL, USUAL_PANELS } from '../state/view.ts';
import { documentOf, STUDY_HISTORY, workOn, type WorkingStudy } from '../state/working-study.ts';
import { LeaveGuard } from '../entries/leave-guard.tsx';
import { SaveStatus } from '../entries/save-status.tsx';
import { ShowButton } from '../entries/show-button.tsx';
import { UndoButtons } from '../entries/undo-buttons.tsx';
import { UnsavedOffer } from '../entries/unsaved-offer.tsx';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { TopBar } from '../frame/top-bar.tsx';
import { usePageTitle } from '../frame/use-page-title.ts';
import { PlotFrame } from '../panels/plot-frame.tsx';
import { StepRuler } from '../ruler/step-ruler.tsx';
import { ComparisonPart } from '../sentences/comparison-part.tsx';
import { FindingsList } from '../sentences/findings-list.tsx';
import { ClassPanels } from '../step/class-panels.tsx';
import { KeyList } from '../step/key-list.tsx';
import { StepHead } from '../step/step-head.tsx';
import { useKeys } from '../step/use-keys.ts';
import { WorkedPart } from '../step/worked-part.tsx';
import { StatementColumn } from '../statement/statement-column.tsx';
import { RunPart } from '../tables/run-part.tsx';
import { TablePart } from '../tables/table-part.tsx';
import { ExportButton } from '../export/export-button.tsx';
import type { StepView } from '../worker/messages.ts';
import type { Computed } from '../worker/use-work.ts';
import './study-editor.css';
import './class-view.css';
import './study-sheet.css';

// parts follow single fields of the state: they are rendered when one of these changes, not with the page
const Bar = memo(StudyBar);
const Head = memo(StepHead);
const Panels = memo(ClassPanels);
const Ruler = memo(StepRuler);
const Statement = memo(StatementColumn);
const PlotPanel = memo(PlotFrame);
const Rungs = memo(TablePart);
const Rows = memo(RunPart);
const Worked = memo(WorkedPart);
const Findings = memo(FindingsList);
const Comparison = memo(ComparisonPart);

interface StudyBarProps extends Pick<Editing<WorkingStudy>, 'edit' | 'undo' | 'redo'> {
  readonly document: StudyDocument;
  readonly autosave: Autosave<StudyDocument>;
  readonly onUse: (other: StudyDocument) => void;
  readonly setView: StudyWork['setView'];
  readonly showKeys: () => void;
  readonly entry: Entry<StudyDocument> | null;
}

/** The title of a study, to be typed over. */
const TitleInput = memo(function TitleInput({
  title,
  edit,
}: Pick<StudyBarProps, 'edit'> & { readonly title: string }): ReactNode {
  return (
    <Input
      variant="borderless"
      value={title}
      maxLength={LONGEST_TITLE}
      aria-label="Title of the study"
      onChange={(event) => edit('title', (now) => ({ ...now, title: event.target.value }))}
    />
  );
});

/** What is done with all of a study. */
const StudyActions = memo(function StudyActions({
  setView,
  showKeys,
  entry,
}: Pick<StudyBarProps, 'setView' | 'showKeys' | 'entry'>): ReactNode {
  const navigate = useNavigate();
  return (
    <>
      <Button title="Large type and few panels (c)" onClick={() => setView({ inClass: true })}>
        Presentation view
      </Button>
      <Button aria-label="Keyboard shortcuts" title="Keyboard shortcuts (?)" onClick={showKeys}>
        ?
      </Button>
      <ExportButton />
      {entry !== null && (
        <Button
          title="Mark rows of students against this study"
          onClick={() => void navigate(`/marking?study=${encodeURIComponent(entry.id)}`)}
        >
          Mark
        </Button>
      )}
      {entry !== null && <ShowButton id={entry.id} first={entry.shownAt} />}
    </>
  );
});

/** The bar at the top of a study: its title, and what is done with all of it. */
function StudyBar({
  document,
  edit,
  undo,
  redo,
  autosave,
  onUse,
  setView,
  showKeys,
  entry,
}: StudyBarProps): ReactNode {
  return (
    <TopBar
      title={<TitleInput title={document.title} edit={edit} />}
      actions={
        <>
          <SaveStatus kind="study" document={document} autosave={autosave} onUse={onUse} path="/studies" />
          <UndoButtons undo={undo} redo={redo} />
          <StudyActions setView={setView} showKeys={showKeys} entry={entry} />
        </>
      }
    />
  );
}

interface PlaceProps {
  readonly study: WorkingStudy;
  /** Whether the parts beside the numbers are made already; before, their places are kept. */
  readonly isWhole: boolean;
}

/** The problem, the methods and the step sizes, or their place. */
function StatementPlace({ study, isWhole }: PlaceProps): ReactNode {
  if (!isWhole) return <div className="statement-column" />;
  return (
    <ErrorBoundary what="The panel" of={study}>
      <Statement />
    </ErrorBoundary>
  );
}

/** The plots, or their places. */
function PlotPlaces({
  study,
  isWhole,
  inClass,
  hasSecond,
}: PlaceProps & { readonly inClass: boolean; readonly hasSecond: boolean }): ReactNode {
  if (!isWhole)
    return (
      <>
        <div className="plot-panel plot-panel-large" />
        {hasSecond && <div className="plot-panel plot-panel-beside" />}
      </>
    );
  return (
    <>
      <ErrorBoundary what="The main plot" of={study}>
        <PlotPanel area="large" key={String(inClass)} />
      </ErrorBoundary>
      {hasSecond && (
        <ErrorBoundary what="The second plot" of={study}>
          <PlotPanel area="beside" key={String(inClass)} />
        </ErrorBoundary>
      )}
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
            {isWhole && (
              <ErrorBoundary what="The findings" of={depth}>
                <Findings />
                <Comparison />
              </ErrorBoundary>
            )}
          </aside>
        )}
      </>
    );
  return (
    <>
      {table && (
        <ErrorBoundary what="The rows" of={depth}>
          <Rows />
        </ErrorBoundary>
      )}
      {words && depth === 'step' && (
        <ErrorBoundary what="The step" of={depth}>
          <Worked />
        </ErrorBoundary>
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
            )}
            {keysShown && <KeyList onClose={() => setKeysShown(false)} />}
            <LeaveGuard state={autosave.state} isSaved={autosave.isSaved} />
            <UnsavedOffer left={left} onUse={take} />
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
              <ErrorBoundary what="The step size" of={study}>
                <Head />
              </ErrorBoundary>
              {view.inClass && <Panels />}
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
                inClass={view.inClass}
                hasSecond={shows('beside')}
                isWhole={isWhole}
              />
              <Below depth={view.depth} shows={shows} isWhole={isWhole} />
            </main>
          </div>
        </WorkedStepContext>
      </IsKeptContext>
    </StudyStateContext>
  );
}
