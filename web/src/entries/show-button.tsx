import { type ReactNode, useState } from 'react';
import { Button } from '../controls/button.tsx';
import { PopUp } from '../controls/pop-up.tsx';
import { TextField } from '../controls/text-field.tsx';
import { hideStudy, showStudy } from '../api/client.ts';
import { told } from '../frame/notices.ts';
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
  const content =
    shownAt === null ? (
      <div className="show-link">
        <p>
          Whoever has the link can look at this study, step through it and try changes. Nothing they do is
          saved.
        </p>
        <Button look="primary" onClick={told(async () => setShownAt(await showStudy(id)))}>
          Make a link
        </Button>
      </div>
    ) : (
      <div className="show-link">
        <TextField
          readOnly
          aria-label="Link to the study"
          value={`${window.location.origin}/shown/${shownAt}`}
          onFocus={(event) => event.target.select()}
        />
        <Button
          onClick={told(async () => {
            await hideStudy(id);
            setShownAt(null);
          })}
        >
          Show no more
        </Button>
      </div>
    );
  return <PopUp label={shownAt === null ? 'Show' : 'Shown'}>{content}</PopUp>;
}
