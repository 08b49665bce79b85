import { LONGEST_NOTE } from '@schritt/core/document';
import { type ReactNode, useState } from 'react';
import { Button } from '../controls/button.tsx';
import { TextArea } from '../controls/text-area.tsx';

interface NoteStatementProps {
  /** Undefined where there is none. */
  readonly note: string | undefined;
  readonly onChange: (note: string | undefined) => void;
}

/** What to look at in a study, in the words of who made it; typed in the same place after a click. */
export function NoteStatement({ note, onChange }: NoteStatementProps): ReactNode {
  const [open, setOpen] = useState(false);
  if (!open)
    return note === undefined ? (
      <Button className="add-note" size="small" look="text" onClick={() => setOpen(true)}>
        + a note
      </Button>
    ) : (
      <section className="note" aria-label="Note">
        <p className="click-to-edit" title="Click to edit the note" onClick={() => setOpen(true)}>
          {note}
        </p>
      </section>
    );
  return (
    <section className="note" aria-label="Note">
      <TextArea
        autoFocus
        least={2}
        most={10}
        aria-label="What to look at in this study"
        maxLength={LONGEST_NOTE}
        value={note ?? ''}
        onChange={(event) => onChange(event.target.value === '' ? undefined : event.target.value)}
        onBlur={() => setOpen(false)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setOpen(false);
        }}
      />
    </section>
  );
}
