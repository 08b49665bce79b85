import { Button, Empty, Input, Skeleton, type TableColumnsType, Upload } from 'antd';
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import { holdsWords } from '../frame/holds-words.ts';
import { createEntry, type DocumentOf, type EntryRow, type Kind } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { notices } from '../frame/notices.tsx';
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
  /** More columns, with headings to sort and filter by; none for a plain list, null while the rows wait for them. */
  readonly useColumns?: (rows: readonly EntryRow[] | null) => TableColumnsType<EntryRow> | null;
}

const NO_COLUMNS: TableColumnsType<EntryRow> = [];

function useNoColumns(): TableColumnsType<EntryRow> {
  return NO_COLUMNS;
}

/** Whether the title, a method or the first lines of an entry hold every word that is sought. */
export function isSought(
  { title, methods, excerpt }: Pick<EntryRow, 'title' | 'methods' | 'excerpt'>,
  sought: string,
): boolean {
  return holdsWords([title, ...methods, excerpt].join(' '), sought);
}

/** Stores a document as a new entry, and opens it where that is wanted. */
type Store<K extends Kind> = (document: DocumentOf<K>, open: boolean) => Promise<void>;

function useStore<K extends Kind>(kind: K, path: string, again: () => Promise<unknown>): Store<K> {
  const navigate = useNavigate();
  return async (document, open) => {
    try {
      const entry = await createEntry(kind, document);
      await again();
      if (open) await navigate(`${path}/${entry.id}`);
    } catch (thrown) {
      notices.failed(thrown);
    }
  };
}

/** Opens a file as a new entry, where it contains one of the kind. */
function OpenFile<K extends Kind>({
  kind,
  store,
}: {
  readonly kind: K;
  readonly store: Store<K>;
}): ReactNode {
  const open = async (file: File): Promise<void> => {
    const text = await textOf(file).catch((thrown: unknown) => {
      notices.failed(thrown);
      return null;
    });
    if (text === null) return;
    // what checks documents is loaded with the first file
    const { readDocumentText } = await import('@schritt/core/format');
    const reading = readDocumentText(text);
    if (!reading.ok) {
      const faults = reading.errors.slice(0, 3).map((e) => `${e.place}: ${e.message}`);
      notices.failed(`${file.name}: ${faults.join('; ')}`);
      return;
    }
    const { document } = reading;
    const fits = (d: typeof document): d is DocumentOf<K> => d.kind === kind;
    if (fits(document)) await store(document, true);
    else notices.failed(`${file.name} contains a ${document.kind}; open it from the ${document.kind}s page`);
  };
  return (
    <Upload
      accept=".json,application/json"
      showUploadList={false}
      beforeUpload={(file) => {
        void open(file);
        return false;
      }}
    >
      <Button>Open file</Button>
    </Upload>
  );
}

/** The entries that are there, as far as they are found, with what can be done with them. */
function PresentEntries<K extends Kind>({
  props: { kind, heading, empty, path, preview, useColumns = useNoColumns },
  entries: { rows, total, error, more, again },
  store,
}: {
  readonly props: EntryListProps<K>;
  readonly entries: ReturnType<typeof useEntries>;
  readonly store: Store<K>;
}): ReactNode {
  const [sought, setSought] = useState('');
  const [chosenIds, setChosenIds] = useState<ReadonlySet<string>>(new Set<string>());
  const columns = useColumns(rows);
  const found = rows?.filter((row) => isSought(row, sought)) ?? null;
  const chosen = found?.filter(({ id }) => chosenIds.has(id)) ?? [];
  const among = more === null ? '' : ` among the ${rows?.length ?? 0} shown`;
  return (
    <>
      <div className="list-head">
        <h1>{heading}</h1>
        {chosen.length > 0 && (
          <ChosenBar
            kind={kind}
            chosen={chosen}
            again={again}
            onNone={() => setChosenIds(new Set<string>())}
          />
        )}
        {rows !== null && rows.length > 1 && (
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
      {error !== undefined && <p className="wrong">The list cannot be loaded: {error.message}.</p>}
      {(rows === null || columns === null) && error === undefined && <Skeleton active aria-label="Loading" />}
      {found?.length === 0 && (
        <Empty
          image={Empty.PRESENTED_IMAGE_SIMPLE}
          description={sought === '' ? empty : `No match for “${sought}”${among}.`}
        />
      )}
      {found !== null && found.length > 0 && columns !== null && (
        <EntryTable
          // a table sorts by the columns that it had first
          key={columns.length}
          label={heading}
          rows={found}
          columns={entryColumns({ kind, path, preview, columns, store, again })}
          hasHeader={columns.length > 0}
          chosen={chosenIds}
          onChoose={setChosenIds}
        />
      )}
      {more !== null && (
        <p className="more-entries">
          <Button onClick={more}>
            Show more ({rows?.length} of {total})
          </Button>
        </p>
      )}
    </>
  );
}

/** All entries of a kind as rows, with what can be done with each, and those that were deleted. */
export function EntryList<K extends Kind>(props: EntryListProps<K>): ReactNode {
  const { kind, heading, path, blank, newLabel, otherNew } = props;
  const entries = useEntries(kind);
  const store = useStore(kind, path, entries.again);
  const [isBin, setBin] = useState(false);
  usePageTitle(heading);
  return (
    <div className="page-frame">
      <TopBar
        actions={
          <>
            <OpenFile kind={kind} store={store} />
            {otherNew?.((document) => void store(document, true))}
            <Button type="primary" onClick={() => void store(blank, true)}>
              {newLabel}
            </Button>
          </>
        }
      />
      <main className={props.useColumns === undefined ? 'entry-list' : 'entry-list wide'}>
        {isBin ? (
          <>
            <div className="list-head">
              <h1>Deleted {heading.toLowerCase()}</h1>
            </div>
            <BinList kind={kind} onChange={entries.again} />
          </>
        ) : (
          <PresentEntries props={props} entries={entries} store={store} />
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
