import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Left } from '../state/use-unsaved.ts';
import { momentText } from './changed-at.ts';
import './saving.css';

export interface UnsavedOfferProps<D> {
  readonly left: Left<D>;
  readonly onUse: (document: D) => void;
}

/** Offers work that was left in this browser before the server had it. */
export function UnsavedOffer<D>({ left, onUse }: UnsavedOfferProps<D>): ReactNode {
  return (
    <p className="unsaved-offer" role="alert">
      This browser has unsaved changes from {momentText(left.at)}.{' '}
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
