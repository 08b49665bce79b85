import { mediaType } from '@schritt/core/document';
import type { MarkRule, StudentMarking } from '@schritt/core/marking';
import { Button, Modal, Segmented } from 'antd';
import { type ReactNode, useMemo, useRef, useState } from 'react';
import { UnderWay } from '../frame/under-way.tsx';
import { download } from '../plots/download.ts';
import type { MarkingKeys } from '../worker/marking-answers.ts';
import { type Ask, useComputed } from '../worker/use-work.ts';

interface FeedbackPanelProps {
  readonly keys: MarkingKeys;
  readonly students: readonly StudentMarking[];
  readonly rule: MarkRule;
  readonly chosen: string | null;
  /** How the file begins that is saved. */
  readonly name: string;
  readonly onClose: () => void;
}

const WHOSE = ['all students', 'those with mistakes', 'the chosen one'] as const;

type Whose = (typeof WHOSE)[number];

/** Feedback for students as sheets to be printed, one for each. */
export function FeedbackPanel({
  keys,
  students,
  rule,
  chosen,
  name,
  onClose,
}: FeedbackPanelProps): ReactNode {
  const [whose, setWhose] = useState<Whose>('all students');
  const page = useRef<HTMLIFrameElement>(null);
  const wanted = useMemo(
    () =>
      students.filter(({ student, marking }) =>
        whose === 'the chosen one'
          ? student === chosen
          : whose === 'all students' || marking?.firstWrong !== null,
      ),
    [students, chosen, whose],
  );
  const ask = useMemo(
    (): Ask<string> => (computer) => computer.ask('feedback', { keys, students: wanted, rule }),
    [keys, wanted, rule],
  );
  const computed = useComputed(ask);
  const { value } = computed;
  return (
    <Modal
      title="Feedback sheets"
      open
      onCancel={onClose}
      footer={null}
      width={980}
      style={{ top: 32 }}
      className="export-panel"
    >
      <div className="export-choices">
        <Segmented
          aria-label="Whose sheets"
          value={whose}
          options={WHOSE.map((value) => ({
            value,
            label: value,
            disabled: value === 'the chosen one' && chosen === null,
          }))}
          onChange={setWhose}
        />
        <span className="quiet">one sheet per student</span>
      </div>
      <UnderWay computed={computed} what="the sheets" />
      {value !== null && (
        // nothing in the page runs: it is in a frame without leave for anything but being printed
        <iframe
          ref={page}
          className="export-page"
          title="Feedback"
          sandbox="allow-same-origin allow-modals"
          srcDoc={value}
        />
      )}
      <div className="export-buttons">
        <Button disabled={value === null} onClick={() => page.current?.contentWindow?.print()}>
          Print
        </Button>
        <Button
          type="primary"
          disabled={value === null}
          onClick={() => {
            if (value !== null)
              download(`${name}-feedback.html`, new Blob([value], { type: mediaType('html') }));
          }}
        >
          Download
        </Button>
      </div>
    </Modal>
  );
}
