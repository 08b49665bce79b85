import type { StudyDocument } from '@schritt/core/document';
import type { StudyResult } from '@schritt/core/study';
import { Computer } from './computer.ts';
import type { Answers, Questions } from './messages.ts';

/** A study of less than that many seconds is one question: asking several workers would take longer. */
export const SHORT = 0.05;

/** A question about a whole study that was asked before the page that shows it was there. */
export interface EarlyStudy {
  readonly question: Questions['whole'];
  readonly computer: Computer;
  readonly answer: Promise<Answers['whole']>;
}

let early: EarlyStudy | null = null;
/** What it has come to, when it has. */
let answered: { readonly question: Questions['whole']; readonly answer: Answers['whole'] } | null = null;

/**
 * Asks for the numbers of a study as it is stored, while its page is still being made.
 *
 * @returns resolves when they are known, or could not be computed, which the page reports
 */
export async function computeEarly(document: StudyDocument): Promise<void> {
  const question = { document, known: document.methods.map(() => null), maxSeconds: SHORT };
  const computer = new Computer();
  const answer = computer.ask('whole', question);
  early = { question, computer, answer };
  await answer.then(
    (now) => {
      if (early?.question === question) answered = { question, answer: now };
    },
    // the page asks again
    () => undefined,
  );
}

/** What was asked early; it is given once. */
export function takeEarly(): EarlyStudy | null {
  const taken = early;
  early = null;
  answered = null;
  return taken;
}

/** What the numbers of a study are known to be before its page asks for them; null where they are not. */
export function earlyResult(document: StudyDocument): StudyResult | null {
  if (answered?.answer.kind !== 'done' || !isSameStudy(answered.question.document, document)) return null;
  return answered.answer.result;
}

/** A study without what its numbers and findings do not depend on. */
export function withoutRemarks<S extends Pick<StudyDocument, 'note' | 'measured'>>({
  note: _,
  measured: __,
  ...rest
}: S): Omit<S, 'note' | 'measured'> {
  return rest;
}

/** Fields in the order of their names. */
function inOrder(_key: string, value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
}

function keyOf(document: StudyDocument): string {
  return JSON.stringify(withoutRemarks(document), inOrder);
}

/**
 * Whether two documents are the same study but for remarks, in whatever order their fields are.
 *
 * @example isSameStudy({ ...document, note: 'for Monday' }, document) // true
 */
export function isSameStudy(one: StudyDocument, other: StudyDocument): boolean {
  return keyOf(one) === keyOf(other);
}
