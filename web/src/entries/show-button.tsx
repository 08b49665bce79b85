import { Button, Input, Popover } from 'antd';
import { type ReactNode, useState } from 'react';
import { hideStudy, showStudy } from '../api/client.ts';
import { notices } from '../frame/notices.tsx';
import './saving.css';

/** Whether a host name means the computer that it is used on. */
export function isThisMachine(host: string): boolean {
  return (
    host === 'localhost' || host.endsWith('.localhost') || host === '[::1]' || /^127(\.\d+){3}$/.test(host)
  );
}

/** Shows a study to anyone with a link, and ends that again. */
export function ShowButton({
  id,
  first,
}: {
  readonly id: string;
  /** The end of the link it had when the page opened; null for none. */
  readonly first: string | null;
}): ReactNode {
  const [shownAt, setShownAt] = useState(first);
  const content =
    shownAt === null ? (
      <div className="show-link">
        <p>Anyone with the link can view this study, step through it and try changes. Nothing is saved.</p>
        <Button type="primary" onClick={notices.reporting(async () => setShownAt(await showStudy(id)))}>
          Create link
        </Button>
      </div>
    ) : (
      <div className="show-link">
        <Input
          readOnly
          aria-label="Link to the study"
          value={`${window.location.origin}/shown/${shownAt}`}
          onFocus={(event) => event.target.select()}
        />
        {isThisMachine(window.location.hostname) && (
          <p className="wrong" role="note">
            This link opens on this computer only. For others, start Schritt with SCHRITT_HOST=0.0.0.0 and
            open it by the name or address of this computer; see docs/deployment.md.
          </p>
        )}
        <Button
          onClick={notices.reporting(async () => {
            await hideStudy(id);
            setShownAt(null);
          })}
        >
          Stop sharing
        </Button>
      </div>
    );
  return (
    <Popover trigger="click" placement="bottomRight" content={content}>
      <Button>{shownAt === null ? 'Share' : 'Shared'}</Button>
    </Popover>
  );
}
