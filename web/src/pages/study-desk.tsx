import { LONGEST_TITLE, type StudyDocument } from '@schritt/core/document';
import { stepSizeText } from '@schritt/core/notation';
import { Input } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import type { Entry } from '../api/client.ts';
import { DeskContext, useDesk } from '../desk/desk.ts';
import { useAutosave } from '../desk/use-autosave.ts';
import { useHistory } from '../desk/use-history.ts';
import { useUnsaved } from '../desk/use-unsaved.ts';
import { useStudyDesk } from '../desk/use-study-desk.ts';
import { documentOf, workOn } from '../desk/working-study.ts';
import { LeaveGuard } from '../entries/leave-guard.tsx';
import { SaveStatus } from '../entries/save-status.tsx';
import { ShowButton } from '../entries/show-button.tsx';
import { UndoButtons } from '../entries/undo-buttons.tsx';
import { UnsavedOffer } from '../entries/unsaved-offer.tsx';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { TopBar } from '../frame/top-bar.tsx';
import { OrderLens } from '../lenses/order-lens.tsx';
import { SolutionLens } from '../lenses/solution-lens.tsx';
import { StepRuler } from '../ruler/step-ruler.tsx';
import { ComparisonPart } from '../sentences/comparison-part.tsx';
import { FindingsList } from '../sentences/findings-list.tsx';
import { StatementColumn } from '../statement/statement-column.tsx';
import { TablePart } from '../tables/table-part.tsx';
import './study-desk.css';

/** The step size of the page in large type, and what is to be said of it. */
function StepHead(): ReactNode {
  const { chosen } = useDesk();
  const { grid, addAsRung } = chosen;
  if (grid === null)
    return (
      <div className="step-now">
        <h1>h</h1>
      </div>
    );
  return (
    <div className="step-now">
      <h1>{`h = ${stepSizeText(grid.h)}`}</h1>
      <p className="quiet">
        {grid.steps} {grid.steps === 1 ? 'step' : 'steps'} ·{' '}
        {addAsRung === null ? (
          grid.divides ? (
            'h divides the interval'
          ) : (
            `${stepSizeText(grid.wished)} does not divide the interval`
          )
        ) : (
          <button type="button" className="plain-button add-rung" onClick={addAsRung}>
            + as a rung
          </button>
        )}
      </p>
    </div>
  );
}

/** One study on one page: its parts stand in fixed places and move together. */
export function StudyDesk(props: {
  readonly document: StudyDocument;
  /** Where it is stored; null for a page that keeps nothing. */
  readonly entry: Entry<StudyDocument> | null;
}): ReactNode {
  // the copy that was opened; from here on this page holds the newest one itself
  const [{ entry, document: opened }] = useState(props);
  const [first] = useState(() => workOn(opened));
  const { value: study, edit, undo, redo } = useHistory(first);
  const document = useMemo(() => (study === first ? opened : documentOf(study)), [study, first, opened]);
  const autosave = useAutosave('study', entry, document);
  const left = useUnsaved('study', entry);
  const take = (other: StudyDocument): void => edit('other copy', () => workOn(other));
  const desk = useStudyDesk(study, edit);
  return (
    <DeskContext value={desk}>
      <div className="page-frame">
        <TopBar
          title={
            <Input
              variant="borderless"
              value={study.title}
              maxLength={LONGEST_TITLE}
              aria-label="Title of the study"
              onChange={(event) => edit('title', (now) => ({ ...now, title: event.target.value }))}
            />
          }
          actions={
            <>
              <SaveStatus autosave={autosave} onTake={take} path="/studies" />
              <UndoButtons undo={undo} redo={redo} />
              {entry !== null && <ShowButton id={entry.id} first={entry.shownAt} />}
            </>
          }
        />
        <LeaveGuard state={autosave.state} isSaved={autosave.isSaved} />
        <UnsavedOffer left={left} onTake={take} />
        <main className={study.methods.length > 3 ? 'study-desk many' : 'study-desk'}>
          <ErrorBoundary what="The step size" of={study}>
            <StepHead />
          </ErrorBoundary>
          <div className="ruler-strip">
            <ErrorBoundary what="The ruler" of={study}>
              <StepRuler />
            </ErrorBoundary>
          </div>
          <ErrorBoundary what="The statement" of={study}>
            <StatementColumn />
          </ErrorBoundary>
          <ErrorBoundary what="The solution" of={study}>
            <SolutionLens />
          </ErrorBoundary>
          <ErrorBoundary what="The order" of={study}>
            <OrderLens />
          </ErrorBoundary>
          <ErrorBoundary what="The table" of={study}>
            <TablePart />
          </ErrorBoundary>
          <aside className="sentences" aria-label="In words">
            <ErrorBoundary what="What it comes to" of={study}>
              <FindingsList />
              <ComparisonPart />
            </ErrorBoundary>
          </aside>
        </main>
      </div>
    </DeskContext>
  );
}
