import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Left } from '../state/use-unsaved.ts';
import './saving.css';

const WHEN = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** Offers work that was left in this browser before the server had it. */
export function UnsavedOffer<D>({
  left,
  onUse,
}: {
  readonly left: Left<D> | null;
  readonly onUse: (document: D) => void;
}): ReactNode {
  if (left === null) return null;
  return (
    <p className="unsaved-offer" role="alert">
      This browser has unsaved changes from {WHEN.format(left.at)}.{' '}
      <Button
        size="small"
        type="primary"
        onClick={() => {
          onUse(left.document);
          left.drop();
        }}
      >
        Restore them
      </Button>{' '}
      <Button size="small" onClick={left.drop}>
        Discard them
      </Button>
    </p>
  );
}
