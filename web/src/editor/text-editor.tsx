import type { EditorView } from '@codemirror/view';
import type { Hint, Repair, TextError } from '@schritt/core/notation';
import { Button } from 'antd';
import { lazy, type ReactNode, type RefObject, Suspense, useState } from 'react';
import { diagnosticOf, mend, type Remark, repairLabel } from './diagnostics.ts';
import type { ExampleOf } from './notation-examples.ts';
import { insertExample, useCodeMirror } from './use-code-mirror.ts';
import './text-editor.css';

const NotationPanel = lazy(async () => ({
  default: (await import('./notation-panel.tsx')).NotationPanel,
}));

/** A button for each repair. */
function RepairButtons({
  repairs,
  onUse,
}: {
  readonly repairs: readonly Repair[];
  readonly onUse: (repair: Repair) => void;
}): ReactNode {
  return repairs.map((repair) => (
    <Button size="small" key={`${repair.from}:${repair.to}:${repair.text}`} onClick={() => onUse(repair)}>
      {repairLabel(repair)}
    </Button>
  ));
}

interface ListProps {
  readonly label: string;
  readonly view: RefObject<EditorView | null>;
}

/** The errors of a text: a click goes to the place. */
function ErrorList({
  label,
  errors,
  view,
}: ListProps & { readonly errors: readonly TextError[] }): ReactNode {
  const goTo = (error: TextError): void => {
    const now = view.current;
    if (now === null) return;
    now.dispatch({ selection: { anchor: diagnosticOf(error, now).from } });
    now.focus();
  };
  return (
    <ul className="text-errors" aria-label={`Errors in ${label}`} aria-live="polite">
      {errors.map((error) => (
        <li key={`${error.line}:${error.column}:${error.message}`}>
          <Button type="text" size="small" danger className="error-button" onClick={() => goTo(error)}>
            <span className="place">
              {error.line}:{error.column}
            </span>{' '}
            {error.message}
          </Button>
          <RepairButtons repairs={error.repairs ?? []} onUse={(repair) => take(view, repair)} />
        </li>
      ))}
    </ul>
  );
}

function RemarkList({
  label,
  remarks,
  view,
}: ListProps & { readonly remarks: readonly Remark[] }): ReactNode {
  if (remarks.length === 0) return null;
  return (
    <ul className="text-remarks" aria-label={`Remarks on ${label}`}>
      {remarks.map((remark) => (
        <li key={`${remark.at.from}:${remark.message}`}>
          {remark.message} <RepairButtons repairs={remark.repairs} onUse={(repair) => take(view, repair)} />
        </li>
      ))}
    </ul>
  );
}

function take(view: RefObject<EditorView | null>, repair: Repair): void {
  if (view.current !== null) mend(view.current, repair);
}

interface TextEditorProps {
  /** What is reported beside the errors. */
  readonly remarks?: readonly Remark[] | undefined;
  readonly label: string;
  readonly value: string;
  readonly errors: readonly TextError[];
  /** What can be typed and what names represent, by the last good reading. */
  readonly hints: readonly Hint[];
  readonly onChange: (value: string) => void;
  /** Escape or Ctrl+Enter: the person is done. */
  readonly onDone?: (() => void) | undefined;
  readonly autoFocus?: boolean;
  /** Where the caret is at first: an offset in the text; at its beginning without one. */
  readonly caret?: number | undefined;
  /** Which notation is at hand. */
  readonly of: ExampleOf;
}

const NO_REMARKS: readonly Remark[] = [];

/** A text of the notation, with its errors marked at their places and listed below. */
export function TextEditor({
  label,
  value,
  errors,
  hints,
  onChange,
  onDone,
  autoFocus = false,
  caret = 0,
  of,
  remarks = NO_REMARKS,
}: TextEditorProps): ReactNode {
  const [isHelpOpen, setHelpOpen] = useState(false);
  const [host, view] = useCodeMirror({
    label,
    value,
    errors,
    remarks,
    hints,
    autoFocus,
    caret,
    onChange,
    onDone,
    onHelp: () => setHelpOpen(true),
  });
  return (
    <div className="text-editor">
      <div ref={host} />
      <Button type="link" size="small" title="The notation by example (F1)" onClick={() => setHelpOpen(true)}>
        Notation
      </Button>
      {isHelpOpen && (
        <Suspense fallback={null}>
          <NotationPanel
            of={of}
            onClose={() => setHelpOpen(false)}
            onInsert={(text) => {
              if (view.current !== null) insertExample(view.current, text);
            }}
          />
        </Suspense>
      )}
      <ErrorList label={label} errors={errors} view={view} />
      <RemarkList label={label} remarks={remarks} view={view} />
    </div>
  );
}
