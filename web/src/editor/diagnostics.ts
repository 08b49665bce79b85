import type { Diagnostic } from '@codemirror/lint';
import type { EditorView } from '@codemirror/view';
import type { Repair, TextError } from '@schritt/core/notation';

/** Something in a text that may not be meant, though it can be read. */
export interface Remark {
  readonly message: string;
  readonly at: { readonly from: number; readonly to: number };
  readonly repairs: readonly Repair[];
}

/** Longest text that is on a button. */
const LONGEST = 44;

/** What the button of a repair says. */
export function repairLabel({ from, to, text }: Repair): string {
  const written = text.trim().replaceAll('\n', ' ');
  if (written === '') return 'Remove';
  const shown = written.length > LONGEST ? `${written.slice(0, LONGEST)} …` : written;
  return from === to ? `Insert ${shown}` : `Replace with ${shown}`;
}

/** Does a repair in the text. */
export function mend(view: EditorView, { from, to, text }: Repair): void {
  const { length } = view.state.doc;
  if (to > length) return;
  view.dispatch({ changes: { from, to, insert: text }, userEvent: 'input.repair' });
  view.focus();
}

/** An error at its place in the text. */
export function diagnosticOf(error: TextError, view: EditorView): Diagnostic {
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

/** A remark at its place in the text. */
export function remarkDiagnostic({ message, at, repairs }: Remark, view: EditorView): Diagnostic {
  const { length } = view.state.doc;
  return {
    from: Math.min(at.from, length),
    to: Math.min(at.to, length),
    severity: 'warning',
    message,
    actions: repairs.map((repair) => ({ name: repairLabel(repair), apply: (now) => mend(now, repair) })),
  };
}
