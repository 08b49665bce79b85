import {
  type ExportQuery,
  openStudy,
  studyReport,
  type StudyDocument,
  type StudyReport,
  exportStudy,
  type TextErrors,
  exportRequest,
} from '@schritt/core/document';
import { Refusal, typesetOptions } from '@schritt/core/text';
import { estimatedSeconds, runStudy, type Study } from '@schritt/core/study';
import { planOf } from '../tasks/plan.ts';
import type { JobRequest, Plan } from '../tasks/task.ts';

/** Work that a request waits for, and the lane it runs on: the short one passes long studies on. */
export type RequestTask = { readonly document: StudyDocument; readonly lane: 'short' | 'long' } & (
  | { readonly what: 'report' }
  | { readonly what: 'taken'; readonly asked: ExportQuery }
  | { readonly what: 'plan'; readonly request: JobRequest }
);

export type RequestAnswer =
  | { readonly kind: 'report'; readonly report: StudyReport }
  | { readonly kind: 'plan'; readonly plan: Plan }
  | { readonly kind: 'taken'; readonly content: Uint8Array }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'text errors'; readonly errors: readonly TextErrors[] }
  /** To be run on the long lane. */
  | { readonly kind: 'long' }
  | { readonly kind: 'too long' };

/** Estimated seconds of a study that may run on the short lane, and of one that a request may ask for at all. */
const MAX_SHORT = 0.5;
const MAX_SECONDS = 4;

/** What is exported, as bytes. */
async function taken(document: StudyDocument, study: Study, asked: ExportQuery): Promise<RequestAnswer> {
  try {
    const request = exportRequest(document.title, study, asked);
    // both are large, and wanted by few requests
    const { default: katex } = await import('katex');
    const made = exportStudy(document, study, request, (tex, wide) =>
      katex.renderToString(tex, typesetOptions(wide, 'mathml')),
    );
    if (made.kind === 'workbook') {
      const { ods, xlsx } = await import('@schritt/core/sheets');
      return { kind: 'taken', content: await (asked.as === 'ods' ? ods : xlsx)(made.workbook) };
    }
    const { drawnFile } = await import('@schritt/plot/node');
    const file = drawnFile(made, asked.as ?? 'svg', { scale: 1, part: asked.part ?? false });
    return { kind: 'taken', content: typeof file === 'string' ? new TextEncoder().encode(file) : file };
  } catch (thrown) {
    if (thrown instanceof Refusal) return { kind: 'refused', why: thrown.message };
    throw thrown;
  }
}

/** Opens a study, and runs it where its numbers are asked for. */
export default async function answer(task: RequestTask): Promise<RequestAnswer> {
  const { document } = task;
  const opened = openStudy(document);
  if (!opened.ok) return { kind: 'text errors', errors: opened.errors };
  if (task.what === 'plan') return { kind: 'plan', plan: planOf(task.request) };
  const { study } = opened;
  const seconds = estimatedSeconds(study);
  if (seconds > MAX_SECONDS) return { kind: 'too long' };
  if (seconds > MAX_SHORT && task.lane === 'short') return { kind: 'long' };
  if (task.what === 'taken') return taken(document, study, task.asked);
  return { kind: 'report', report: studyReport(document.title, study.problem, runStudy(study)) };
}
