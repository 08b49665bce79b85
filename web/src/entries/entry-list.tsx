import { readDocumentText } from '@schritt/core/document';
import { App, Button, Popconfirm } from 'antd';
import { type ChangeEvent, type ReactNode, useRef } from 'react';
import { Link, useNavigate } from 'react-router';
import { createEntry, deleteEntry, type DocumentOf, type Entry, type Kind } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { TopBar } from '../frame/top-bar.tsx';
import './entry-list.css';

interface EntryListProps<K extends Kind> {
  readonly kind: K;
  readonly heading: string;
  /** What an empty list says. */
  readonly empty: string;
  readonly path: string;
  readonly blank: DocumentOf<K>;
  readonly newLabel: string;
  /** What is shown of an entry beside its title. */
  readonly preview: (document: DocumentOf<K>) => ReactNode;
}

function fileName(title: string): string {
  const plain = title
    .toLowerCase()
    .replace(/[^\p{L}\d]+/gu, '-')
    .replace(/^-+|-+$/g, '');
  return `${plain === '' ? 'untitled' : plain}.schritt.json`;
}

function download(name: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}

/** All entries of a kind as rows, with what can be done with each. */
export function EntryList<K extends Kind>(props: EntryListProps<K>): ReactNode {
  const { kind, heading, empty, path, blank, newLabel, preview } = props;
  const { data, error, mutate } = useEntries(kind);
  const { message } = App.useApp();
  const navigate = useNavigate();
  const file = useRef<HTMLInputElement>(null);

  const store = async (document: DocumentOf<K>, open: boolean): Promise<void> => {
    try {
      const entry = await createEntry(kind, document);
      await mutate();
      if (open) await navigate(`${path}/${entry.id}`);
    } catch (thrown) {
      message.error(thrown instanceof Error ? thrown.message : String(thrown));
    }
  };
  const remove = async (entry: Entry<DocumentOf<K>>): Promise<void> => {
    try {
      await deleteEntry(kind, entry.id);
      message.success(
        <span>
          “{entry.document.title}” is deleted.{' '}
          <Button size="small" onClick={() => void store(entry.document, false)}>
            Undo
          </Button>
        </span>,
        8,
      );
    } catch (thrown) {
      message.error(thrown instanceof Error ? thrown.message : String(thrown));
    }
    await mutate();
  };
  const openFile = async (event: ChangeEvent<HTMLInputElement>): Promise<void> => {
    const [chosen] = event.target.files ?? [];
    event.target.value = '';
    if (chosen === undefined) return;
    const reading = readDocumentText(await chosen.text());
    if (!reading.ok) {
      message.error(
        `${chosen.name}: ${reading.errors
          .slice(0, 3)
          .map((e) => `${e.place}: ${e.message}`)
          .join('; ')}`,
        10,
      );
      return;
    }
    const { document } = reading;
    const fits = (d: typeof document): d is DocumentOf<K> => d.kind === kind;
    if (fits(document)) await store(document, true);
    else message.error(`${chosen.name} holds a ${document.kind}; open it on its own page`, 10);
  };

  return (
    <div className="page-frame">
      <TopBar
        actions={
          <>
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              hidden
              aria-label="File to open"
              onChange={(event) => void openFile(event)}
            />
            <Button onClick={() => file.current?.click()}>Open a file</Button>
            <Button type="primary" onClick={() => void store(blank, true)}>
              {newLabel}
            </Button>
          </>
        }
      />
      <main className="entry-list">
        <h1>{heading}</h1>
        {error !== undefined && <p className="wrong">The list cannot be loaded: {error.message}.</p>}
        {data === undefined && error === undefined && <p className="quiet">Loading …</p>}
        {data?.length === 0 && <p className="empty">{empty}</p>}
        <ul>
          {data?.map((entry) => (
            <li key={entry.id}>
              <Link to={`${path}/${entry.id}`} className="entry-link">
                <span className="entry-title">{entry.document.title || 'Untitled'}</span>
                <span className="entry-preview">{preview(entry.document)}</span>
              </Link>
              <span className="entry-actions">
                <Button
                  size="small"
                  type="text"
                  onClick={() =>
                    void store(
                      { ...entry.document, title: `${entry.document.title}, copy`.slice(0, 200) },
                      false,
                    )
                  }
                >
                  Copy
                </Button>
                <Button
                  size="small"
                  type="text"
                  onClick={() =>
                    download(fileName(entry.document.title), `${JSON.stringify(entry.document, null, 2)}\n`)
                  }
                >
                  Save as file
                </Button>
                <Popconfirm
                  title={`Delete “${entry.document.title}”?`}
                  okText="Delete"
                  onConfirm={() => void remove(entry)}
                >
                  <Button size="small" type="text">
                    Delete
                  </Button>
                </Popconfirm>
              </span>
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
}
