import type { StudyDocument } from '../../document/document.ts';
import { studyOrRefusal } from '../../document/open-study.ts';
import type { Study } from '../../study/runs/study.ts';
import { attempt, Refusal } from '../../text/refusal.ts';
import { parseChoices, type Variant, variantsOf, withVariant } from './variants.ts';

/** Other numbers for every student. */
export interface VariantRequest {
  /** As `parseChoices` reads them. */
  readonly choices: string;
  readonly sheets: number;
  readonly seed: number;
}

/** The study of one sheet. */
export interface VariantStudy {
  readonly variant: Variant;
  readonly study: Study;
}

/**
 * Does something with a sheet; what is refused names the sheet and its numbers.
 *
 * @param number of the sheet, from 1
 * @example ofSheet(1, [{ name: 'k', value: '2' }], () => 'made') // 'made'
 */
export function ofSheet<T>(number: number, variant: Variant, work: () => T): T {
  const done = attempt(work);
  if (done.ok) return done.value;
  const numbers = variant.map(({ name, value }) => `${name} = ${value}`).join(', ');
  throw new Refusal('form', `sheet ${number} (${numbers}): ${done.refusal.message}`);
}

/** The study of one sheet as a document. */
export interface VariantDocument {
  readonly variant: Variant;
  readonly document: StudyDocument;
}

/**
 * The documents of all sheets, in their order, not yet opened; the same seed gives the same sheets again.
 *
 * @throws Refusal for lists of values that cannot be read, and for names that the problem does not have
 * @example variantDocuments(document, { choices: 'k in 1..3', sheets: 3, seed: 1 }).length // 3
 */
export function variantDocuments(
  document: StudyDocument,
  { choices, sheets, seed }: VariantRequest,
): readonly VariantDocument[] {
  const { problem } = studyOrRefusal(document);
  return variantsOf(parseChoices(choices), sheets, seed).map((variant, i) =>
    ofSheet(i + 1, variant, () => {
      const text = withVariant(problem, variant);
      return { variant, document: { ...document, problem: { ...document.problem, text } } };
    }),
  );
}

/**
 * The studies of all sheets, in their order; the same seed gives the same sheets again.
 *
 * @throws Refusal for lists of values that cannot be read, and for numbers that the problem does not take
 * @example variantStudies(document, { choices: 'k in 1..3', sheets: 3, seed: 1 }).length // 3
 */
export function variantStudies(document: StudyDocument, request: VariantRequest): readonly VariantStudy[] {
  return variantDocuments(document, request).map(({ variant, document: own }, i) =>
    ofSheet(i + 1, variant, () => ({ variant, study: studyOrRefusal(own) })),
  );
}
