import { LIBRARY } from '@schritt/core/notation';
import { type ReactNode, useMemo } from 'react';
import { loadEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { notices } from '../frame/notices.tsx';
import { type Listed, listedMethod } from './listed-method.ts';
import { SearchList } from './search-list.tsx';

/** Title and text of a method of the list, or of those that come with the program. */
async function textOf(key: string): Promise<{ readonly title: string; readonly text: string }> {
  return LIBRARY.find(({ title }) => title === key) ?? (await loadEntry('method', key)).document;
}

/** The methods that can be taken into a study, in a list that is searched by title and kind. */
export function MethodSearch({
  onUse,
  onClose,
}: {
  readonly onUse: (title: string, text: string) => void;
  readonly onClose: () => void;
}): ReactNode {
  const { rows } = useEntries('method');
  // a page that is only shown has no list: then the methods that come with the program
  const options = useMemo(
    (): readonly Listed[] =>
      rows === null
        ? LIBRARY.map(({ title, text }) => listedMethod(title, title, text))
        : rows.map(({ id, title, excerpt }) => listedMethod(id, title, excerpt)),
    [rows],
  );
  return (
    <SearchList
      label="Add from library"
      width={440}
      options={options}
      onClose={onClose}
      onUse={(key) =>
        void textOf(key)
          .then(({ title, text }) => onUse(title, text))
          .catch(notices.failed)
      }
    />
  );
}
