import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Editing } from '../desk/use-history.ts';

/** Undo and redo, quiet where there is nothing to undo. */
export function UndoButtons({ undo, redo }: Pick<Editing<unknown>, 'undo' | 'redo'>): ReactNode {
  return (
    <>
      <Button onClick={undo ?? undefined} disabled={undo === null} title="Undo (Ctrl+Z)">
        Undo
      </Button>
      <Button onClick={redo ?? undefined} disabled={redo === null} title="Redo (Ctrl+Shift+Z)">
        Redo
      </Button>
    </>
  );
}
