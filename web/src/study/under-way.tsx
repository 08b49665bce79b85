import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Computed } from '../worker/use-computed.ts';

/** Says how far a longer computation is, and lets a person end it. */
export function UnderWay<T>({
  computed,
  what,
}: {
  readonly computed: Computed<T>;
  readonly what: string;
}): ReactNode {
  const { part, why, cancel } = computed;
  if (why !== null)
    return (
      <p className="wrong" role="status">
        {why === 'cancelled'
          ? `Computing ${what} was cancelled; shown is what was there before.`
          : `Could not compute ${what}: ${why}`}
      </p>
    );
  if (part === null) return null;
  return (
    <p className="quiet" role="status">
      Computing {what}: {Math.floor(100 * part)} %{' '}
      <Button size="small" onClick={cancel}>
        Cancel
      </Button>
    </p>
  );
}
