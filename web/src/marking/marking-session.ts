import type { ColumnRole, Layout, MarkRule, ReadingChoice, SubmittedText } from '@schritt/core/marking';
import { AS_FOUND, USUAL_RULE } from '@schritt/core/marking';
import { createStore, get, set, type UseStore } from 'idb-keyval';
import type { VariantSettings } from '../export/handout-options.tsx';
import { quietly } from '../state/browser-store.ts';

/** What a person has handed to the page of marking, and how she wants it marked. It stays in this browser. */
export interface MarkingSession {
  /** The id of the study; null before one is chosen. */
  readonly study: string | null;
  readonly method: number;
  readonly size: { readonly kind: 'h' | 'N'; readonly text: string };
  readonly files: readonly SubmittedText[];
  readonly pasted: string;
  /** Null for what the headings suggest. */
  readonly layout: Layout | null;
  /** What columns hold, as the person has set it, by the form of a table. */
  readonly roles: Readonly<Record<string, readonly ColumnRole[]>>;
  readonly reading: ReadingChoice;
  readonly rule: MarkRule;
  readonly variants: VariantSettings;
  /** Sheets that the person has set, by student. */
  readonly sheets: Readonly<Record<string, number>>;
}

export const NEW_SESSION: MarkingSession = {
  study: null,
  method: 0,
  size: { kind: 'h', text: '' },
  files: [],
  pasted: '',
  layout: null,
  roles: {},
  reading: AS_FOUND,
  rule: USUAL_RULE,
  variants: { variants: '', sheets: 40, seed: 1 },
  sheets: {},
};

/** The form of what is stored: another one is not read. */
const FORM = 1;

const store = (): UseStore => createStore('schritt-marking', 'session');

/** Keeps the session in this browser, and there alone. */
export function keepSession(session: MarkingSession): Promise<void> {
  return quietly(store, undefined, (kept) => set('session', { form: FORM, session }, kept));
}

function isSession(value: unknown): value is MarkingSession {
  return (
    typeof value === 'object' &&
    value !== null &&
    Object.keys(NEW_SESSION).every((key) => key in value) &&
    'files' in value &&
    Array.isArray(value.files) &&
    'pasted' in value &&
    typeof value.pasted === 'string'
  );
}

/** The session that was left in this browser; null where there is none. */
export async function keptSession(): Promise<MarkingSession | null> {
  const found = await quietly<unknown>(store, null, (kept) => get('session', kept));
  if (typeof found !== 'object' || found === null || !('form' in found) || !('session' in found)) return null;
  return found.form === FORM && isSession(found.session) ? found.session : null;
}

/** The name of what was pasted, beside those of files. */
const PASTED = 'pasted rows';

/** All that was handed in, as texts. */
export function submittedOf({
  files,
  pasted,
}: Pick<MarkingSession, 'files' | 'pasted'>): readonly SubmittedText[] {
  return pasted.trim() === '' ? files : [...files, { name: PASTED, text: pasted }];
}
