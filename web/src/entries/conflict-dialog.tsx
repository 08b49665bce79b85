import { Button, Modal, Radio } from 'antd';
import { diffLines } from 'diff';
import { type ReactNode, useId, useMemo, useState } from 'react';
import type { DocumentOf, Kind } from '../api/client.ts';
import {
  type Choices,
  type Copy,
  differingParts,
  type DocumentPart,
  mergedDocument,
  mergeFault,
} from './document-parts.ts';
import './saving.css';

const COPIES: readonly { readonly copy: Copy; readonly label: string }[] = [
  { copy: 'mine', label: 'This page' },
  { copy: 'theirs', label: 'The other tab' },
];

/** A text whose last line is ended, too: otherwise it would differ from the same line elsewhere. */
const ended = (text: string): string => (text.endsWith('\n') ? text : `${text}\n`);

/** The text of one copy of a part; lines that the other copy has not are marked. */
function PartText({ part, copy }: { readonly part: DocumentPart; readonly copy: Copy }): ReactNode {
  const text = part[copy];
  if (text === null) return <p className="quiet">not in this version</p>;
  const other = part[copy === 'mine' ? 'theirs' : 'mine'] ?? '';
  const lines = diffLines(ended(other), ended(text)).filter(({ removed }) => !removed);
  return <pre>{lines.map(({ value, added }, i) => (added ? <mark key={i}>{value}</mark> : value))}</pre>;
}

function PartChoice({
  part,
  chosen,
  onChoose,
}: {
  readonly part: DocumentPart;
  readonly chosen: Copy;
  readonly onChoose: (copy: Copy) => void;
}): ReactNode {
  const id = useId();
  return (
    <section className="conflict-part">
      <h2 className="label" id={id}>
        {part.label}
      </h2>
      <Radio.Group
        aria-labelledby={id}
        className="conflict-copies"
        value={chosen}
        onChange={({ target }) => onChoose(target.value === 'theirs' ? 'theirs' : 'mine')}
      >
        {COPIES.map(({ copy, label }) => (
          <div key={copy} className={copy === chosen ? 'conflict-copy chosen' : 'conflict-copy'}>
            <Radio value={copy}>{label}</Radio>
            <PartText part={part} copy={copy} />
          </div>
        ))}
      </Radio.Group>
    </section>
  );
}

/**
 * Both versions of what was changed in two tabs, part by part, with a choice for each. At first each part is taken from
 * the version in which it was changed.
 */
export function ConflictDialog<K extends Kind>({
  kind,
  mine,
  theirs,
  base,
  onSave,
  onCancel,
}: {
  readonly kind: K;
  readonly mine: DocumentOf<K>;
  readonly theirs: DocumentOf<K>;
  readonly base: DocumentOf<K>;
  readonly onSave: (merged: DocumentOf<K>) => void;
  readonly onCancel: () => void;
}): ReactNode {
  const parts = useMemo(() => differingParts(kind, mine, theirs, base), [kind, mine, theirs, base]);
  const [choices, setChoices] = useState<Choices>(
    () => new Map(parts.map(({ key, changedIn }) => [key, changedIn])),
  );
  const merged = mergedDocument(kind, mine, theirs, choices);
  const fault = mergeFault(merged);
  const all = (copy: Copy): void => setChoices(new Map(parts.map(({ key }) => [key, copy])));
  return (
    <Modal
      title="Edited in another tab"
      open
      width={920}
      onCancel={onCancel}
      cancelText="Decide later"
      okText="Save this choice"
      okButtonProps={{ disabled: fault !== null }}
      onOk={() => onSave(merged)}
    >
      <p>
        {parts.length === 0
          ? 'Both versions are the same.'
          : 'Choose a version of each part that differs. Undo brings back what this page had.'}
      </p>
      {parts.length > 1 && (
        <p className="conflict-all">
          <Button size="small" onClick={() => all('mine')}>
            All of this page
          </Button>
          <Button size="small" onClick={() => all('theirs')}>
            All of the other tab
          </Button>
        </p>
      )}
      {parts.map((part) => (
        <PartChoice
          key={part.key}
          part={part}
          chosen={choices.get(part.key) ?? 'mine'}
          onChoose={(copy) => setChoices((now) => new Map([...now, [part.key, copy]]))}
        />
      ))}
      {fault !== null && (
        <p className="wrong" role="alert">
          {fault}
        </p>
      )}
    </Modal>
  );
}
