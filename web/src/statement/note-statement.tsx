import { LONGEST_NOTE } from '@schritt/core/document';
import { Button, Input } from 'antd';
import { type ReactNode, useState } from 'react';

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
      <Button size="small" type="text" onClick={() => setOpen(true)}>
        Add note
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
      <Input.TextArea
        autoFocus
        aria-label="What to look at in this study"
        maxLength={LONGEST_NOTE}
        value={note ?? ''}
        onChange={(event) => onChange(event.target.value === '' ? undefined : event.target.value)}
        onBlur={() => setOpen(false)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') setOpen(false);
        }}
        autoSize={{ minRows: 2, maxRows: 10 }}
      />
    </section>
  );
}
