import { App, Select } from 'antd';
import type { ReactNode } from 'react';
import { loadEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';

/** A problem of the list, taken instead of the one of the study. */
export function StoredProblem({
  onTake,
}: {
  readonly onTake: (title: string, text: string) => void;
}): ReactNode {
  const { rows } = useEntries('problem');
  const { message } = App.useApp();
  if (rows === null || rows.length === 0) return null;
  return (
    <Select<string>
      size="small"
      variant="borderless"
      className="from-library"
      showSearch={{ optionFilterProp: 'label' }}
      placeholder="take a stored problem"
      aria-label="Take a stored problem"
      value={null}
      listHeight={340}
      popupMatchSelectWidth={300}
      options={rows.map(({ id, title }) => ({ value: id, label: title }))}
      onSelect={(id) =>
        void loadEntry('problem', id)
          .then(({ document }) => onTake(document.title, document.text))
          .catch((thrown: unknown) =>
            message.error(thrown instanceof Error ? thrown.message : String(thrown)),
          )
      }
    />
  );
}
