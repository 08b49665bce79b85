import { App, Button, Popconfirm } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import {
  createEntry,
  deleteEntry,
  type DocumentOf,
  type EntryRow,
  type Kind,
  loadEntry,
  storedText,
} from '../api/client.ts';
import { ErrorBoundary } from '../frame/error-boundary.tsx';
import { fileName } from './files.ts';
import { download } from '../pictures/download.ts';

interface EntryRowProps<K extends Kind> {
  readonly kind: K;
  readonly row: EntryRow;
  readonly path: string;
  readonly preview: (row: EntryRow) => ReactNode;
  readonly store: (document: DocumentOf<K>, open: boolean) => Promise<void>;
  readonly again: () => Promise<unknown>;
}

function sentence(thrown: unknown): string {
  return thrown instanceof Error ? thrown.message : String(thrown);
}

function retitled<D extends { readonly title: string }>(document: D, title: string): D {
  return { ...document, title };
}

/** One entry of a list, with what can be done with it; what is wrong with one stays with that one. */
export function EntryRowItem<K extends Kind>(props: EntryRowProps<K>): ReactNode {
  const { kind, row, path, preview, store, again } = props;
  const { message } = App.useApp();
  const tell = (work: () => Promise<void>) => () =>
    void work().catch((thrown: unknown) => message.error(sentence(thrown), 8));
  const copy = tell(async () => {
    const { document } = await loadEntry(kind, row.id);
    await store(retitled(document, `${document.title}, copy`.slice(0, 200)), false);
  });
  // what is stored is saved as it is: also what cannot be opened
  const save = tell(async () => download(fileName(row.title), await storedText(kind, row.id)));
  const remove = tell(async () => {
    const before = await loadEntry(kind, row.id).catch(() => null);
    await deleteEntry(kind, row.id);
    await again();
    message.success(
      <span>
        “{row.title}” is deleted.{' '}
        {before !== null && (
          <Button
            size="small"
            onClick={tell(() =>
              createEntry(kind, before.document)
                .then(() => again())
                .then(() => undefined),
            )}
          >
            Undo
          </Button>
        )}
      </span>,
      8,
    );
  });
  return (
    <li>
      <Link to={`${path}/${row.id}`} className="entry-link">
        <span className="entry-title">{row.title || 'Untitled'}</span>
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
        <Popconfirm title={`Delete “${row.title}”?`} okText="Delete" onConfirm={remove}>
          <Button size="small" type="text">
            Delete
          </Button>
        </Popconfirm>
      </span>
    </li>
  );
}
