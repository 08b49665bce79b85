import { Modal } from 'antd';
import type { ReactNode } from 'react';
import { useBlocker } from 'react-router';
import type { Autosave } from '../desk/use-autosave.ts';

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
      The server has not taken the last changes.{' '}
      {state.kind === 'failed' && !state.isKept
        ? 'This browser cannot keep them either: they are lost when you leave.'
        : 'They stay in this browser and are offered when the page is opened again.'}
    </Modal>
  );
}
