import type { TextError } from '../text/place.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { errorChoice } from '../study/runs/error-choice.ts';
import { presentLadder } from '../study/runs/ladder.ts';
import type { Study, StudyMethod } from '../study/runs/study.ts';
import { memoize } from '../text/memoize.ts';
import { Refusal } from '../text/refusal.ts';
import type { StudyDocument } from './document.ts';
import { precisionInFile, precisionOfMethod } from './document-precision.ts';
import { readMethod } from './read-method.ts';

/** Problems that were read last. */
const problems = memoize<ReturnType<typeof parseProblem>>(8);

/** Errors of one text of a study: the problem, or the method at an index. */
export interface TextErrors {
  readonly text: 'problem' | { readonly method: number };
  readonly title: string;
  readonly errors: readonly TextError[];
}

export type OpenedStudy =
  | { readonly ok: true; readonly study: Study }
  | { readonly ok: false; readonly errors: readonly TextErrors[] };

/**
 * Reads all texts of a study; the errors of every text that cannot be read come with its place in the study.
 *
 * @example openStudy(document).ok // true
 */
export function openStudy(document: StudyDocument): OpenedStudy {
  const errors: TextErrors[] = [];
  const { text: typed } = document.problem;
  const problem = problems(typed, () => parseProblem(typed));
  if (!problem.ok) errors.push({ text: 'problem', title: document.problem.title, errors: problem.errors });
  const methods: StudyMethod[] = [];
  document.methods.forEach((one, i) => {
    const { title, text, struck = [], window = null } = one;
    const method = readMethod(text);
    const precision = precisionOfMethod(document, one);
    if (method.ok) methods.push({ title, method: method.value, struck, window, precision });
    else errors.push({ text: { method: i }, title, errors: method.errors });
  });
  if (!problem.ok || errors.length > 0) return { ok: false, errors };
  return {
    ok: true,
    study: {
      problem: problem.value,
      methods,
      ladder: presentLadder(document.ladder),
      lastStep: document.lastStep ?? 'fit',
      error: errorChoice(document.error),
      wished: document.wished ?? null,
      start: {
        find: (name) => methods.find((own) => own.title === name)?.method ?? findInLibrary(name),
        instead: document.start ?? null,
        precision: precisionInFile(document),
      },
    },
  };
}

/**
 * A study whose texts are expected to have no errors.
 *
 * @throws Refusal with the first error of its texts
 * @example studyOrRefusal(document).methods.length // 2
 */
export function studyOrRefusal(document: StudyDocument): Study {
  const opened = openStudy(document);
  if (opened.ok) return opened.study;
  const [first] = opened.errors.flatMap(({ errors }) => errors);
  throw new Refusal('form', first?.message ?? 'the study has errors');
}
