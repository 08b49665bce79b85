import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Button } from '../controls/button.tsx';
import { Tick } from '../controls/tick.tsx';
import {
  deleteEntry,
  type DocumentOf,
  type EntryRow,
  type Kind,
  loadEntry,
  restoreEntry,
  storedText,
} from '../api/client.ts';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { tellDone, told } from '../frame/notices.ts';
import { download } from '../pictures/download.ts';
import { changedAt } from './changed-at.ts';
import { fileName } from './files.ts';

interface EntryRowProps<K extends Kind> {
  readonly kind: K;
  readonly row: EntryRow;
  readonly path: string;
  readonly preview: (row: EntryRow) => ReactNode;
  readonly store: (document: DocumentOf<K>, open: boolean) => Promise<void>;
  readonly again: () => Promise<unknown>;
  readonly isChosen: boolean;
  readonly onChoose: (isChosen: boolean) => void;
}

function retitled<D extends { readonly title: string }>(document: D, title: string): D {
  return { ...document, title };
}

/** Puts entries into the bin, and offers to take them out again. */
export function putAway(kind: Kind, rows: readonly EntryRow[], again: () => Promise<unknown>): void {
  told(async () => {
    for (const { id } of rows) await deleteEntry(kind, id);
    await again();
    const undo = told(async () => {
      for (const { id } of rows) await restoreEntry(kind, id);
      await again();
    });
    const what = rows.length === 1 ? `“${rows[0]?.title ?? ''}” is` : `${rows.length} entries are`;
    tellDone(`${what} in the bin.`, { label: 'Undo', run: undo });
  })();
}

/** One entry of a list, with what can be done with it; what is wrong with one stays with that one. */
export function EntryRowItem<K extends Kind>(props: EntryRowProps<K>): ReactNode {
  const { kind, row, path, preview, store, again, isChosen, onChoose } = props;
  const copy = told(async () => {
    const { document } = await loadEntry(kind, row.id);
    await store(retitled(document, `${document.title}, copy`.slice(0, 200)), false);
  });
  // what is stored is saved as it is: also what cannot be opened
  const save = told(async () => download(fileName(row.title), await storedText(kind, row.id)));
  return (
    <li className={isChosen ? 'chosen' : ''}>
      <Tick isTicked={isChosen} aria-label={`Choose ${row.title || 'Untitled'}`} onChange={onChoose} />
      <Link to={`${path}/${row.id}`} className="entry-link">
        <span className="entry-title">
          {row.title || 'Untitled'}
          <small className="quiet">{changedAt(row.updatedAt, new Date())}</small>
        </span>
        <span className="entry-preview">
          <ErrorBoundary what="Its text" of={row.version}>
            {preview(row)}
          </ErrorBoundary>
        </span>
      </Link>
      <span className="entry-actions">
        <Button size="small" look="text" onClick={copy}>
          Copy
        </Button>
        <Button size="small" look="text" onClick={save}>
          Save as file
        </Button>
        <Button size="small" look="text" onClick={() => putAway(kind, [row], again)}>
          Delete
        </Button>
      </span>
    </li>
  );
}
