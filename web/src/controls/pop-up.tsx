import { useId, useRef, type ReactNode } from 'react';
import { Button } from './button.tsx';
import { placeBelow } from './place-below.ts';

/** Puts what a button opens below it. */
function putBelow(panel: HTMLElement, button: HTMLElement): void {
  const { clientWidth, clientHeight } = document.documentElement;
  const { left, top } = placeBelow(
    button.getBoundingClientRect(),
    { width: panel.offsetWidth, height: panel.offsetHeight },
    { width: clientWidth, height: clientHeight },
  );
  panel.style.left = `${left}px`;
  panel.style.top = `${top}px`;
}

/** A button that opens something small above the page. Esc or a click beside it closes it; the browser does both. */
export function PopUp({
  label,
  size = 'usual',
  children,
}: {
  readonly label: string;
  readonly size?: 'small' | 'usual';
  readonly children: ReactNode;
}): ReactNode {
  const id = useId();
  const button = useRef<HTMLButtonElement>(null);
  return (
    <>
      <Button ref={button} size={size} popoverTarget={id}>
        {label}
      </Button>
      <div
        id={id}
        popover="auto"
        className="pop-up"
        onToggle={(event) => {
          if (button.current !== null) putBelow(event.currentTarget, button.current);
        }}
      >
        {children}
      </div>
    </>
  );
}
