import { Modal } from 'antd';
import type { ReactNode } from 'react';
import { KEYS } from './use-keys.ts';

/** The keys of the page. */
export function KeyList({
  isOpen,
  onClose,
}: {
  readonly isOpen: boolean;
  readonly onClose: () => void;
}): ReactNode {
  return (
    <Modal title="Keys" open={isOpen} onCancel={onClose} footer={null}>
      <dl className="key-list">
        {KEYS.map(({ keys, says }) => (
          <div key={keys}>
            <dt>
              <kbd>{keys}</kbd>
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
