import { Popconfirm } from 'antd';
import type { ReactNode } from 'react';
import { Button } from '../controls/button.tsx';
import { deletePermanently, type Kind, restoreEntry } from '../api/client.ts';
import { useEntries } from '../api/use-entries.ts';
import { told } from '../frame/notices.ts';
import { AntFrame } from '../theme/ant-frame.tsx';

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
  if (rows === null) return <p className="quiet">Loading …</p>;
  if (rows.length === 0) return <p className="empty">The bin is empty.</p>;
  return (
    <AntFrame>
      <ul aria-label="Bin">
        {rows.map(({ id, title }) => (
          <li key={id}>
            <span className="entry-link">
              <span className="entry-title">{title || 'Untitled'}</span>
            </span>
            <span className="entry-actions">
              <Button
                size="small"
                look="text"
                onClick={told(async () => {
                  await restoreEntry(kind, id);
                  await after();
                })}
              >
                Restore
              </Button>
              <Popconfirm
                title={`Delete “${title}” permanently?`}
                okText="Delete permanently"
                onConfirm={told(async () => {
                  await deletePermanently(kind, id);
                  await after();
                })}
              >
                <Button size="small" look="text">
                  Delete permanently
                </Button>
              </Popconfirm>
            </span>
          </li>
        ))}
      </ul>
      {more !== null && (
        <p className="more-entries">
          <Button onClick={more}>
            Show more ({rows.length} of {total})
          </Button>
        </p>
      )}
    </AntFrame>
  );
}
