import { Modal } from 'antd';
import type { ReactNode } from 'react';
import { useBlocker } from 'react-router';
import type { Autosave } from '../state/use-autosave.ts';

/** Asks before a page is left whose work the server does not take. */
export function LeaveGuard({ state, isSaved }: Pick<Autosave<unknown>, 'state' | 'isSaved'>): ReactNode {
  const isUnsaved = state.kind === 'failed' || state.kind === 'conflict' || state.kind === 'gone';
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      isUnsaved && !isSaved() && currentLocation.pathname !== nextLocation.pathname,
  );
  if (blocker.state !== 'blocked') return null;
  return (
    <Modal
      title="Leave with unsaved work?"
      open
      onCancel={blocker.reset}
      cancelText="Stay"
      okText="Leave"
      onOk={blocker.proceed}
    >
      The last changes are not on the server.{' '}
      {state.kind === 'failed' && !state.isKept
        ? 'They are not stored in this browser either and are lost when you leave.'
        : 'They are stored in this browser and are offered when the page is opened again.'}
    </Modal>
  );
}
