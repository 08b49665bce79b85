import {
  type ExportQuery,
  openStudy,
  studyReport,
  type StudyDocument,
  type StudyReport,
  type TextErrors,
} from '@schritt/core/document';
import { Refusal } from '@schritt/core/text';
import { estimatedSeconds, runStudy } from '@schritt/core/study';
import { exportedFile } from '../tasks/exported-file.ts';
import { pictured, type PictureRequest } from '../tasks/first-picture.ts';
import { planOf } from '../tasks/plan.ts';
import type { JobRequest, Plan } from '../tasks/task.ts';

/** Work that a request waits for, and the lane it runs on: the short one passes long studies on. */
export type RequestTask = { readonly document: StudyDocument; readonly lane: 'short' | 'long' } & (
  | { readonly what: 'report' }
  | { readonly what: 'taken'; readonly asked: ExportQuery }
  | { readonly what: 'plan'; readonly request: JobRequest }
  | { readonly what: 'picture'; readonly asked: PictureRequest }
);

export type RequestAnswer =
  | { readonly kind: 'report'; readonly report: StudyReport }
  | { readonly kind: 'plan'; readonly plan: Plan }
  | { readonly kind: 'taken'; readonly content: Uint8Array }
  | { readonly kind: 'picture'; readonly html: string }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'text errors'; readonly errors: readonly TextErrors[] }
  /** To be run on the long lane. */
  | { readonly kind: 'long' }
  | { readonly kind: 'too long' };

/** Estimated seconds of a study that may run on the short lane, and of one that a request may ask for at all. */
const MAX_SHORT = 0.5;
const MAX_SECONDS = 4;

/** What comes of work, or why it cannot be done. */
async function orRefused<T extends RequestAnswer>(work: () => Promise<T> | T): Promise<RequestAnswer> {
  try {
    return await work();
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
  if (task.what === 'plan') return orRefused(() => ({ kind: 'plan', plan: planOf(task.request) }));
  const { study } = opened;
  const seconds = estimatedSeconds(study);
  if (seconds > MAX_SECONDS) return { kind: 'too long' };
  if (seconds > MAX_SHORT && task.lane === 'short') return { kind: 'long' };
  if (task.what === 'taken')
    return orRefused(async () => ({
      kind: 'taken',
      content: await exportedFile(document, study, task.asked),
    }));
  const result = runStudy(study);
  if (task.what === 'picture') return { kind: 'picture', html: await pictured(document, result, task.asked) };
  return { kind: 'report', report: studyReport(document.title, study.problem, result) };
}
