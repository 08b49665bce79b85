import { Table, type TableColumnsType } from 'antd';
import { type ReactNode, useSyncExternalStore } from 'react';
import type { EntryRow } from '../api/client.ts';
import { moveInRows } from '../tables/row-keys.ts';

/** Height of the page without the rows of a list, in px: the top bar, the heading, and the line below. */
const AROUND = 190;
/** Height of the headings, in px. */
const HEADER = 40;
/** Width of a list, in px; the columns share it. */
const WIDTH = 1080;
/** The same of one with more columns. */
const WIDE = 1240;
/** Least height of the rows, in px. */
const MIN_HEIGHT = 200;

function onResize(changed: () => void): () => void {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
}

/** Entries as rows, each of which is one stop of the tab key; only those in sight are in the page. */
export function EntryTable({
  label,
  rows,
  columns,
  chosen,
  onChoose,
  hasHeader = false,
}: {
  readonly label: string;
  readonly rows: readonly EntryRow[];
  readonly columns: TableColumnsType<EntryRow>;
  /** The ids of the chosen rows; without it none can be chosen. */
  readonly chosen?: ReadonlySet<string>;
  readonly onChoose?: (chosen: ReadonlySet<string>) => void;
  /** Whether columns have headings, to sort and filter by. */
  readonly hasHeader?: boolean;
}): ReactNode {
  const height = useSyncExternalStore(onResize, () => window.innerHeight);
  return (
    <section aria-label={label}>
      <Table<EntryRow>
        virtual
        size="small"
        showHeader={hasHeader}
        pagination={false}
        rowKey="id"
        columns={columns}
        dataSource={rows}
        scroll={{
          x: hasHeader ? WIDE : WIDTH,
          y: Math.max(MIN_HEIGHT, height - AROUND - (hasHeader ? HEADER : 0)),
        }}
        onRow={({ title }) => ({ role: 'group', 'aria-label': title || 'Untitled', onKeyDown: moveInRows })}
        {...(chosen === undefined
          ? {}
          : {
              rowSelection: {
                columnWidth: 40,
                selectedRowKeys: [...chosen],
                onChange: (keys) => onChoose?.(new Set(keys.map(String))),
                getCheckboxProps: ({ title }) => ({
                  'aria-label': `Select ${title || 'Untitled'}`,
                  tabIndex: -1,
                }),
              },
            })}
      />
    </section>
  );
}
