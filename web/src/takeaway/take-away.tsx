import { Button, Checkbox, InputNumber, Modal, Segmented, Select } from 'antd';
import { count, stepSizeText } from '@schritt/core/notation';
import { type ReactNode, useState } from 'react';
import { useDesk } from '../desk/desk.ts';
import { download } from '../pictures/download.ts';
import { type Choice, FIRST, preview, PROGRAMS, TABLES, takenName, WHATS } from './choice.ts';
import { useTaken } from './use-taken.ts';
import './take-away.css';

/** Lines of the preview. */
const SHOWN = 200;

interface Choosing {
  readonly choice: Choice;
  readonly change: (part: Partial<Choice>) => void;
}

/** What a format can be told besides. */
function Options({ choice, change }: Choosing): ReactNode {
  const { what, table, digits, mark, part } = choice;
  if (what === 'program') return null;
  return (
    <div className="taken-options">
      {table !== 'csv' && (what === 'rungs' || what === 'rows') && (
        <label>
          digits{' '}
          <InputNumber
            size="small"
            min={1}
            max={17}
            placeholder={what === 'rows' ? 'all' : '4'}
            value={digits}
            onChange={(value) => change({ digits: value })}
          />
        </label>
      )}
      {table === 'csv' && (
        <Checkbox checked={mark} onChange={(event) => change({ mark: event.target.checked })}>
          byte order mark
        </Checkbox>
      )}
      {(table === 'tex' || table === 'html') && (
        <Checkbox checked={part} onChange={(event) => change({ part: event.target.checked })}>
          to be put into a document
        </Checkbox>
      )}
    </div>
  );
}

/** The place where tables and programs of the study and of the chosen run are taken away, with a preview. */
export function TakeAway({ onClose }: { readonly onClose: () => void }): ReactNode {
  const { good, study, methods, chosen, view } = useDesk();
  const [choice, setChoice] = useState<Choice>(FIRST);
  const [method, setMethod] = useState(Math.min(view.method, Math.max(0, good.keys.length - 1)));
  const [copied, setCopied] = useState<string | null>(null);
  const change = (part: Partial<Choice>): void => setChoice((now) => ({ ...now, ...part }));
  const { text, why } = useTaken(choice, method);
  const isRun = choice.what === 'rows' || choice.what === 'program';
  const { shown, more } = preview(text ?? '', SHOWN);
  const now = chosen.now;
  return (
    <Modal title="Take away" open onCancel={onClose} footer={null} width={860} className="take-away">
      <div className="taken-choices">
        <Select
          aria-label="What to take away"
          value={choice.what}
          options={[...WHATS]}
          onChange={(what) => change({ what })}
        />
        {choice.what === 'program' ? (
          <Segmented
            aria-label="Language"
            value={choice.language}
            options={[...PROGRAMS]}
            onChange={(language) => change({ language })}
          />
        ) : (
          <Segmented
            aria-label="Format"
            value={choice.table}
            options={[...TABLES]}
            onChange={(table) => change({ table })}
          />
        )}
        {isRun && (
          <Select
            aria-label="Method of the run"
            value={method}
            options={good.keys.map((key, i) => ({ value: i, label: methods.titleOf(key) }))}
            onChange={setMethod}
          />
        )}
        {isRun && now !== null && (
          <span className="quiet">
            h = {stepSizeText(now.h)}, {count(now.steps)} steps
          </span>
        )}
      </div>
      <Options choice={choice} change={change} />
      {text === null ? (
        <p className={why === null ? 'quiet' : 'taken-why'} role="status">
          {why ?? 'being written'}
        </p>
      ) : (
        <>
          <pre className="taken-preview" tabIndex={0} aria-label="Preview">
            {shown}
          </pre>
          <p className="quiet">{more === 0 ? '' : `and ${count(more)} more lines`}</p>
        </>
      )}
      <div className="taken-buttons">
        <Button
          disabled={text === null}
          onClick={() => {
            if (text !== null) void navigator.clipboard.writeText(text).then(() => setCopied(text));
          }}
        >
          {copied !== null && copied === text ? 'Copied' : 'Copy'}
        </Button>
        <Button
          type="primary"
          disabled={text === null}
          onClick={() => {
            if (text !== null)
              download(
                takenName(study.title, choice),
                new Blob([text], { type: 'text/plain;charset=utf-8' }),
              );
          }}
        >
          Save as a file
        </Button>
      </div>
    </Modal>
  );
}
