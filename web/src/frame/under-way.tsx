import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Computed } from '../worker/use-work.ts';

/** Says how far a longer computation is, and lets a person end it. */
export function UnderWay<T>({
  computed,
  what,
  kept = 'the previous results are shown',
}: {
  readonly computed: Computed<T>;
  readonly what: string;
  /** What is shown after it was cancelled. */
  readonly kept?: string;
}): ReactNode {
  const { part, why, elsewhere, cancel, continueInBackground } = computed;
  if (why !== null)
    return (
      <p className="wrong" role="status">
        {why === 'cancelled'
          ? `Computing ${what} was cancelled; ${kept}.`
          : `Could not compute ${what}: ${why}`}
      </p>
    );
  if (part === null) return null;
  return (
    <p className="quiet" role="status">
      Computing {what}
      {elsewhere &&
        (continueInBackground === null ? ' on the server, in the background' : ' on the server')}:{' '}
      {Math.floor(100 * part)} %{' '}
      <Button size="small" onClick={cancel}>
        Cancel
      </Button>{' '}
      {continueInBackground !== null && (
        <Button size="small" onClick={continueInBackground}>
          Continue in background
        </Button>
      )}
    </p>
  );
}
