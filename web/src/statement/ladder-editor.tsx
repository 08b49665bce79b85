import { attempt, Refusal } from '@schritt/core/text';
import { type Amount, amountValue, type Ladder, MAX_RUNGS } from '@schritt/core/study';
import { Button, Input, Segmented } from 'antd';
import { type ReactNode, useState } from 'react';
import { withFinerRung } from '../state/working-study.ts';
import './ladder-editor.css';

type LadderEntry = 'regular' | 'sizes' | 'counts';

const FORMS = [
  { value: 'regular', label: 'initial h and ratio' },
  { value: 'sizes', label: 'list of h' },
  { value: 'counts', label: 'list of N' },
] satisfies readonly { value: LadderEntry; label: string }[];

function formOf(ladder: Ladder): LadderEntry {
  return 'first' in ladder ? 'regular' : 'sizes' in ladder ? 'sizes' : 'counts';
}

function textOf(ladder: Ladder): string {
  if ('first' in ladder) return `${ladder.first}, ${ladder.factor}, ${ladder.rungs}`;
  return ('sizes' in ladder ? ladder.sizes : ladder.counts).join(', ');
}

function amount(text: string): Amount {
  const value = amountValue(text);
  if (!(value > 0) || !Number.isFinite(value)) throw new Refusal('grid', `${text} must be a positive number`);
  return String(Number(text)) === text ? Number(text) : text;
}

function count(text: string): number {
  const value = Number(text);
  if (!Number.isSafeInteger(value) || value < 1)
    throw new Refusal('grid', `${text} must be a positive integer`);
  return value;
}

/** Reads what was typed; @throws Refusal in plain words. */
function read(form: LadderEntry, text: string): Ladder {
  const parts = text
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '');
  if (parts.length === 0) throw new Refusal('grid', 'enter at least one; separate several by commas');
  if (parts.length > MAX_RUNGS) throw new Refusal('grid', `at most ${MAX_RUNGS} step sizes are allowed`);
  if (form === 'sizes') return { sizes: parts.map(amount) };
  if (form === 'counts') return { counts: parts.map(count) };
  const [first, factor, rungs] = parts;
  if (first === undefined || factor === undefined || rungs === undefined || parts.length > 3)
    throw new Refusal('grid', 'enter the initial h, the ratio and the number of step sizes: 0.5, 2, 6');
  const by = amountValue(factor);
  if (!(by > 1)) throw new Refusal('grid', 'the ratio must be greater than 1; 2 halves h each time');
  const many = count(rungs);
  if (many > MAX_RUNGS) throw new Refusal('grid', `at most ${MAX_RUNGS} step sizes are allowed`);
  return { first: amount(first), factor: by, rungs: many };
}

/** The ladder of a study: said in a line, typed in the same place after a click. */
export function LadderEditor({
  ladder,
  onChange,
}: {
  readonly ladder: Ladder;
  readonly onChange: (ladder: Ladder) => void;
}): ReactNode {
  const [draft, setDraft] = useState<{ readonly form: LadderEntry; readonly text: string } | null>(null);
  const tryText = (form: LadderEntry, text: string): void => {
    setDraft({ form, text });
    const reading = attempt(() => read(form, text));
    if (reading.ok) onChange(reading.value);
  };
  const reading = draft === null ? null : attempt(() => read(draft.form, draft.text));
  const why = reading === null || reading.ok ? null : reading.refusal.message;
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
          onClick={() => setDraft(draft === null ? { form: formOf(ladder), text: textOf(ladder) } : null)}
          aria-label={draft === null ? 'Edit the step sizes' : 'Done with the step sizes'}
        >
          {draft === null ? 'Edit' : 'Done'}
        </Button>
      </div>
      {draft === null ? (
        <p className="ladder-text">
          {'first' in ladder
            ? `h from ${ladder.first}, ${ladder.factor === 2 ? 'halved' : `divided by ${ladder.factor}`}, ${ladder.rungs} step sizes`
            : `${'sizes' in ladder ? 'h' : 'N'} = ${textOf(ladder)}`}
        </p>
      ) : (
        <>
          <Segmented
            size="small"
            aria-label="How the step sizes are given"
            options={FORMS}
            value={draft.form}
            onChange={(form) => setDraft({ form, text: form === formOf(ladder) ? textOf(ladder) : '' })}
          />
          <Input
            value={draft.text}
            autoFocus
            aria-label="Step sizes"
            placeholder={
              { regular: '0.5, 2, 6', sizes: '0.5, 0.25, pi/20', counts: '10, 20, 40' }[draft.form]
            }
            aria-invalid={why !== null}
            status={why !== null ? 'error' : ''}
            onChange={(event) => tryText(draft.form, event.target.value)}
            onPressEnter={() => setDraft(null)}
          />
          {why !== null && <p className="wrong">{why}</p>}
        </>
      )}
    </section>
  );
}
