import { useState } from 'react';
import type { LadderEntry } from './ladder-text.ts';

/** Step sizes as they are typed. */
export interface LadderDraft {
  readonly form: LadderEntry;
  readonly text: string;
}

const FORMS = ['regular', 'sizes', 'counts'] as const satisfies readonly LadderEntry[];

/** Where the draft of a page is stored until its tab is closed. */
function keyOf(): string {
  return `schritt/step sizes${window.location.pathname}`;
}

function storedDraft(): LadderDraft | null {
  try {
    const [name, ...text] = (window.sessionStorage.getItem(keyOf()) ?? '').split(':');
    const form = FORMS.find((known) => known === name);
    return form === undefined ? null : { form, text: text.join(':') };
  } catch {
    // a browser that stores nothing, as in a private window
    return null;
  }
}

function store(draft: LadderDraft | null): void {
  try {
    if (draft === null) window.sessionStorage.removeItem(keyOf());
    else window.sessionStorage.setItem(keyOf(), `${draft.form}:${draft.text}`);
  } catch {
    // the draft is then kept as long as the page is
  }
}

/** The draft of the step sizes, which survives leaving the page while it cannot be read. */
export function useLadderDraft(
  isRead: (draft: LadderDraft) => boolean,
): readonly [LadderDraft | null, (draft: LadderDraft | null) => void] {
  const [draft, setDraft] = useState<LadderDraft | null>(storedDraft);
  const change = (next: LadderDraft | null): void => {
    setDraft(next);
    store(next !== null && !isRead(next) ? next : null);
  };
  return [draft, change];
}
