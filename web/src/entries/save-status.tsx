import { Button } from 'antd';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import type { Autosave } from '../state/use-autosave.ts';
import { useNotices } from '../frame/use-notices.tsx';

/** Says whether the page is saved, and what to do where it could not be. */
export function SaveStatus<D>({
  autosave,
  onUse,
  path,
}: {
  readonly autosave: Autosave<D>;
  readonly onUse: (theirs: D) => void;
  /** Where entries of this kind are. */
  readonly path: string;
}): ReactNode {
  const navigate = useNavigate();
  const notices = useNotices();
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
    case 'shown':
      return (
        <span className="quiet" role="status">
          Shared view: changes are not saved
        </span>
      );
    case 'gone':
      return (
        <span role="alert">
          <span className="wrong">Deleted in another tab; not saved</span>{' '}
          <Button
            size="small"
            onClick={() =>
              void autosave
                .saveAsNew()
                .then((id) => navigate(`${path}/${id}`))
                .catch(notices.failed)
            }
          >
            Save as new
          </Button>
        </span>
      );
    case 'failed':
      return (
        <span role="alert">
          <span className="wrong" title={state.why}>
            {state.isKept ? 'Not saved; kept in this browser' : 'Not saved, and not kept in this browser'}:{' '}
            {state.why}
          </span>{' '}
          <Button size="small" onClick={autosave.retry}>
            Try again
          </Button>
        </span>
      );
    case 'conflict':
      return (
        <span role="alert">
          <span className="wrong">Edited in another tab; not saved</span>{' '}
          <Button size="small" onClick={autosave.keepMine}>
            Overwrite
          </Button>{' '}
          <Button
            size="small"
            onClick={() => {
              onUse(state.theirs);
              autosave.tookTheirs(state.version, state.theirs);
            }}
          >
            Load the other version
          </Button>
        </span>
      );
  }
}
