import { Button } from 'antd';
import { type ReactNode, Suspense, useState } from 'react';

/** A button that opens a list to search in. The list is fetched before it is first opened. */
export function FromLibrary({
  text,
  label,
  fetch,
  list,
}: {
  readonly text: string;
  /** What it opens, for screen readers. */
  readonly label: string;
  /** Fetches the list; called when it is about to be opened. */
  readonly fetch: () => Promise<unknown>;
  readonly list: (close: () => void) => ReactNode;
}): ReactNode {
  const [open, setOpen] = useState(false);
  const [wasOpen, setWasOpen] = useState(false);
  const button = (
    // when the list closes, the focus returns to the button that opened it
    <Button
      type="text"
      size="small"
      aria-label={label}
      aria-haspopup="listbox"
      autoFocus={wasOpen}
      onPointerEnter={() => void fetch()}
      onFocus={() => void fetch()}
      onClick={() => {
        setOpen(true);
        setWasOpen(true);
      }}
    >
      {text}
    </Button>
  );
  return open ? <Suspense fallback={button}>{list(() => setOpen(false))}</Suspense> : button;
}
