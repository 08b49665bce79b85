import { Table, type TableColumnsType } from 'antd';
import { memo, type ReactNode, startTransition, useEffect, useState } from 'react';
import { whenIdle } from '../frame/when-idle.ts';

interface Row {
  readonly key: number;
}

const ROWS: readonly Row[] = Array.from({ length: 12 }, (_, key) => ({ key }));
const COLUMNS: TableColumnsType<Row> = [
  { title: '', dataIndex: 'key', width: 60, rowScope: 'row', sorter: (a, b) => a.key - b.key },
  { title: '', dataIndex: 'key', align: 'right', render: String },
  { title: '', dataIndex: 'key', ellipsis: true, filters: [], onFilter: () => true },
];

/**
 * A table that nobody sees, while the page has nothing else to do. The first table of a page takes several frames, since its
 * code runs for the first time and its styles are made: a page whose tables come while work is under way has that
 * behind it then. It stays: styles go with the last table that has them.
 */
export const PreparedTable = memo(function PreparedTable(): ReactNode {
  const [isIdle, setIdle] = useState(false);
  useEffect(() => whenIdle(() => startTransition(() => setIdle(true))), []);
  return (
    isIdle && (
      <div hidden>
        <Table<Row> size="small" pagination={false} scroll={{ y: 100 }} dataSource={ROWS} columns={COLUMNS} />
      </div>
    )
  );
});
