import type { ReactNode } from 'react';
import { Dialog } from '../controls/dialog.tsx';
import { KEYS } from './use-keys.ts';
import './key-list.css';

/** The keys of the page. */
export function KeyList({ onClose }: { readonly onClose: () => void }): ReactNode {
  return (
    <Dialog title="Keys" onClose={onClose}>
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
    </Dialog>
  );
}
