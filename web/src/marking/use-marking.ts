import type { StudyDocument } from '@schritt/core/document';
import { gridRequestOf } from '@schritt/core/document';
import type { StudentMarking } from '@schritt/core/marking';
import type { GridRequest } from '@schritt/core/study';
import { attempt } from '@schritt/core/text';
import { useMemo } from 'react';
import { type Ask, type Computed, type Tell, useComputed, useWork } from '../worker/use-work.ts';
import type { Submissions } from '../worker/marking-answers.ts';
import { MarkingComputer } from './marking-computer.ts';
import { type MarkingSession, submittedOf } from './marking-session.ts';

/** The step size as it is typed; why it is none, or null while there is none. */
export type TypedSize =
  | { readonly kind: 'size'; readonly gridRequest: GridRequest }
  | { readonly kind: 'none' }
  | { readonly kind: 'wrong'; readonly why: string };

/**
 * Reads a step size or a number of steps.
 *
 * @example typedSize({ kind: 'N', text: '10' }) // { kind: 'size', gridRequest: { steps: 10 } }
 */
export function typedSize({ kind, text }: MarkingSession['size']): TypedSize {
  if (text.trim() === '') return { kind: 'none' };
  const read = attempt(() => gridRequestOf(kind === 'h' ? { h: text } : { steps: text }));
  return read.ok ? { kind: 'size', gridRequest: read.value } : { kind: 'wrong', why: read.refusal.message };
}

/** What was handed in, as it was understood, by a worker. */
export function useSubmissions(
  document: StudyDocument | null,
  session: MarkingSession,
  gridRequest: GridRequest | null,
): Computed<Submissions> {
  const { method, variants, files, pasted, layout, roles, reading } = session;
  const ask = useMemo((): Ask<Submissions> | null => {
    const submitted = submittedOf({ files, pasted });
    if (document === null || gridRequest === null || submitted.length === 0) return null;
    const request = {
      document,
      method: Math.min(method, document.methods.length - 1),
      gridRequest,
      variants:
        variants.variants.trim() === ''
          ? null
          : { choices: variants.variants, sheets: variants.sheets, seed: variants.seed },
      files: submitted,
      layout,
      roles,
      reading,
    };
    return (computer) => computer.ask('submissions', request);
  }, [document, gridRequest, method, variants, files, pasted, layout, roles, reading]);
  return useComputed(ask);
}

/** All students, marked on workers; those that are done come first. */
export function useMarked(
  submissions: Submissions | null,
  sheets: MarkingSession['sheets'],
): Computed<readonly StudentMarking[]> {
  const work = useMemo(() => {
    if (submissions === null) return null;
    const { keys } = submissions;
    return (
      computer: MarkingComputer,
      tell: Tell<readonly StudentMarking[]>,
    ): Promise<readonly StudentMarking[]> =>
      computer.run({ keys, submissions: submissions.submissions, sheets }, (part, students) =>
        tell(part, students),
      );
  }, [submissions, sheets]);
  return useWork(() => new MarkingComputer(), work);
}
