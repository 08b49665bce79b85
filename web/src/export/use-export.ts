import {
  type ExportRequest,
  type StudyDocument,
  studyReport,
  studyTable,
  writeTable,
} from '@schritt/core/document';
import { useMemo } from 'react';
import { useStudyState } from '../state/study-state.ts';
import { type Ask, useComputed } from '../worker/use-work.ts';
import { type ExportSettings, isOfStep } from './export-settings.ts';
import type { Drawn, StaticPlot } from './drawn.ts';
import { exportRequestOf } from './export-request.ts';

/** What a choice comes to: the text and the file, or why there is none; neither while it is made. */
export interface ExportOutcome {
  readonly text: string | null;
  /** The bytes of a file that is no text. */
  readonly bytes: Uint8Array<ArrayBuffer> | null;
  /** What the text was drawn from; null where it is no plot. */
  readonly still: StaticPlot | null;
  readonly why: string | null;
}

/** What was drawn, and what was asked for. */
interface DrawnOf extends Drawn {
  readonly request: ExportRequest;
}

/** A request and how it is put to a worker. */
interface Asked {
  readonly request: ExportRequest;
  readonly ask: Ask<DrawnOf>;
}

const NOTHING: ExportOutcome = { text: null, bytes: null, still: null, why: null };

/** Tables of the study from the numbers of the page; everything else from a worker, drawn here where it is a plot. */
export function useExport(choice: ExportSettings, method: number): ExportOutcome {
  const { good, results, study, chosen, view } = useStudyState('good', 'results', 'study', 'chosen', 'view');
  const { what, table, digits, mark, comma, part, rungColumns } = choice;
  const problem = good.problem.good?.value ?? null;
  const isOwn = what === 'rungs' || what === 'cost' || what === 'comparison';
  const own = useMemo(() => {
    if (!isOwn || results.value === null || problem === null) return null;
    const report = studyReport(study.title, problem, results.value.result);
    return writeTable(studyTable(report, what, digits, rungColumns), table, { mark, comma, part });
  }, [isOwn, results.value, problem, study.title, what, table, digits, mark, comma, part, rungColumns]);
  const h = chosen.grid?.wished ?? null;
  const { document }: { readonly document: StudyDocument | null } = good;
  const { n } = view;
  const asked = useMemo((): Asked | null => {
    if (isOwn || document === null || (h === null && isOfStep(choice))) return null;
    const request = exportRequestOf(study.title, choice, { method, h: h ?? 1, n });
    if (request === null) return null;
    const ask: Ask<DrawnOf> = async (computer, progress) => {
      const file = await computer.ask('taken', { document, request }, progress);
      // what draws is loaded when it is first wanted
      const { drawn } = await import('./drawn.ts');
      return { ...(await drawn(file, choice)), request };
    };
    return { request, ask };
  }, [isOwn, document, h, choice, method, n, study.title]);
  const { value, why } = useComputed(asked?.ask ?? null);
  if (isOwn) return { ...NOTHING, text: own, why: own === null ? 'the study has no results yet' : null };
  if (why !== null) return { ...NOTHING, why };
  if (asked === null) return { ...NOTHING, why: h === null ? 'no step size is chosen' : 'a text has errors' };
  // the last value stays until the next one is there, and may be that of other settings
  return value?.request === asked.request ? { ...value, why: null } : NOTHING;
}
