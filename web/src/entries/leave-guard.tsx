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
  return (
    <Modal
      open={blocker.state === 'blocked'}
      title="Leave with unsaved work?"
      okText="Leave"
      cancelText="Stay"
      onOk={() => blocker.proceed?.()}
      onCancel={() => blocker.reset?.()}
    >
      The server has not taken the last changes. They stay in this browser and are offered when the page is
      opened again.
    </Modal>
  );
}
