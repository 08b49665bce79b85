import { counted } from '@schritt/core/text';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { ServerWork } from '../api/jobs.ts';
import type { Computed } from '../worker/use-work.ts';

/** Who does the runs of a job on the server, and how many are done, after the part of all work. */
function serverText({ done, of, workers, isReached }: ServerWork): string {
  if (!isReached) return ', waiting for the connection to the workers';
  const who =
    workers === null ? '' : workers === 0 ? ', waiting for a worker' : `, ${counted(workers, 'worker')}`;
  return of === 0 ? who : `${who}, ${done} of ${counted(of, 'run')}`;
}

export interface UnderWayProps {
  readonly computed: Computed<unknown>;
  readonly what: string;
  /** What is shown after it was cancelled. Default: the previous results. */
  readonly kept?: string;
}

/** Says how far a longer computation is, and lets a person end it. */
export function UnderWay({
  computed,
  what,
  kept = 'the previous results are shown',
}: UnderWayProps): ReactNode {
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
    <p className={elsewhere === null ? 'quiet under-way' : 'quiet'} role="status">
      Computing {what}
      {elsewhere !== null &&
        (continueInBackground === null ? ' on the server, in the background' : ' on the server')}
      : {Math.floor(100 * part)} %{elsewhere !== null && serverText(elsewhere)}{' '}
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
