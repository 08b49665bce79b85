import { App, Button, Checkbox } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
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

function sentence(thrown: unknown): string {
  return thrown instanceof Error ? thrown.message : String(thrown);
}

function retitled<D extends { readonly title: string }>(document: D, title: string): D {
  return { ...document, title };
}

/** Does something and says what went wrong with it. */
export function useTold(): (work: () => Promise<void>) => () => void {
  const { message } = App.useApp();
  return (work) => () => void work().catch((thrown: unknown) => message.error(sentence(thrown), 8));
}

/** Puts entries into the bin, and offers to take them out again. */
export function usePutAway(kind: Kind, again: () => Promise<unknown>): (rows: readonly EntryRow[]) => void {
  const { message } = App.useApp();
  const tell = useTold();
  return (rows) =>
    tell(async () => {
      for (const { id } of rows) await deleteEntry(kind, id);
      await again();
      const key = `put away ${rows.map(({ id }) => id).join(' ')}`;
      const undo = tell(async () => {
        message.destroy(key);
        for (const { id } of rows) await restoreEntry(kind, id);
        await again();
      });
      const what = rows.length === 1 ? `“${rows[0]?.title ?? ''}” is` : `${rows.length} entries are`;
      message.success({
        key,
        duration: 8,
        content: (
          <span>
            {what} in the bin.{' '}
            <Button size="small" onClick={undo}>
              Undo
            </Button>
          </span>
        ),
      });
    })();
}

/** One entry of a list, with what can be done with it; what is wrong with one stays with that one. */
export function EntryRowItem<K extends Kind>(props: EntryRowProps<K>): ReactNode {
  const { kind, row, path, preview, store, again, isChosen, onChoose } = props;
  const tell = useTold();
  const putAway = usePutAway(kind, again);
  const copy = tell(async () => {
    const { document } = await loadEntry(kind, row.id);
    await store(retitled(document, `${document.title}, copy`.slice(0, 200)), false);
  });
  // what is stored is saved as it is: also what cannot be opened
  const save = tell(async () => download(fileName(row.title), await storedText(kind, row.id)));
  return (
    <li className={isChosen ? 'chosen' : ''}>
      <Checkbox
        checked={isChosen}
        aria-label={`Choose ${row.title || 'Untitled'}`}
        onChange={(event) => onChoose(event.target.checked)}
      />
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
        <Button size="small" type="text" onClick={copy}>
          Copy
        </Button>
        <Button size="small" type="text" onClick={save}>
          Save as file
        </Button>
        <Button size="small" type="text" onClick={() => putAway([row])}>
          Delete
        </Button>
      </span>
    </li>
  );
}
