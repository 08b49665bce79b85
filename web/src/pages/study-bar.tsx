import { LONGEST_TITLE, type StudyDocument } from '@schritt/core/document';
import { Button, Input } from 'antd';
import { memo, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import type { Entry } from '../api/client.ts';
import type { StudyWork } from '../state/study-state.ts';
import type { Autosave } from '../state/use-autosave.ts';
import type { Editing } from '../state/use-history.ts';
import type { WorkingStudy } from '../state/working-study.ts';
import { SaveStatus } from '../entries/save-status.tsx';
import { ShowButton } from '../entries/show-button.tsx';
import { UndoButtons } from '../entries/undo-buttons.tsx';
import { ExportButton } from '../export/export-button.tsx';
import { TopBar } from '../frame/top-bar.tsx';

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
export function StudyBar({
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
