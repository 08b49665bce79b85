import type { MethodDocument, ProblemDocument } from '@schritt/core/document';
import type { Hint } from '@schritt/core/notation';
import { Button, Input } from 'antd';
import { type ReactNode, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { createEntry, type DocumentOf, type Entry } from '../api/client.ts';
import type { Remark } from '../editor/diagnostics.ts';
import { LazyEditor } from '../editor/lazy-editor.tsx';
import { SaveStatus } from '../entries/save-status.tsx';
import { UndoButtons } from '../entries/undo-buttons.tsx';
import { UnsavedOffer } from '../entries/unsaved-offer.tsx';
import { LeaveGuard } from '../entries/leave-guard.tsx';
import { historyKeeper } from '../state/kept-history.ts';
import { keepUnsaved } from '../state/unsaved.ts';
import { useUnsaved } from '../state/use-unsaved.ts';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { useAutosave } from '../state/use-autosave.ts';
import { hasErrors, useReading } from '../state/use-reading.ts';
import type { TextReader } from '../worker/text-reader.ts';
import { useHistory } from '../state/use-history.ts';
import { TopBar } from '../frame/top-bar.tsx';
import { usePageTitle } from '../frame/use-page-title.ts';
import './text-workspace.css';

interface TextWorkspaceProps<K extends 'problem' | 'method', T> {
  readonly kind: K;
  readonly entry: Entry<DocumentOf<K>>;
  readonly document: (title: string, text: string) => DocumentOf<K>;
  readonly reader: TextReader<T>;
  /** A hook that returns the remarks shown beside the errors of a text that can be read. */
  readonly useRemarks?: (value: T | null) => readonly Remark[];
  /** What can be typed, by the last good reading. */
  readonly hintsOf: (value: T | null) => readonly Hint[];
  /** The last good reading, shown at the right. */
  readonly children: (
    value: T,
    more: { readonly title: string; readonly onText: (text: string) => void },
  ) => ReactNode;
  /** What is under the text. */
  readonly beside?: (value: T, onText: (text: string) => void) => ReactNode;
  /** A study that begins with this text. */
  readonly study: (title: string, text: string) => DocumentOf<'study'>;
}

interface TitledText {
  readonly title: string;
  readonly text: string;
}

function titledText({ title, text }: ProblemDocument | MethodDocument): TitledText {
  return { title, text };
}

const NO_REMARKS: readonly Remark[] = [];

function noRemarks(): readonly Remark[] {
  return NO_REMARKS;
}

/** A problem or a method of the library: its text at the left, what was understood at the right. */
export function TextWorkspace<K extends 'problem' | 'method', T>(props: TextWorkspaceProps<K, T>): ReactNode {
  const { kind, document: make, reader, hintsOf, useRemarks = noRemarks, children, beside, study } = props;
  // the copy that was opened; from here on this page holds the newest one itself
  const [entry] = useState(props.entry);
  const [first] = useState(() => titledText(entry.document));
  const keeper = useMemo(
    () =>
      historyKeeper<TitledText, K>(entry.id, kind, {
        write: ({ title, text }) => ({ document: make(title, text), keys: [] }),
        reader: () => (kept) => titledText(kept.document),
      }),
    [entry.id, kind, make],
  );
  const onChange = ({ title, text }: TitledText): void => {
    const draft = { version: entry.version, at: Date.now(), document: make(title, text) };
    void keepUnsaved(kind, entry.id, draft);
  };
  const { value, edit, undo, redo } = useHistory(first, onChange, keeper);
  const document = useMemo(
    () => (value === first ? entry.document : make(value.title, value.text)),
    [value, first, entry.document, make],
  );
  const autosave = useAutosave(kind, entry, document);
  const take = (other: DocumentOf<K>): void => edit('other copy', () => titledText(other));
  const left = useUnsaved(kind, entry);
  const navigate = useNavigate();
  const onText = useCallback((text: string) => edit('rewritten', (now) => ({ ...now, text })), [edit]);
  usePageTitle(value.title);
  const { now: reading, good } = useReading(reader, value.text);
  const hints = useMemo(() => hintsOf(good), [hintsOf, good]);
  const remarks = useRemarks(reading.ok ? reading.value : null);
  // rendered in pieces between frames: what is typed does not wait for what was understood of it
  const shown = useDeferredValue(good);
  const { title } = value;
  const understood = useMemo(
    () => shown !== null && children(shown, { title, onText }),
    [children, shown, title, onText],
  );
  const more = useMemo(() => shown !== null && beside?.(shown, onText), [beside, shown, onText]);
  return (
    <div className="page-frame">
      <TopBar
        title={
          <Input
            variant="borderless"
            value={value.title}
            maxLength={200}
            aria-label={`Title of the ${kind}`}
            onChange={(event) => edit('title', (now) => ({ ...now, title: event.target.value }))}
          />
        }
        actions={
          <>
            <SaveStatus kind={kind} document={document} autosave={autosave} onUse={take} path={`/${kind}s`} />
            <UndoButtons undo={undo} redo={redo} />
            <Button
              onClick={() =>
                void createEntry('study', study(value.title, value.text)).then(({ id }) =>
                  navigate(`/studies/${id}`),
                )
              }
            >
              Start a study
            </Button>
          </>
        }
      />
      <LeaveGuard state={autosave.state} isSaved={autosave.isSaved} />
      {left !== null && <UnsavedOffer left={left} onUse={take} />}
      <main className="text-workspace">
        <h1 className="unseen">{value.title}</h1>
        <section aria-label="Text">
          <h2 className="label">Text</h2>
          <LazyEditor
            of={kind}
            label={`the ${kind}`}
            value={value.text}
            errors={reading.ok ? [] : reading.errors}
            hints={hints}
            remarks={remarks}
            onChange={(text) => edit('text', (now) => ({ ...now, text }))}
          />
          {more}
        </section>
        <section aria-label="Typeset">
          {hasErrors(reading) && good !== null && (
            <p className="wrong">Showing the last valid input; the current text has errors.</p>
          )}
          <ErrorBoundary what="The preview of the text" of={value.text}>
            {understood}
          </ErrorBoundary>
        </section>
      </main>
    </div>
  );
}
