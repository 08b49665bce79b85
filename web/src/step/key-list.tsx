import { Modal } from 'antd';
import type { ReactNode } from 'react';
import { KEYS } from './use-keys.ts';
import './key-list.css';

/** The keys of the page. */
export function KeyList({ onClose }: { readonly onClose: () => void }): ReactNode {
  return (
    <Modal title="Keyboard shortcuts" open onCancel={onClose} footer={null} width={560}>
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
