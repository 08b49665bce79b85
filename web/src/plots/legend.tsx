import { Button } from 'antd';
import { memo, type ReactNode } from 'react';
import { Shape } from './mark.tsx';
import type { LegendItem } from '@schritt/plot';
import './legend.css';

/** What legends have switched off, and how to switch. */
export interface Switches {
  readonly hidden: ReadonlySet<string>;
  readonly toggle: (id: string) => void;
}

interface LegendProps {
  readonly items: readonly LegendItem[];
  readonly switches: Switches;
}

/** Whether two legends show the same: plots are made anew for every number, and most have the legend of the last. */
function isSame(before: LegendProps, now: LegendProps): boolean {
  return (
    before.switches.hidden === now.switches.hidden &&
    before.switches.toggle === now.switches.toggle &&
    JSON.stringify(before.items) === JSON.stringify(now.items)
  );
}

/** The curves of a plot by name; a click switches one off and on again. */
export const Legend = memo(function Legend({ items, switches: { hidden, toggle } }: LegendProps): ReactNode {
  if (items.length < 2) return null;
  return (
    <div className="legend" role="group" aria-label="Curves">
      {items.map(({ id, label, mark, color, remark }) => (
        <Button
          type="text"
          size="small"
          key={id}
          aria-pressed={!hidden.has(id)}
          title={[remark, hidden.has(id) ? 'Show this curve' : 'Hide this curve']
            .filter((text) => text !== undefined)
            .join('; ')}
          onClick={() => toggle(id)}
        >
          {mark === null ? (
            <svg width="16" height="11" viewBox="0 0 16 11" aria-hidden="true" className="mark">
              <path d="M0 5.5H16" stroke={color} strokeWidth="1.8" />
            </svg>
          ) : (
            <Shape mark={mark} />
          )}
          {label}
        </Button>
      ))}
    </div>
  );
}, isSame);
