import { count, stepSizeText } from '@schritt/core/text';
import { Button, Modal, Segmented, Select } from 'antd';
import { type ReactNode, useState } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { download } from '../plots/download.ts';
import {
  type ExportSettings,
  FIRST,
  HANDOUTS_AS,
  isOfMethod,
  isOfStep,
  PLOTS_AS,
  PROGRAMS,
  QUESTIONS_AS,
  SHEETS_AS,
  TABLES,
  exportName,
  EXPORT_KINDS,
} from './export-settings.ts';
import { HandoutOptions } from './handout-options.tsx';
import { QuestionOptions } from './question-options.tsx';
import { type Choosing, Options } from './options.tsx';
import { savedFile } from './saved.ts';
import { ExportPreview } from './export-preview.tsx';
import { useExport } from './use-export.ts';
import { useWhenMade } from './use-when-made.ts';
import { notices } from '../frame/notices.tsx';
import './export.css';

/** How it is written, for the kinds that can be written in several ways. */
function Format({ choice, change }: Choosing): ReactNode {
  switch (choice.what) {
    case 'program':
      return (
        <Segmented
          aria-label="Language"
          value={choice.language}
          options={[...PROGRAMS]}
          onChange={(language) => change({ language })}
        />
      );
    case 'plot':
      return (
        <Segmented
          aria-label="Format"
          value={choice.plotAs}
          options={[...PLOTS_AS]}
          onChange={(plotAs) => change({ plotAs })}
        />
      );
    case 'handout':
      return (
        <Segmented
          aria-label="Format"
          value={choice.handout.as}
          options={[...HANDOUTS_AS]}
          onChange={(as) => change({ handout: { ...choice.handout, as } })}
        />
      );
    case 'sheet':
      return (
        <Segmented
          aria-label="Format"
          value={choice.sheetAs}
          options={[...SHEETS_AS]}
          onChange={(sheetAs) => change({ sheetAs })}
        />
      );
    case 'questions':
      return (
        <Segmented
          aria-label="Format"
          value={choice.questions.as}
          options={[...QUESTIONS_AS]}
          onChange={(as) => change({ questions: { ...choice.questions, as } })}
        />
      );
    case 'notebook':
    case 'formulas':
      return null;
    default:
      return (
        <Segmented
          aria-label="Format"
          value={choice.table}
          options={[...TABLES]}
          onChange={(table) => change({ table })}
        />
      );
  }
}

/** Has the page of the preview printed. */
function printPage(): void {
  document.querySelector<HTMLIFrameElement>('.export-page')?.contentWindow?.print();
}

/** The first settings of an export: what the page shows. */
function useShown(): ExportSettings {
  const { view, table } = useStudyState('view', 'table');
  return {
    ...FIRST,
    rungColumns: table.columns,
    component: view.together ? 'all' : view.component,
    drawn: view.drawn,
  };
}

/** The panel in which a study or the chosen run is exported, with a preview. */
export function ExportPanel({ onClose }: { readonly onClose: () => void }): ReactNode {
  const { good, study, methods, chosen, view } = useStudyState('good', 'study', 'methods', 'chosen', 'view');
  const [choice, setChoice] = useState(useShown());
  const [method, setMethod] = useState(Math.min(view.method, Math.max(0, good.keys.length - 1)));
  const [copied, setCopied] = useState<string | null>(null);
  const change = (part: Partial<ExportSettings>): void => setChoice((now) => ({ ...now, ...part }));
  const taken = useExport(choice, method);
  const { text, bytes, why } = taken;
  const isHandout = choice.what === 'handout';
  const isPage = choice.what === 'handout' && choice.handout.as === 'html';
  const now = chosen.now;
  const save = async (): Promise<void> => {
    const file = await savedFile(choice, taken).catch(() => null);
    if (file === null) notices.failed('this browser cannot draw the plot; download it as SVG');
    else download(exportName(study.title, choice), file);
  };
  const whenMade = useWhenMade(taken, (delivery) => {
    if (text === null) return;
    if (delivery === 'download') void save();
    else void navigator.clipboard.writeText(text).then(() => setCopied(text));
  });
  return (
    <Modal
      title="Export"
      open
      onCancel={onClose}
      footer={null}
      width={isHandout ? 1160 : 900}
      style={{ top: 32 }}
      className="export-panel"
    >
      <div className="export-choices">
        <Select
          size="small"
          popupMatchSelectWidth={false}
          aria-label="What to export"
          value={choice.what}
          options={[...EXPORT_KINDS]}
          onChange={(what) => change({ what })}
        />
        <Format choice={choice} change={change} />
        {isOfMethod(choice) && (
          <Select
            size="small"
            popupMatchSelectWidth={false}
            aria-label="Method of the run"
            value={method}
            options={good.keys.map((key, i) => ({ value: i, label: methods.titleOf(key) }))}
            onChange={setMethod}
          />
        )}
        {isOfStep(choice) && now !== null && (
          <span className="quiet">
            h = {stepSizeText(now.h)}, {count(now.steps)} steps
            {choice.what === 'formulas' ? `, step ${view.n} → ${view.n + 1}` : ''}
          </span>
        )}
      </div>
      <div className={isHandout ? 'export-beside' : undefined}>
        {isHandout ? (
          <HandoutOptions
            handout={choice.handout}
            change={(part) => change({ handout: { ...choice.handout, ...part } })}
          />
        ) : (
          <>
            {choice.what === 'questions' && <QuestionOptions choice={choice} change={change} />}
            <Options choice={choice} change={change} />
          </>
        )}
        <div>
          <ExportPreview choice={choice} taken={taken} />
        </div>
      </div>
      <div className="export-buttons">
        {isPage && (
          <Button disabled={text === null} onClick={printPage}>
            Print
          </Button>
        )}
        {bytes === null && (
          <Button disabled={why !== null} onClick={() => whenMade('copy')}>
            {copied !== null && copied === text ? 'Copied' : 'Copy'}
          </Button>
        )}
        <Button type="primary" disabled={why !== null} onClick={() => whenMade('download')}>
          Download
        </Button>
      </div>
    </Modal>
  );
}
