import type { SubmittedText } from '@schritt/core/marking';
import { LAYOUTS } from '@schritt/core/marking';
import { counted } from '@schritt/core/text';
import { Button, Input, Segmented, Upload } from 'antd';
import { memo, type ReactNode, useEffect, useRef, useState } from 'react';
import { notices } from '../frame/notices.tsx';
import { Computer } from '../worker/computer.ts';
import { type MarkingSession, NEW_SESSION } from './marking-session.ts';

/** Longest text that is pasted. */
const LONGEST = 2_000_000;
/** Milliseconds in which files that are chosen together arrive one by one. */
const TOGETHER = 50;
/** Rows that are seen at once; a longer line goes on to the right, so that columns stay below one another. */
const ROWS = 8;
/** Files that are named. */
const MAX_NAMED = 6;

interface RowsInputProps extends Pick<
  MarkingSession,
  'files' | 'pasted' | 'layout' | 'roles' | 'reading' | 'sheets'
> {
  readonly change: (part: Partial<MarkingSession>) => void;
}

/** Reads files on a worker, all that are chosen together at once, and adds their texts. */
function useFiles(add: (texts: readonly SubmittedText[]) => void): (file: File) => void {
  const worker = useRef<Computer | null>(null);
  const waiting = useRef<File[]>([]);
  useEffect(
    () => () => {
      worker.current?.close();
      worker.current = null;
    },
    [],
  );
  const read = async (files: readonly File[]): Promise<void> => {
    const bytes = await Promise.all(
      files.map(async (file) => ({
        name: file.webkitRelativePath || file.name,
        bytes: new Uint8Array(await file.arrayBuffer()),
      })),
    );
    worker.current ??= new Computer();
    const { texts, unread } = await worker.current.ask('submitted', { files: bytes });
    add(texts);
    for (const { name, why } of unread.slice(0, MAX_NAMED)) notices.failed(`${name}: ${why}`);
  };
  return (file) => {
    waiting.current.push(file);
    if (waiting.current.length > 1) return;
    setTimeout(() => {
      const files = waiting.current;
      waiting.current = [];
      read(files).catch((thrown: unknown) => notices.failed(thrown));
    }, TOGETHER);
  };
}

/** The files that are open, each of which can be taken out; of many the first ones. */
function FileList({
  files,
  onChange,
}: {
  readonly files: readonly SubmittedText[];
  readonly onChange: (kept: readonly SubmittedText[]) => void;
}): ReactNode {
  const [isListed, setListed] = useState(false);
  return (
    <ul className="marking-files">
      {(isListed ? files : files.slice(0, MAX_NAMED)).map(({ name }) => (
        <li key={name}>
          {name}{' '}
          <Button
            type="link"
            size="small"
            aria-label={`Remove ${name}`}
            onClick={() => onChange(files.filter((file) => file.name !== name))}
          >
            Remove
          </Button>
        </li>
      ))}
      {files.length > MAX_NAMED && (
        <li>
          <Button type="link" size="small" onClick={() => setListed((now) => !now)}>
            {isListed ? 'Show fewer' : `and ${counted(files.length - MAX_NAMED, 'more file')}`}
          </Button>
        </li>
      )}
    </ul>
  );
}

/** The rows of students: pasted, or opened as files, as a folder or as an archive. */
export const RowsInput = memo(function RowsInput({
  files,
  pasted,
  layout,
  roles,
  reading,
  sheets,
  change,
}: RowsInputProps): ReactNode {
  const latest = useRef(files);
  useEffect(() => {
    latest.current = files;
  });
  const take = useFiles((texts) => {
    const names = new Set(texts.map(({ name }) => name));
    // a file that is opened again replaces itself
    const others = latest.current.filter(({ name }) => !names.has(name));
    change({ files: [...others, ...texts] });
  });
  const choose = (file: File): false => {
    take(file);
    return false;
  };
  const clear = (): void => {
    change({
      files: [],
      pasted: '',
      roles: {},
      sheets: {},
      layout: NEW_SESSION.layout,
      reading: NEW_SESSION.reading,
    });
    notices.done('All rows were removed.', {
      label: 'Undo',
      run: () => change({ files, pasted, layout, roles, reading, sheets }),
    });
  };
  const isEmpty = files.length === 0 && pasted === '';
  return (
    <section aria-label="Student rows" className="marking-part">
      <h2>Student rows</h2>
      <Input.TextArea
        aria-label="Pasted rows"
        placeholder={'n\tAnna\tBen\n0\t4\t4\n1\t3.65\t3.6\n…'}
        maxLength={LONGEST}
        value={pasted}
        onChange={(event) => change({ pasted: event.target.value })}
        rows={ROWS}
        wrap="off"
      />
      <div className="marking-buttons">
        <Upload
          multiple
          accept=".csv,.tsv,.txt,.dat,.out,.xlsx,.ods,.zip"
          aria-label="Files of students"
          showUploadList={false}
          beforeUpload={choose}
        >
          <Button size="small">Open files</Button>
        </Upload>
        <Upload directory aria-label="Folder of students" showUploadList={false} beforeUpload={choose}>
          <Button size="small">Open folder</Button>
        </Upload>
        <Button size="small" disabled={isEmpty} onClick={clear}>
          Remove all
        </Button>
      </div>
      {files.length > 0 && <FileList files={files} onChange={(kept) => change({ files: kept })} />}
      <div className="marking-layout">
        <span>Students</span>
        <Segmented
          aria-label="How students are arranged"
          size="small"
          value={layout ?? 'auto'}
          options={[{ value: 'auto', label: 'auto' }, ...LAYOUTS.map((value) => ({ value, label: value }))]}
          onChange={(value) =>
            change({ layout: LAYOUTS.find((known) => known === value) ?? null, roles: {} })
          }
        />
      </div>
      <p className="quiet">Rows and names stay in this browser.</p>
    </section>
  );
});
