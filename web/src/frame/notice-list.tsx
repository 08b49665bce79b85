import { type ReactNode, useSyncExternalStore } from 'react';
import { Button } from '../controls/button.tsx';
import { dropNotice, standingNotices, watchNotices } from './notices.ts';
import './frame.css';

/** What was just done or could not be, above every page. What failed is told at once to who listens. */
export function NoticeList(): ReactNode {
  const notices = useSyncExternalStore(watchNotices, standingNotices);
  return (
    <div className="notices">
      {notices.map(({ id, kind, text, act }) => (
        <p key={id} className={`notice ${kind}`} role={kind === 'failed' ? 'alert' : 'status'}>
          <span>{text}</span>
          {act !== null && (
            <Button
              size="small"
              onClick={() => {
                dropNotice(id);
                act.run();
              }}
            >
              {act.label}
            </Button>
          )}
          <Button size="small" look="text" aria-label="Close" title="Close" onClick={() => dropNotice(id)}>
            ×
          </Button>
        </p>
      ))}
    </div>
  );
}
