import { readDocumentText } from '@schritt/core/document';
import { type ChangeEvent, lazy, type ReactNode, Suspense, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from '../controls/button.tsx';
import { holdsWords } from '../controls/holds-words.ts';
import { TextField } from '../controls/text-field.tsx';
import { createEntry, type DocumentOf, type EntryRow, type Kind } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { tellFailed } from '../frame/notices.ts';
import { SessionLinks } from '../frame/session-links.tsx';
import { TopBar } from '../frame/top-bar.tsx';
import { usePageTitle } from '../frame/use-page-title.ts';
import { ChosenBar } from './chosen-bar.tsx';
import { EntryRowItem } from './entry-row.tsx';
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

// it asks by the component library, which no list needs else
const BinList = lazy(async () => ({ default: (await import('./bin-list.tsx')).BinList }));

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
  const file = useRef<HTMLInputElement>(null);
  const [sought, setSought] = useState('');
  const [chosenIds, setChosenIds] = useState<ReadonlySet<string>>(new Set<string>());
  const [isBin, setBin] = useState(false);
  usePageTitle(heading);
  const found = rows?.filter((row) => isSought(row, sought)) ?? null;

  const chosen = found?.filter(({ id }) => chosenIds.has(id)) ?? [];
  const choose = (id: string, isChosen: boolean): void =>
    setChosenIds((now) => new Set(isChosen ? [...now, id] : [...now].filter((other) => other !== id)));

  const store = async (document: DocumentOf<K>, open: boolean): Promise<void> => {
    try {
      const entry = await createEntry(kind, document);
      await again();
      if (open) await navigate(`${path}/${entry.id}`);
    } catch (thrown) {
      tellFailed(thrown);
    }
  };
  const openFile = async (event: ChangeEvent<HTMLInputElement>): Promise<void> => {
    const [chosen] = event.target.files ?? [];
    event.target.value = '';
    if (chosen === undefined) return;
    const text = await textOf(chosen).catch((thrown: unknown) => {
      tellFailed(thrown);
      return null;
    });
    if (text === null) return;
    const reading = readDocumentText(text);
    if (!reading.ok) {
      tellFailed(
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
    else tellFailed(`${chosen.name} holds a ${document.kind}; open it on its own page`);
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
            {otherNew?.((document) => void store(document, true))}
            <Button look="primary" onClick={() => void store(blank, true)}>
              {newLabel}
            </Button>
          </>
        }
      />
      <main className="entry-list">
        <div className="list-head">
          <h1>{isBin ? `${heading} in the bin` : heading}</h1>
          {chosen.length > 0 && !isBin && (
            <ChosenBar
              kind={kind}
              chosen={chosen}
              again={again}
              onNone={() => setChosenIds(new Set<string>())}
            />
          )}
          {!isBin && rows !== null && rows.length > 1 && (
            <TextField
              type="search"
              className="search"
              aria-label={`Search the ${heading.toLowerCase()}`}
              placeholder="title, method or text"
              value={sought}
              onChange={(event) => setSought(event.target.value)}
            />
          )}
        </div>
        {isBin && (
          <Suspense fallback={<p className="quiet">Loading …</p>}>
            <BinList kind={kind} onChange={again} />
          </Suspense>
        )}
        {error !== undefined && <p className="wrong">The list cannot be loaded: {error.message}.</p>}
        {rows === null && error === undefined && <p className="quiet">Loading …</p>}
        {!isBin && found?.length === 0 && sought !== '' && (
          <p className="empty">
            None of the {more === null ? '' : `${rows?.length ?? 0} that are shown `}holds “{sought}”.
          </p>
        )}
        {!isBin && rows?.length === 0 && <p className="empty">{empty}</p>}
        {!isBin && (
          <ul>
            {found?.map((row) => (
              <EntryRowItem
                key={row.id}
                kind={kind}
                row={row}
                path={path}
                preview={preview}
                store={store}
                again={again}
                isChosen={chosenIds.has(row.id)}
                onChoose={(isChosen) => choose(row.id, isChosen)}
              />
            ))}
          </ul>
        )}
        {!isBin && more !== null && (
          <p className="more-entries">
            <Button onClick={more}>
              Show more ({rows?.length} of {total})
            </Button>
          </p>
        )}
        <p className="to-bin">
          <button type="button" className="plain-button quiet" onClick={() => setBin((now) => !now)}>
            {isBin ? `Back to the ${heading.toLowerCase()}` : 'Bin'}
          </button>
          <SessionLinks />
        </p>
      </main>
    </div>
  );
}
