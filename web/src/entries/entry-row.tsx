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
import { tellDone, tellFailed, told } from '../frame/notices.ts';
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

/** Restores entries; where that fails it can be tried again, since they are still in the bin. */
async function undoDelete(
  kind: Kind,
  rows: readonly EntryRow[],
  again: () => Promise<unknown>,
): Promise<void> {
  const failed: EntryRow[] = [];
  let why: unknown = null;
  for (const row of rows)
    await restoreEntry(kind, row.id).catch((thrown: unknown) => {
      failed.push(row);
      why = thrown;
    });
  if (failed.length > 0)
    tellFailed(why, { label: 'Try again', run: () => void undoDelete(kind, failed, again) });
  await again();
}

/** Moves entries to the bin and offers to restore those that were moved, also where others could not be. */
export async function moveToBin(
  kind: Kind,
  rows: readonly EntryRow[],
  again: () => Promise<unknown>,
): Promise<void> {
  const moved: EntryRow[] = [];
  try {
    for (const row of rows) {
      await deleteEntry(kind, row.id);
      moved.push(row);
    }
  } catch (thrown) {
    tellFailed(thrown);
  }
  const [first] = moved;
  if (first !== undefined)
    tellDone(
      `${moved.length === 1 ? `“${first.title || 'Untitled'}”` : `${moved.length} entries`} moved to the bin.`,
      { label: 'Undo', run: () => void undoDelete(kind, moved, again) },
    );
  await again();
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
        <Button size="small" look="text" onClick={() => void moveToBin(kind, [row], again)}>
          Delete
        </Button>
      </span>
    </li>
  );
}
