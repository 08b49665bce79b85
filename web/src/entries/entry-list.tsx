import { Button, Empty, Input, Skeleton, Upload } from 'antd';
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import { holdsWords } from '../frame/holds-words.ts';
import { createEntry, type DocumentOf, type EntryRow, type Kind } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { useNotices } from '../frame/use-notices.tsx';
import { SessionLinks } from '../frame/session-links.tsx';
import { TopBar } from '../frame/top-bar.tsx';
import { usePageTitle } from '../frame/use-page-title.ts';
import { BinList } from './bin-list.tsx';
import { ChosenBar } from './chosen-bar.tsx';
import { entryColumns } from './entry-row.tsx';
import { EntryTable } from './entry-table.tsx';
import { textOf } from './files.ts';
import './entry-list.css';

interface EntryListProps<K extends Kind> {
  readonly kind: K;
  readonly heading: string;
  /** What an empty list says. */
  readonly empty: string;
  readonly path: string;
  readonly blank: DocumentOf<K>;
  readonly newLabel: string;
  /** Another way to make one. */
  readonly otherNew?: (store: (document: DocumentOf<K>) => void) => ReactNode;
  /** What is shown of an entry beside its title. */
  readonly preview: (row: EntryRow) => ReactNode;
}

/** Whether the title, a method or the first lines of an entry hold every word that is sought. */
export function isSought(
  { title, methods, excerpt }: Pick<EntryRow, 'title' | 'methods' | 'excerpt'>,
  sought: string,
): boolean {
  return holdsWords([title, ...methods, excerpt].join(' '), sought);
}

/** All entries of a kind as rows, with what can be done with each. */
export function EntryList<K extends Kind>(props: EntryListProps<K>): ReactNode {
  const { kind, heading, empty, path, blank, newLabel, otherNew, preview } = props;
  const { rows, total, error, more, again } = useEntries(kind);
  const navigate = useNavigate();
  const notices = useNotices();
  const [sought, setSought] = useState('');
  const [chosenIds, setChosenIds] = useState<ReadonlySet<string>>(new Set<string>());
  const [isBin, setBin] = useState(false);
  usePageTitle(heading);
  const found = rows?.filter((row) => isSought(row, sought)) ?? null;

  const chosen = found?.filter(({ id }) => chosenIds.has(id)) ?? [];
  const store = async (document: DocumentOf<K>, open: boolean): Promise<void> => {
    try {
      const entry = await createEntry(kind, document);
      await again();
      if (open) await navigate(`${path}/${entry.id}`);
    } catch (thrown) {
      notices.failed(thrown);
    }
  };
  const openFile = async (chosen: File): Promise<void> => {
    const text = await textOf(chosen).catch((thrown: unknown) => {
      notices.failed(thrown);
      return null;
    });
    if (text === null) return;
    // what checks documents is loaded with the first file
    const { readDocumentText } = await import('@schritt/core/format');
    const reading = readDocumentText(text);
    if (!reading.ok) {
      notices.failed(
        `${chosen.name}: ${reading.errors
          .slice(0, 3)
          .map((e) => `${e.place}: ${e.message}`)
          .join('; ')}`,
      );
      return;
    }
    const { document } = reading;
    const fits = (d: typeof document): d is DocumentOf<K> => d.kind === kind;
    if (fits(document)) await store(document, true);
    else
      notices.failed(`${chosen.name} contains a ${document.kind}; open it from the ${document.kind}s page`);
  };

  return (
    <div className="page-frame">
      <TopBar
        actions={
          <>
            <Upload
              accept=".json,application/json"
              showUploadList={false}
              beforeUpload={(file) => {
                void openFile(file);
                return false;
              }}
            >
              <Button>Open file</Button>
            </Upload>
            {otherNew?.((document) => void store(document, true))}
            <Button type="primary" onClick={() => void store(blank, true)}>
              {newLabel}
            </Button>
          </>
        }
      />
      <main className="entry-list">
        <div className="list-head">
          <h1>{isBin ? `Deleted ${heading.toLowerCase()}` : heading}</h1>
          {chosen.length > 0 && !isBin && (
            <ChosenBar
              kind={kind}
              chosen={chosen}
              again={again}
              onNone={() => setChosenIds(new Set<string>())}
            />
          )}
          {!isBin && rows !== null && rows.length > 1 && (
            <Input
              type="search"
              className="search"
              aria-label={`Search the ${heading.toLowerCase()}`}
              placeholder="title, method or text"
              value={sought}
              onChange={(event) => setSought(event.target.value)}
            />
          )}
        </div>
        {isBin && <BinList kind={kind} onChange={again} />}
        {error !== undefined && <p className="wrong">The list cannot be loaded: {error.message}.</p>}
        {rows === null && error === undefined && <Skeleton active aria-label="Loading" />}
        {!isBin && found?.length === 0 && (
          <Empty
            image={Empty.PRESENTED_IMAGE_SIMPLE}
            description={
              sought === ''
                ? empty
                : `No match for “${sought}”${more === null ? '' : ` among the ${rows?.length ?? 0} shown`}.`
            }
          />
        )}
        {!isBin && found !== null && found.length > 0 && (
          <EntryTable
            label={heading}
            rows={found}
            columns={entryColumns({ kind, path, preview, store, again })}
            chosen={chosenIds}
            onChoose={setChosenIds}
          />
        )}
        {!isBin && more !== null && (
          <p className="more-entries">
            <Button onClick={more}>
              Show more ({rows?.length} of {total})
            </Button>
          </p>
        )}
        <p className="to-bin">
          <Button type="link" size="small" onClick={() => setBin((now) => !now)}>
            {isBin ? `Back to the ${heading.toLowerCase()}` : 'Bin'}
          </Button>
          <SessionLinks />
        </p>
      </main>
    </div>
  );
}
