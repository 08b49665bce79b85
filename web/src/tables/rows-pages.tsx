import { count } from '@schritt/core/text';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import { STEPS_SHOWN } from './steps-table.tsx';

interface RowsPagesProps {
  /** The first grid point that is shown, and how far the rows are apart. */
  readonly from: number;
  readonly every: number;
  readonly steps: number;
  readonly onGo: (n: number) => void;
}

/** Leafs through the rows of a run that is longer than a table. */
export function RowsPages({ from, every, steps, onGo }: RowsPagesProps): ReactNode {
  if (steps + 1 <= STEPS_SHOWN * every) return null;
  const last = Math.max(0, steps - (STEPS_SHOWN - 1) * every);
  const page = STEPS_SHOWN * every;
  return (
    <nav className="pages" aria-label="Rows shown">
      <Button size="small" disabled={from === 0} onClick={() => onGo(0)}>
        First
      </Button>
      <Button size="small" disabled={from === 0} onClick={() => onGo(Math.max(0, from - page))}>
        Previous
      </Button>
      <span className="quiet">
        rows from n = {count(from)} of {count(steps)}
      </span>
      <Button size="small" disabled={from >= last} onClick={() => onGo(Math.min(last, from + page))}>
        Next
      </Button>
      <Button size="small" disabled={from >= last} onClick={() => onGo(last)}>
        Last
      </Button>
    </nav>
  );
}
