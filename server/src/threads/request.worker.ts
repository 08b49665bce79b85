import {
  openStudy,
  studyReport,
  type StudyDocument,
  type StudyReport,
  type TextErrors,
} from '@schritt/core/document';
import { estimatedSeconds, runStudy } from '@schritt/core/study';

/** Heavy work that a request waits for. */
export interface RequestTask {
  readonly what: 'report' | 'check';
  readonly document: StudyDocument;
}

export type RequestAnswer =
  | { readonly kind: 'report'; readonly report: StudyReport }
  | { readonly kind: 'checked' }
  | { readonly kind: 'text errors'; readonly errors: readonly TextErrors[] }
  | { readonly kind: 'too long' };

/** Estimated seconds of a study that a request may ask for. */
const LONGEST = 4;

/** Opens a study, and runs it where its numbers are asked for. */
export default function answer({ what, document }: RequestTask): RequestAnswer {
  const opened = openStudy(document);
  if (!opened.ok) return { kind: 'text errors', errors: opened.errors };
  if (what === 'check') return { kind: 'checked' };
  const { study } = opened;
  if (estimatedSeconds(study) > LONGEST) return { kind: 'too long' };
  return { kind: 'report', report: studyReport(document.title, study.problem, runStudy(study)) };
}
