import { Button, Empty, Popconfirm, Skeleton } from 'antd';
import type { ReactNode } from 'react';
import { deletePermanently, type Kind, restoreEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { EntryTable } from './entry-table.tsx';
import { notices } from '../frame/notices.tsx';

/** The bin of a kind: its entries are restored or deleted permanently. */
export function BinList({
  kind,
  onChange,
}: {
  readonly kind: Kind;
  readonly onChange: () => Promise<unknown>;
}): ReactNode {
  const { rows, error, more, total, again } = useEntries(kind, 'bin');
  const after = async (): Promise<void> => {
    await Promise.all([again(), onChange()]);
  };
  if (error !== undefined) return <p className="wrong">The bin cannot be loaded: {error.message}.</p>;
  if (rows === null) return <Skeleton active aria-label="Loading" />;
  if (rows.length === 0)
    return <Empty image={Empty.PRESENTED_IMAGE_SIMPLE} description="The bin is empty." />;
  return (
    <>
      <EntryTable
        label="Bin"
        rows={rows}
        columns={[
          {
            key: 'title',
            width: 800,
            render: (_, { title }) => <b className="entry-title">{title || 'Untitled'}</b>,
          },
          {
            key: 'actions',
            width: 280,
            align: 'right',
            render: (_, { id, title }) => (
              <>
                <Button
                  size="small"
                  type="text"
                  onClick={notices.reporting(async () => {
                    await restoreEntry(kind, id);
                    await after();
                  })}
                >
                  Restore
                </Button>
                <Popconfirm
                  title={`Delete “${title}” permanently?`}
                  okText="Delete permanently"
                  onConfirm={notices.reporting(async () => {
                    await deletePermanently(kind, id);
                    await after();
                  })}
                >
                  <Button size="small" type="text">
                    Delete permanently
                  </Button>
                </Popconfirm>
              </>
            ),
          },
        ]}
      />
      {more !== null && (
        <p className="more-entries">
          <Button onClick={more}>
            Show more ({rows.length} of {total})
          </Button>
        </p>
      )}
    </>
  );
}
