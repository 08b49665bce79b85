import { attempt } from '@schritt/core/text';
import type { Ladder } from '@schritt/core/study';
import { Button, Input, Segmented } from 'antd';
import type { ReactNode } from 'react';
import { withFinerRung } from '../state/working-study.ts';
import { useLadderDraft } from './ladder-draft.ts';
import { formOf, type LadderEntry, ladderText, readLadder } from './ladder-text.ts';
import './ladder-editor.css';

const FORMS = [
  { value: 'regular', label: 'initial h and ratio' },
  { value: 'sizes', label: 'list of h' },
  { value: 'counts', label: 'list of N' },
] satisfies readonly { value: LadderEntry; label: string }[];

/** The ladder of a study in a line. */
function sentence(ladder: Ladder): string {
  return 'first' in ladder
    ? `h from ${ladder.first}, ${ladder.factor === 2 ? 'halved' : `divided by ${ladder.factor}`}, ${ladder.rungs} step sizes`
    : `${'sizes' in ladder ? 'h' : 'N'} = ${ladderText(ladder)}`;
}

/**
 * The ladder of a study: said in a line, typed in the same place after a click. What cannot be read stays as it was typed, with the
 * reason, and the study keeps the last step sizes that could.
 */
export function LadderEditor({
  ladder,
  onChange,
}: {
  readonly ladder: Ladder;
  readonly onChange: (ladder: Ladder) => void;
}): ReactNode {
  const [draft, setDraft] = useLadderDraft(({ form, text }) => attempt(() => readLadder(form, text)).ok);
  const tryText = (form: LadderEntry, text: string): void => {
    setDraft({ form, text });
    const reading = attempt(() => readLadder(form, text));
    if (reading.ok) onChange(reading.value);
  };
  const reading = draft === null ? null : attempt(() => readLadder(draft.form, draft.text));
  const why = reading === null || reading.ok ? null : reading.refusal.message;
  const close = (): void => {
    if (why === null) setDraft(null);
  };
  return (
    <section className="ladder-editor" aria-label="Step sizes">
      <div className="statement-head">
        <h2 className="label">Step sizes</h2>
        <Button size="small" type="text" onClick={() => onChange(withFinerRung(ladder))}>
          + halve h
        </Button>
        <Button
          size="small"
          type="text"
          onClick={() => {
            if (draft === null) setDraft({ form: formOf(ladder), text: ladderText(ladder) });
            else close();
          }}
          aria-label={draft === null ? 'Edit the step sizes' : 'Done with the step sizes'}
        >
          {draft === null ? 'Edit' : 'Done'}
        </Button>
      </div>
      {draft === null ? (
        <p className="ladder-text">{sentence(ladder)}</p>
      ) : (
        <>
          <Segmented
            size="small"
            aria-label="How the step sizes are given"
            options={FORMS}
            value={draft.form}
            onChange={(form) => setDraft({ form, text: form === formOf(ladder) ? ladderText(ladder) : '' })}
          />
          <Input.TextArea
            value={draft.text}
            autoFocus
            autoSize
            aria-label="Step sizes"
            placeholder={
              { regular: '0.5, 2, 6', sizes: '0.5, 0.25, pi/20', counts: '10, 20, 40' }[draft.form]
            }
            aria-invalid={why !== null}
            status={why !== null ? 'error' : ''}
            onChange={(event) => tryText(draft.form, event.target.value)}
            onPressEnter={(event) => {
              if (event.shiftKey) return;
              event.preventDefault();
              close();
            }}
          />
          {why !== null && (
            <p className="wrong" role="alert">
              {why}; unchanged: {sentence(ladder)}{' '}
              <Button size="small" type="text" onClick={() => setDraft(null)}>
                Discard
              </Button>
            </p>
          )}
        </>
      )}
    </section>
  );
}
