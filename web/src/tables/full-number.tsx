import { Button } from 'antd';
import { type MouseEvent, type ReactNode, useCallback, useState } from 'react';

/** The full number of what was clicked: the shortest decimals that are this double and no other. */
export interface FullNumber {
  readonly full: string | null;
  /** Receives the clicks of a table. */
  readonly onClick: (event: MouseEvent) => void;
}

/** Remembers the number that was clicked last. */
export function useFullNumber(): FullNumber {
  const [full, setFull] = useState<string | null>(null);
  const onClick = useCallback((event: MouseEvent) => {
    if (!(event.target instanceof Element)) return;
    const found = event.target.closest('td, th')?.querySelector('[data-full]')?.getAttribute('data-full');
    setFull(found ?? null);
  }, []);
  return { full, onClick };
}

/** The number that was clicked, with all its digits, to be read or copied. */
export function FullNumberText({ full }: Pick<FullNumber, 'full'>): ReactNode {
  const [copied, setCopied] = useState<string | null>(null);
  if (full === null) return null;
  return (
    <output className="full-number">
      <Button
        type="text"
        size="small"
        title="Copy this number"
        onClick={() => void navigator.clipboard.writeText(full).then(() => setCopied(full))}
      >
        {full}
      </Button>
      {copied === full && <span className="quiet"> copied</span>}
    </output>
  );
}
