import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { type Diagnostic, setDiagnostics } from '@codemirror/lint';
import { Compartment, EditorState } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import type { Hint, Repair, TextError } from '@schritt/core/notation';
import { Button } from 'antd';
import { lazy, type ReactNode, Suspense, useEffect, useRef, useState } from 'react';
import { hints as hintsOf } from './hints.ts';
import type { ExampleOf } from './notation-examples.ts';
import { notation } from './notation.ts';
import './text-editor.css';

const NotationPanel = lazy(async () => ({
  default: (await import('./notation-panel.tsx')).NotationPanel,
}));

function diagnosticOf(error: TextError, view: EditorView): Diagnostic {
  const { doc } = view.state;
  const line = doc.line(Math.min(error.line, doc.lines));
  const from = Math.min(line.from + error.column - 1, line.to);
  const to = Math.min(from + error.length, doc.length);
  return {
    from: from === to && from > line.from ? from - 1 : from,
    to,
    severity: 'error',
    message: error.message,
    actions: (error.repairs ?? []).map((repair) => ({
      name: repairLabel(repair),
      apply: (now) => mend(now, repair),
    })),
  };
}

/** Longest text that stands on a button. */
const LONGEST = 44;

/** What the button of a repair says. */
export function repairLabel({ from, to, text }: Repair): string {
  const written = text.trim().replaceAll('\n', ' ');
  if (written === '') return 'Remove';
  const shown = written.length > LONGEST ? `${written.slice(0, LONGEST)} …` : written;
  return from === to ? `Insert ${shown}` : `Replace with ${shown}`;
}

function mend(view: EditorView, { from, to, text }: Repair): void {
  const { length } = view.state.doc;
  if (to > length) return;
  view.dispatch({ changes: { from, to, insert: text }, userEvent: 'input.repair' });
  view.focus();
}

/** A button for each repair. */
function RepairButtons({
  repairs,
  onTake,
}: {
  readonly repairs: readonly Repair[];
  readonly onTake: (repair: Repair) => void;
}): ReactNode {
  return repairs.map((repair) => (
    <Button size="small" key={`${repair.from}:${repair.to}:${repair.text}`} onClick={() => onTake(repair)}>
      {repairLabel(repair)}
    </Button>
  ));
}

/** The name of the editor, which may change while it stands. */
const labelled = new Compartment();

/** Something in a text that may not be meant, though it can be read. */
export interface Remark {
  readonly message: string;
  readonly at: { readonly from: number; readonly to: number };
  readonly repairs: readonly Repair[];
}

function remarkDiagnostic({ message, at, repairs }: Remark, view: EditorView): Diagnostic {
  const { length } = view.state.doc;
  return {
    from: Math.min(at.from, length),
    to: Math.min(at.to, length),
    severity: 'warning',
    message,
    actions: repairs.map((repair) => ({ name: repairLabel(repair), apply: (now) => mend(now, repair) })),
  };
}

interface TextEditorProps {
  /** What is told beside the errors. */
  readonly remarks?: readonly Remark[] | undefined;
  readonly label: string;
  readonly value: string;
  readonly errors: readonly TextError[];
  /** What can be typed and what names stand for, by the last good reading. */
  readonly hints: readonly Hint[];
  readonly onChange: (value: string) => void;
  /** Escape or Ctrl+Enter: the person is done. */
  readonly onDone?: (() => void) | undefined;
  readonly autoFocus?: boolean;
  /** Where the caret stands at first: an offset in the text; at its beginning without one. */
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
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const change = useRef(onChange);
  const done = useRef(onDone);
  const known = useRef(hints);
  const first = useRef({ value, label, autoFocus, caret });
  const [isHelpOpen, setHelpOpen] = useState(false);
  useEffect(() => {
    change.current = onChange;
    done.current = onDone;
    known.current = hints;
  });

