// What others use of marking: a student's rows beside the right run, and the mistakes that reproduce them.
export { classCounts, type ClassCounts, type CountedMistakes, countsText } from './marking/class-counts.ts';
export { findRun, type FindRunOf, type FoundRun, type RunChoice } from './marking/find-run.ts';
export { classJson } from './marking/class-json.ts';
export { markClass, markSteps, markSubmission, sheetIn, type StudentMarking } from './marking/mark-class.ts';
export { markColumn, type Marking, markRequest, type MarkRequest, rowsFor } from './marking/mark-column.ts';
export { type MarkingJson, markingJson } from './marking/marking-json.ts';
export { markingText, rowText } from './marking/marking-text.ts';
export { type MarkRule, type Marks, marksOf, USUAL_RULE } from './marking/marks.ts';
export type { RowVerdict } from './marking/row-verdicts.ts';
export { AS_FOUND, type ColumnMeaning, type ReadingChoice, type RowsOf } from './marking/student-rows.ts';
export {
  type ColumnRole,
  formOf,
  type Layout,
  LAYOUTS,
  readSubmitted,
  type Submission,
  submissionsOf,
  type SubmissionsOf,
  type SubmittedFile,
  type SubmittedText,
} from './marking/submission.ts';
export { classTable } from './publish/feedback/class-table.ts';
export { type FeedbackChoice, feedbackHtml } from './publish/feedback/feedback-html.ts';
export {
  ofSheet,
  type VariantDocument,
  variantDocuments,
  type VariantRequest,
  variantStudies,
} from './publish/handouts/variant-studies.ts';
