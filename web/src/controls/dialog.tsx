import { useEffect, useId, useRef, type ReactNode } from 'react';
import { Button } from './button.tsx';

/** Asks or tells something before the page goes on. The browser holds the focus in it; Esc closes it. */
export function Dialog({
  title,
  onClose,
  children,
}: {
  readonly title: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
}): ReactNode {
  const id = useId();
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const shown = dialog.current;
    shown?.showModal();
    return () => shown?.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      className="dialog"
      aria-labelledby={id}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      onClick={(event) => {
        // a click on the ground behind is one on the dialog itself, not on anything in it
        if (event.target === event.currentTarget) onClose();
      }}
    >
      <div className="dialog-body">
        <h2 id={id}>{title}</h2>
        {children}
        {/* behind what is in the dialog, so that the keys go there first */}
        <Button className="dialog-close" look="text" aria-label="Close" title="Close" onClick={onClose}>
          ×
        </Button>
      </div>
    </dialog>
  );
}
