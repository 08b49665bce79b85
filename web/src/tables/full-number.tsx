import { Button } from 'antd';
import { type ReactNode, useState } from 'react';
import type { FullNumber } from './use-full-number.ts';

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
