import type { StudyDocument } from '@schritt/core/document';
import { Button, Input, Modal } from 'antd';
import { type ReactNode, useState } from 'react';
import { useReading } from '../state/use-reading.ts';
import { problemReader } from '../worker/text-reader.ts';
import { studyFromText } from './study-from-text.ts';

/** Makes a study of a problem that is pasted or typed; what is wrong with the text is reported with its places. */
export function FromText({ onStudy }: { readonly onStudy: (document: StudyDocument) => void }): ReactNode {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const { now } = useReading(problemReader, text);
  const reading =
    text.trim() === '' || (!now.ok && now.errors.length === 0) ? null : studyFromText(text, now);
  const study = reading?.kind === 'study' ? reading.document : null;
  const make = (): void => {
    if (study === null) return;
    setOpen(false);
    setText('');
    onStudy(study);
  };
  return (
    <>
      <Button onClick={() => setOpen(true)}>New from text</Button>
      <Modal
        title="New study from text"
        open={open}
        onCancel={() => setOpen(false)}
        okText="Create"
        okButtonProps={{ disabled: study === null }}
        onOk={make}
        destroyOnHidden
      >
        <Input.TextArea
          autoFocus
          aria-label="Text of the problem"
          className="from-text"
          placeholder={"level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 8"}
          value={text}
          onChange={(event) => setText(event.target.value)}
          autoSize={{ minRows: 6, maxRows: 16 }}
        />
        {reading?.kind === 'errors' ? (
          <ul className="wrong" role="status">
            {reading.told.map((told) => (
              <li key={told}>{told}</li>
            ))}
          </ul>
        ) : (
          <p className="quiet" role="status">
            {study === null
              ? 'Enter an equation, its initial values and an interval. A comment line (#) becomes the title.'
              : `“${study.title}” with ${study.methods.map(({ title }) => title).join(', ')}`}
          </p>
        )}
      </Modal>
    </>
  );
}
