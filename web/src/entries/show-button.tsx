import { Button, Input, Popover } from 'antd';
import { type ReactNode, useState } from 'react';
import { hideStudy, showStudy } from '../api/client.ts';
import { useNotices } from '../frame/use-notices.tsx';
import './saving.css';

/** Shows a study to whoever has a link, and ends that again. */
export function ShowButton({
  id,
  first,
}: {
  readonly id: string;
  /** The end of the link it had when the page opened; null for none. */
  readonly first: string | null;
}): ReactNode {
  const [shownAt, setShownAt] = useState(first);
  const { reporting } = useNotices();
  const content =
    shownAt === null ? (
      <div className="show-link">
        <p>
          Whoever has the link can look at this study, step through it and try changes. Nothing they do is
          saved.
        </p>
        <Button type="primary" onClick={reporting(async () => setShownAt(await showStudy(id)))}>
          Make a link
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
        <Button
          onClick={reporting(async () => {
            await hideStudy(id);
            setShownAt(null);
          })}
        >
          Show no more
        </Button>
      </div>
    );
  return (
    <Popover trigger="click" placement="bottomRight" content={content}>
      <Button>{shownAt === null ? 'Show' : 'Shown'}</Button>
    </Popover>
  );
}
