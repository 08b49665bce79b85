import type { StudyDocument } from '@schritt/core/document';
import {
  type ColumnRole,
  feedbackHtml,
  findRun,
  formOf,
  type FoundRun,
  type Layout,
  markRequest,
  type MarkRequest,
  type MarkRule,
  markSubmission,
  type ReadingChoice,
  readSubmitted,
  rowsFor,
  type StudentMarking,
  type Submission,
  submissionsOf,
  type SubmittedText,
  type VariantRequest,
  variantStudies,
} from '@schritt/core/marking';
import { type SubmittedBytes, submittedTexts, type SubmittedTexts } from '@schritt/core/sheets';
import type { GridRequest } from '@schritt/core/study';
import { typesetOptions } from '@schritt/core/text';
import { openedStudy } from './opened-study.ts';

/** What rows are compared with: one run, with the problem of each sheet. */
export interface MarkingKeys {
  readonly document: StudyDocument;
  /** Texts of the problems, one a sheet; one alone without variants. */
  readonly problems: readonly string[];
  readonly method: number;
  readonly gridRequest: GridRequest;
}

/** Files of a class, and how a person has said that they are to be read. */
export interface SubmissionsRequest {
  readonly document: StudyDocument;
  readonly method: number;
  readonly gridRequest: GridRequest;
  /** Null where all students have the same numbers. */
  readonly variants: VariantRequest | null;
  readonly files: readonly SubmittedText[];
  readonly layout: Layout | null;
  /** By the form of a table. */
  readonly roles: Readonly<Record<string, readonly ColumnRole[]>>;
  readonly reading: ReadingChoice;
}

/** A column of a file as it was understood. */
export interface UnderstoodColumn {
  readonly title: string | null;
  readonly role: ColumnRole;
  /** Its first cells as they are typed; null where there is no number. */
  readonly cells: readonly (string | null)[];
}

/** A file as it was understood. */
export interface UnderstoodFile {
  readonly name: string;
  readonly form: string;
  readonly columns: readonly UnderstoodColumn[];
  readonly rows: number;
  readonly decimalSign: '.' | ',';
  /** Cells with something that is no number. */
  readonly unread: number;
}

/** What a class has handed in, as it was understood. */
export interface Submissions {
  readonly files: readonly UnderstoodFile[];
  readonly submissions: readonly Submission[];
  readonly keys: MarkingKeys;
  readonly components: readonly string[];
  readonly stages: readonly string[];
}

/** The questions of marking. */
export interface MarkingQuestions {
  /** Files as they were handed in, as texts. */
  readonly submitted: { readonly files: readonly SubmittedBytes[] };
  readonly submissions: SubmissionsRequest;
  /** The rows of one student, on a sheet as a person has set it. */
  readonly marked: {
    readonly keys: MarkingKeys;
    readonly submission: Submission;
    readonly sheet: number | null;
  };
  /** The study, method and step size that rows belong to. */
  readonly foundRun: {
    readonly documents: readonly StudyDocument[];
    readonly files: readonly SubmittedText[];
    readonly layout: Layout | null;
    readonly reading: ReadingChoice;
  };
  readonly feedback: {
    readonly keys: MarkingKeys;
    readonly students: readonly StudentMarking[];
    readonly rule: MarkRule;
  };
}

/** Their answers. */
export interface MarkingAnswers {
  readonly submitted: SubmittedTexts;
  readonly submissions: Submissions;
  readonly marked: StudentMarking;
  readonly foundRun: FoundRun | null;
  readonly feedback: string;
}

export type MarkingKind = keyof MarkingQuestions;

/** Cells of a column that are shown. */
const CELLS_SHOWN = 5;

function requestsOf(keys: MarkingKeys): readonly MarkRequest[] {
  const { document, problems } = keys;
  return problems.map((text) =>
    markRequest(openedStudy({ ...document, problem: { ...document.problem, text } }), keys),
  );
}

function submissions(request: SubmissionsRequest): Submissions {
  const { document, method, gridRequest, variants, files, layout, roles, reading } = request;
  const marked = markRequest(openedStudy(document), request);
  const problems =
    variants === null
      ? [document.problem.text]
      : variantStudies(document, variants).map((one) => one.study.problem.text);
  const { components, stages } = rowsFor(marked);
  const read = readSubmitted(files, { request: marked, layout, roles, reading });
  return {
    files: read.map(({ name, table, roles: own }) => ({
      name,
      form: formOf(table),
      columns: table.columns.map(({ title, cells }, i) => ({
        title,
        role: own[i] ?? { kind: 'other' },
        cells: cells.slice(0, CELLS_SHOWN).map((cell) => cell?.text ?? null),
      })),
      rows: table.lines.length,
      decimalSign: table.decimalSign,
      unread: table.unread.length,
    })),
    submissions: submissionsOf(read),
    keys: { document, problems, method, gridRequest },
    components,
    stages,
  };
}

async function feedback({ keys, students, rule }: MarkingQuestions['feedback']): Promise<string> {
  const { default: katex } = await import('katex');
  return feedbackHtml(students, { title: keys.document.title, rule, keys: requestsOf(keys) }, (tex, wide) =>
    katex.renderToString(tex, typesetOptions(wide, 'mathml')),
  );
}

/** Pulls a piece of work to its end, and tells which part of it is done. */
export type Pull = <T>(work: Generator<number, T>) => T;

/** How each question of marking is answered. */
export const ANSWER_MARKING: {
  readonly [K in MarkingKind]: (
    question: MarkingQuestions[K],
    pull: Pull,
  ) => MarkingAnswers[K] | Promise<MarkingAnswers[K]>;
} = {
  submitted: ({ files }) => submittedTexts(files),
  submissions,
  marked: ({ keys, submission, sheet }) => markSubmission(requestsOf(keys), submission, sheet),
  foundRun: ({ documents, ...of }, pull) => pull(findRun({ studies: documents.map(openedStudy), ...of })),
  feedback,
};
