import { Button } from 'antd';
import { type ReactNode, useState } from 'react';
import { useNavigate } from 'react-router';
import type { DocumentOf, Kind } from '../api/client.ts';
import { notices } from '../frame/notices.tsx';
import type { Autosave, SaveState } from '../state/use-autosave.ts';
import { ConflictDialog } from './conflict-dialog.tsx';

/** Says that there are two versions, and shows them for a choice. */
function Conflict<K extends Kind>({
  kind,
  mine,
  conflict: { theirs, base, version },
  onUse,
  settle,
}: {
  readonly kind: K;
  readonly mine: DocumentOf<K>;
  readonly conflict: Extract<SaveState<DocumentOf<K>>, { readonly kind: 'conflict' }>;
  readonly onUse: (merged: DocumentOf<K>) => void;
  readonly settle: Autosave<DocumentOf<K>>['settle'];
}): ReactNode {
  const [isOpen, setOpen] = useState(false);
  return (
    <span role="alert">
      <span className="wrong">Edited in another tab; not saved</span>{' '}
      <Button size="small" onClick={() => setOpen(true)}>
        Compare versions
      </Button>
      {isOpen && (
        <ConflictDialog
          kind={kind}
          mine={mine}
          theirs={theirs}
          base={base}
          onCancel={() => setOpen(false)}
          onSave={(merged) => {
            onUse(merged);
            settle(version, theirs);
          }}
        />
      )}
    </span>
  );
}

/** Says whether the page is saved, and what to do where it could not be. */
export function SaveStatus<K extends Kind>({
  kind,
  document,
  autosave,
  onUse,
  path,
}: {
  readonly kind: K;
  /** What is on the page. */
  readonly document: DocumentOf<K>;
  readonly autosave: Autosave<DocumentOf<K>>;
  /** Puts another version on the page. */
  readonly onUse: (other: DocumentOf<K>) => void;
  /** Where entries of this kind are. */
  readonly path: string;
}): ReactNode {
  const navigate = useNavigate();
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
      return <Conflict kind={kind} mine={document} conflict={state} onUse={onUse} settle={autosave.settle} />;
  }
}
