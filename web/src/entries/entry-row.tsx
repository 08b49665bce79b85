import { Button, type TableColumnsType } from 'antd';
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
import { notices } from '../frame/notices.tsx';
import { download } from '../plots/download.ts';
import { changedAt } from './changed-at.ts';
import { fileName } from './files.ts';

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
    notices.failed(why, { label: 'Try again', run: () => void undoDelete(kind, failed, again) });
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
    notices.failed(thrown);
  }
  const [first] = moved;
  if (first !== undefined)
    notices.done(
      `${moved.length === 1 ? `“${first.title || 'Untitled'}”` : `${moved.length} entries`} moved to the bin.`,
      { label: 'Undo', run: () => void undoDelete(kind, moved, again) },
    );
  await again();
}

/** What the rows of a list need to know of it. */
export interface EntryListOptions<K extends Kind> {
  readonly kind: K;
  readonly path: string;
  readonly preview: (row: EntryRow) => ReactNode;
  /** Columns between the preview and what can be done. */
  readonly columns: TableColumnsType<EntryRow>;
  readonly store: (document: DocumentOf<K>, open: boolean) => Promise<void>;
  readonly again: () => Promise<unknown>;
}

/** What can be done with one entry. */
function EntryActions<K extends Kind>({
  row,
  kind,
  store,
  again,
}: { readonly row: EntryRow } & EntryListOptions<K>): ReactNode {
  const copy = notices.reporting(async () => {
    const { document } = await loadEntry(kind, row.id);
    await store(retitled(document, `${document.title}, copy`.slice(0, 200)), false);
  });
  // what is stored is saved as it is: also what cannot be opened
  const save = notices.reporting(async () => download(fileName(row.title), await storedText(kind, row.id)));
  return (
    <>
      <Button size="small" type="text" tabIndex={-1} onClick={copy}>
        Copy
      </Button>
      <Button size="small" type="text" tabIndex={-1} onClick={save}>
        Download
      </Button>
      <Button size="small" type="text" tabIndex={-1} onClick={() => void moveToBin(kind, [row], again)}>
        Delete
      </Button>
    </>
  );
}

/** The columns of a list of entries; what is wrong with one entry stays with that one. */
export function entryColumns<K extends Kind>(list: EntryListOptions<K>): TableColumnsType<EntryRow> {
  const hasFacts = list.columns.length > 0;
  return [
    {
      key: 'title',
      title: 'Title',
      width: hasFacts ? 170 : 255,
      sorter: hasFacts && ((a, b) => a.title.localeCompare(b.title)),
      render: (_, { id, title, updatedAt }) => (
        <>
          <Link to={`${list.path}/${id}`} className="entry-title">
            {title || 'Untitled'}
          </Link>
          <small className="quiet">{changedAt(updatedAt, new Date())}</small>
        </>
      ),
    },
    {
      key: 'preview',
      title: 'Formula',
      width: hasFacts ? 296 : 530,
      render: (_, row) => (
        <span className="entry-preview">
          <ErrorBoundary what="The preview" of={row.version}>
            {list.preview(row)}
          </ErrorBoundary>
        </span>
      ),
    },
    ...list.columns,
    {
      key: 'actions',
      title: 'Actions',
      width: hasFacts ? 212 : 255,
      align: 'right',
      render: (_, row) => <EntryActions row={row} {...list} />,
    },
  ];
}
