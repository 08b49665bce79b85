import { useId, useRef, type ReactNode } from 'react';
import { Button } from './button.tsx';

/** Room between a button and what it opens, and between that and the edge of the window, in px. */
const GAP = 4;

/** Puts what a button opens below it, inside of the window. */
function placeBelow(panel: HTMLElement, button: HTMLElement): void {
  const { bottom, left } = button.getBoundingClientRect();
  const most = document.documentElement.clientWidth - panel.offsetWidth - GAP;
  panel.style.top = `${bottom + GAP}px`;
  panel.style.left = `${Math.max(GAP, Math.min(left, most))}px`;
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
          if (button.current !== null) placeBelow(event.currentTarget, button.current);
        }}
      >
        {children}
      </div>
    </>
  );
}