  useEffect(() => {
    if (host.current === null) return undefined;
    const finish = (): boolean => {
      done.current?.();
      return done.current !== undefined;
    };
    const made = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: first.current.value,
        selection: { anchor: Math.min(first.current.caret, first.current.value.length) },
        extensions: [
          hintsOf(() => known.current),
          keymap.of([
            { key: 'Escape', run: finish },
            { key: 'Mod-Enter', run: finish },
            {
              key: 'F1',
              run: () => {
                setHelpOpen(true);
                return true;
              },
            },
            ...defaultKeymap,
            ...historyKeymap,
          ]),
          history(),
          notation,
          bracketMatching(),
          EditorView.lineWrapping,
          labelled.of(EditorView.contentAttributes.of({ 'aria-label': first.current.label })),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) change.current(update.state.doc.toString());
          }),
        ],
      }),
    });
    view.current = made;
    if (first.current.autoFocus) made.focus();
    return () => {
      view.current = null;
      made.destroy();
    };
  }, []);

  useEffect(() => {
    view.current?.dispatch({
      effects: labelled.reconfigure(EditorView.contentAttributes.of({ 'aria-label': label })),
    });
  }, [label]);

  useEffect(() => {
    const now = view.current;
    if (now === null || now.state.doc.toString() === value) return;
    now.dispatch({ changes: { from: 0, to: now.state.doc.length, insert: value } });
  }, [value]);

  useEffect(() => {
    const now = view.current;
    if (now === null || now.state.doc.toString() !== value) return;
    now.dispatch(
      setDiagnostics(
        now.state,
        [
          ...errors.map((error) => diagnosticOf(error, now)),
          ...remarks.map((remark) => remarkDiagnostic(remark, now)),
        ].sort((a, b) => a.from - b.from),
      ),
    );
  }, [errors, remarks, value]);

  const take = (repair: Repair): void => {
    if (view.current !== null) mend(view.current, repair);
  };

  const insert = (text: string): void => {
    const now = view.current;
    if (now === null) return;
    const { from, to } = now.state.selection.main;
    const line = now.state.doc.lineAt(from);
    // an example of whole lines stands in lines of its own
    const isLine = text.includes('=') || text.includes('\n');
    const before = isLine && line.text.trim() !== '' ? '\n' : '';
    const place = isLine && before !== '' ? line.to : from;
    now.dispatch({
      changes: { from: place, to: isLine ? place : to, insert: before + text },
      selection: { anchor: place + before.length + text.length },
      userEvent: 'input.complete',
    });
    now.focus();
  };

  return (
    <div className="text-editor">
      <div ref={host} />
      <Button type="link" size="small" title="The notation by example (F1)" onClick={() => setHelpOpen(true)}>
        Notation
      </Button>
      {isHelpOpen && (
        <Suspense fallback={null}>
          <NotationPanel of={of} onClose={() => setHelpOpen(false)} onInsert={insert} />
        </Suspense>
      )}
      <ul className="text-errors" aria-label={`Errors in ${label}`} aria-live="polite">
        {errors.map((error) => (
          <li key={`${error.line}:${error.column}:${error.message}`}>
            <Button
              type="text"
              size="small"
              danger
              className="error-button"
              onClick={() => {
                const now = view.current;
                if (now === null) return;
                now.dispatch({ selection: { anchor: diagnosticOf(error, now).from } });
                now.focus();
              }}
            >
              <span className="place">
                {error.line}:{error.column}
              </span>{' '}
              {error.message}
            </Button>
            <RepairButtons repairs={error.repairs ?? []} onTake={take} />
          </li>
        ))}
      </ul>
      {remarks.length > 0 && (
        <ul className="text-remarks" aria-label={`Remarks on ${label}`}>
          {remarks.map((remark) => (
            <li key={`${remark.at.from}:${remark.message}`}>
              {remark.message} <RepairButtons repairs={remark.repairs} onTake={take} />
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
