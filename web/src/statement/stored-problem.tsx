import { lazy, memo, type ReactNode } from 'react';
import { loadEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { notices } from '../frame/notices.tsx';
import { FromLibrary } from './from-library.tsx';

const fetch = async () => ({ default: (await import('./search-list.tsx')).SearchList });
const SearchList = lazy(fetch);

/** A problem of the list, taken instead of the one of the study. */
export const StoredProblem = memo(function StoredProblem({
  onUse,
}: {
  readonly onUse: (title: string, text: string) => void;
}): ReactNode {
  const { rows } = useEntries('problem');
  if (rows === null || rows.length === 0) return null;
  return (
    <FromLibrary
      text="Load a saved problem"
      label="Load a saved problem"
      fetch={fetch}
      list={(close) => (
        <SearchList
          label="Load a saved problem"
          width={300}
          options={rows.map(({ id, title }) => ({ value: id, label: title, told: '', formula: null }))}
          onClose={close}
          onUse={(id) =>
            void loadEntry('problem', id)
              .then(({ document }) => onUse(document.title, document.text))
              .catch(notices.failed)
          }
        />
      )}
    />
  );
});
