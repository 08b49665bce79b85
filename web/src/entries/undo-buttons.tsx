import { Button } from 'antd';
import { memo, type ReactNode } from 'react';
import type { Editing } from '../state/use-history.ts';

/** An arrow that turns back, or on. */
function Arrow({ on }: { readonly on: boolean }): ReactNode {
  return (
    <svg
      width="15"
      height="15"
      viewBox="0 0 15 15"
      aria-hidden="true"
      transform={on ? 'scale(-1 1)' : undefined}
    >
      <path
        d="M5 2 1.5 5.5 5 9M2 5.5H9.5A3.6 3.6 0 0 1 9.5 12.7H5"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.5"
      />
    </svg>
  );
}

/** Undo and redo, quiet where there is nothing to undo. */
export const UndoButtons = memo(function UndoButtons({
  undo,
  redo,
}: Pick<Editing<unknown>, 'undo' | 'redo'>): ReactNode {
  return (
    <>
      <Button
        type="text"
        aria-label="Undo"
        onClick={undo ?? undefined}
        disabled={undo === null}
        title="Undo (Ctrl+Z)"
      >
        <Arrow on={false} />
      </Button>
      <Button
        type="text"
        aria-label="Redo"
        onClick={redo ?? undefined}
        disabled={redo === null}
        title="Redo (Ctrl+Shift+Z)"
      >
        <Arrow on />
      </Button>
    </>
  );
});
