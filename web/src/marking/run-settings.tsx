import type { StudyDocument } from '@schritt/core/document';
import { Button, Input, Segmented, Select } from 'antd';
import { type ReactNode, useState } from 'react';
import type { EntryRow } from '../api/client.ts';
import type { MarkingSession } from './marking-session.ts';
import type { TypedSize } from './use-marking.ts';
import type { RunFinding } from './use-find-run.ts';

export interface RunSettingsProps {
  readonly session: MarkingSession;
  readonly change: (part: Partial<MarkingSession>) => void;
  /** Null while the list is loading. */
  readonly studies: readonly EntryRow[] | null;
  readonly document: StudyDocument | null;
  readonly size: TypedSize;
  readonly finding: RunFinding;
}

const SIZES: { value: MarkingSession['size']['kind']; label: string }[] = [
  { value: 'h', label: 'h' },
  { value: 'N', label: 'N' },
];

/** The study, method and step size that rows belong to: chosen, or found by the rows themselves. */
export function RunSettings({
  session,
  change,
  studies,
  document,
  size,
  finding,
}: RunSettingsProps): ReactNode {
  const { study, method } = session;
  const [isEvery, setEvery] = useState(false);
  return (
    <section aria-label="Run" className="marking-part">
      <h2>Run</h2>
      <label>
        <span>Study</span>
        <Select
          aria-label="Study"
          showSearch={{ optionFilterProp: 'label' }}
          placeholder="choose, or find it by the rows"
          loading={studies === null}
          value={study}
          options={studies?.map(({ id, title }) => ({ value: id, label: title || 'Untitled' })) ?? []}
          onChange={(id) =>
            change({ study: id, method: 0, size: { kind: 'h', text: '' }, roles: {}, sheets: {} })
          }
        />
      </label>
      <label>
        <span>Method</span>
        <Select
          aria-label="Method"
          disabled={document === null}
          value={document === null ? null : Math.min(method, document.methods.length - 1)}
          options={document?.methods.map(({ title }, value) => ({ value, label: title })) ?? []}
          onChange={(value) => change({ method: value })}
        />
      </label>
      <div className="marking-size">
        <Segmented
          aria-label="Step size or number of steps"
          value={session.size.kind}
          options={SIZES}
          onChange={(kind) => change({ size: { kind, text: '' } })}
        />
        <Input
          aria-label={session.size.kind === 'h' ? 'Step size' : 'Number of steps'}
          placeholder={session.size.kind === 'h' ? 'such as 0.1 or pi/8' : 'such as 16'}
          maxLength={200}
          value={session.size.text}
          status={size.kind === 'wrong' ? 'error' : ''}
          onChange={(event) => change({ size: { ...session.size, text: event.target.value } })}
        />
      </div>
      {size.kind === 'wrong' && <p className="wrong">{size.why}</p>}
      <div className="marking-find">
        <Button onClick={() => finding.find(isEvery ? null : study)} disabled={finding.part !== null}>
          Find by rows
        </Button>
        <Segmented
          aria-label="Where to look"
          size="small"
          value={isEvery || study === null ? 'all' : 'one'}
          disabled={study === null}
          options={[
            { value: 'one', label: 'in this study' },
            { value: 'all', label: 'in all studies' },
          ]}
          onChange={(where) => setEvery(where === 'all')}
        />
      </div>
      {finding.part !== null && (
        <p className="quiet" role="status">
          Looking for the run: {Math.floor(100 * finding.part)} %{' '}
          <Button size="small" onClick={finding.cancel}>
            Cancel
          </Button>
        </p>
      )}
      {finding.said !== null && (
        <p className={finding.said.isFound ? 'quiet' : 'wrong'} role="status">
          {finding.said.text}
        </p>
      )}
    </section>
  );
}
