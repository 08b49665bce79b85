import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { setDiagnostics } from '@codemirror/lint';
import { Compartment, EditorState, type Extension } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import type { Hint, TextError } from '@schritt/core/notation';
import { type RefObject, useEffect, useRef } from 'react';
import { isTyping } from '../frame/is-typing.ts';
import { diagnosticOf, type Remark, remarkDiagnostic } from './diagnostics.ts';
import { hints as hintsOf } from './hints.ts';
import { notation } from './notation.ts';

/** What an editor shows, and what it tells. */
export interface EditorContent {
  readonly label: string;
  readonly value: string;
  readonly errors: readonly TextError[];
  readonly remarks: readonly Remark[];
  /** What can be typed and what names represent, by the last good reading. */
  readonly hints: readonly Hint[];
  readonly autoFocus: boolean;
  /** Where the caret is at first. */
  readonly caret: number;
  readonly onChange: (value: string) => void;
  /** Escape or Ctrl+Enter: the person is done. */
  readonly onDone: (() => void) | undefined;
  /** F1: the notation is asked for. */
  readonly onHelp: () => void;
}

/** The name of the editor, which may change during its lifetime. */
const labelled = new Compartment();

function labelOf(label: string): Extension {
  return EditorView.contentAttributes.of({ 'aria-label': label });
}

function extensionsOf(now: RefObject<EditorContent>): readonly Extension[] {
  const finish = (): boolean => {
    now.current.onDone?.();
    return now.current.onDone !== undefined;
  };
  const help = (): boolean => {
    now.current.onHelp();
    return true;
  };
  return [
    hintsOf(() => now.current.hints),
    keymap.of([
      { key: 'Escape', run: finish },
      { key: 'Mod-Enter', run: finish },
      { key: 'F1', run: help },
      ...defaultKeymap,
      ...historyKeymap,
    ]),
    history(),
    notation,
    bracketMatching(),
    EditorView.lineWrapping,
    labelled.of(labelOf(now.current.label)),
    EditorView.updateListener.of((update) => {
      if (update.docChanged) now.current.onChange(update.state.doc.toString());
    }),
  ];
}

/** An editor of a text within an element, made once, that follows what it is to show. */
export function useCodeMirror(
  content: EditorContent,
): readonly [host: RefObject<HTMLDivElement | null>, view: RefObject<EditorView | null>] {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const now = useRef(content);
  useEffect(() => {
    now.current = content;
  });
  useEffect(() => {
    if (host.current === null) return undefined;
    const { value, caret, autoFocus } = now.current;
    const made = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: value,
        selection: { anchor: Math.min(caret, value.length) },
        extensions: [...extensionsOf(now)],
      }),
    });
    view.current = made;
    // it is fetched when it is first shown, and comes while a person types elsewhere, such as a title
    if (autoFocus && !isTyping(document.activeElement)) made.focus();
    return () => {
      view.current = null;
      made.destroy();
    };
  }, []);
  const { label, value, errors, remarks } = content;
  useEffect(() => {
    view.current?.dispatch({ effects: labelled.reconfigure(labelOf(label)) });
  }, [label]);
  useEffect(() => {
    const editor = view.current;
    if (editor === null || editor.state.doc.toString() === value) return;
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: value } });
  }, [value]);
  useEffect(() => {
    const editor = view.current;
    if (editor === null || editor.state.doc.toString() !== value) return;
    const found = [
      ...errors.map((error) => diagnosticOf(error, editor)),
      ...remarks.map((remark) => remarkDiagnostic(remark, editor)),
    ];
    editor.dispatch(
      setDiagnostics(
        editor.state,
        found.sort((a, b) => a.from - b.from),
      ),
    );
  }, [errors, remarks, value]);
  return [host, view];
}

/** Puts an example into a text; one of whole lines is in lines of its own. */
export function insertExample(editor: EditorView, text: string): void {
  const { from, to } = editor.state.selection.main;
  const line = editor.state.doc.lineAt(from);
  const isLine = text.includes('=') || text.includes('\n');
  const before = isLine && line.text.trim() !== '' ? '\n' : '';
  const place = isLine && before !== '' ? line.to : from;
  editor.dispatch({
    changes: { from: place, to: isLine ? place : to, insert: before + text },
    selection: { anchor: place + before.length + text.length },
    userEvent: 'input.complete',
  });
  editor.focus();
}
