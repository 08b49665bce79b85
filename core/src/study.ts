// What others use of runs and studies: problems and methods in, numbers and what they mean out.
export { compileWithStart } from './compile/compile-with-start.ts';
export { type CompiledRun, generateLoop } from './compile/compile.ts';
export { systemRightHandSides } from './compile/right-hand-sides.ts';
export { isDecimal, type Precision, precisionText } from './compile/precision.ts';
export { stateFunction } from './compile/state-function.ts';
export { checkTyped, typedCheckSentence } from './reference/check-typed.ts';
export { MAX_SHOWN, type Portrait, portrait, type Stroke } from './reference/portrait.ts';
export { type Grid, type LastStep, layGrid, MAX_STEPS, timeAt, type GridRequest } from './run/grid.ts';
export { begin } from './run/integrate.ts';
export { keepRun, type LongRun, rowsAgain } from './run/long-run.ts';
export { differenceAt, type Row, type RowDigits, type Rows, rowsOf } from './run/rows.ts';
export { conclude } from './study/conclude.ts';
export { type Curves, curvesOf, type RunToDraw, type Trajectory } from './study/curves.ts';
export { errorCaption } from './study/error-caption.ts';
export type { Finding } from './study/findings/facts.ts';
export { splitFindings } from './study/findings/main-findings.ts';
export { ERROR_MEASURES, MEASURE_NAMES, type MeasureName } from './study/measures/measures.ts';
export { leftOutText } from './study/judge/left-out-text.ts';
export type { RungResult } from './study/judge/method-result.ts';
export { withReference } from './study/rows-against-reference.ts';
export { finish, runStudy, studySteps } from './study/run-study.ts';
export { agreeingDigits, correctPlaces } from './study/runs/correct-digits.ts';
export { evaluations } from './study/runs/cost.ts';
export { type ErrorChoice, errorChoice } from './study/runs/error-choice.ts';
export { estimatedSeconds, type Piece, piecesOf } from './study/runs/estimate.ts';
export {
  type Amount,
  amountValue,
  type Ladder,
  layLadder,
  MAX_RUNGS,
  type Rung,
} from './study/runs/ladder.ts';
export { knownRounding } from './study/runs/measured-rounding.ts';
export { type LocalErrors, localErrors } from './study/local-errors.ts';
export type { MethodRun, RungRun } from './study/runs/run-method.ts';
export {
  completeMethod,
  type MethodSign,
  methodSigns,
  type PieceRun,
  pieceSigns,
} from './study/runs/run-methods.ts';
export { precisionOf, runOf, type Study, type StudyMethod } from './study/runs/study.ts';
export { truthOf } from './study/runs/truth.ts';
export type { StudyResult } from './study/study-result.ts';
export { stepLimits } from './study/step-limits.ts';
export { type StepsForError, stepsForError } from './study/steps-for-error.ts';
export { limitsOf, type TruthCurve, truthOfPlaces } from './study/truth-of-places.ts';
export { type WorkedLine, type WorkedStep, workedStep } from './worked/worked-step.ts';
