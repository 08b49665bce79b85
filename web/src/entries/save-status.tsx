import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Autosave } from '../desk/use-autosave.ts';

/** Says whether the page is saved, and what to do where it could not be. */
export function SaveStatus<D>({
  autosave,
  onTake,
}: {
  readonly autosave: Autosave<D>;
  readonly onTake: (theirs: D) => void;
}): ReactNode {
  const { state } = autosave;
  switch (state.kind) {
    case 'saved':
      return (
        <span className="quiet" role="status">
          Saved
        </span>
      );
    case 'saving':
      return (
        <span className="quiet" role="status">
          Saving …
        </span>
      );
    case 'failed':
      return (
        <span role="alert">
          <span className="wrong" title={state.why}>
            Not saved: {state.why}
          </span>{' '}
          <Button size="small" onClick={autosave.retry}>
            Try again
          </Button>
        </span>
      );
    case 'conflict':
      return (
        <span role="alert">
          <span className="wrong">Changed elsewhere, not saved</span>{' '}
          <Button size="small" onClick={autosave.keepMine}>
            Keep mine
          </Button>{' '}
          <Button
            size="small"
            onClick={() => {
              onTake(state.theirs);
              autosave.tookTheirs(state.version, state.theirs);
            }}
          >
            Take the other
          </Button>
        </span>
      );
  }
}
