export * from './document/document.ts';
export { openStudy, type OpenedStudy, type TextErrors } from './document/open-study.ts';
export { readDocument, readDocumentText } from './document/read-document.ts';
export type { Reading, TextError } from './text/place.ts';
export { LONGEST_TEXT } from './text/place.ts';
export { plainText } from './formula/plain-text.ts';
export { texSymbol } from './formula/tex-names.ts';
export { texOf } from './formula/tex.ts';
export { findInLibrary } from './method/library/find-method.ts';
export { LIBRARY } from './method/library/library.ts';
export type { LibraryMethod } from './method/library/library-method.ts';
export { evaluationsPerStep, isImplicit, type Method, type MethodStatement } from './method/method.ts';
export { parseMethod } from './method/parse-method.ts';
export { methodTex } from './method/tex-method.ts';
export { parseProblem, type ParameterValues } from './problem/parse-problem.ts';
export {
  componentNames,
  hasExact,
  isSecondOrder,
  type Block,
  type Problem,
  type Unknown,
} from './problem/problem.ts';
export { checkExact, exactCheckSentence, type ExactCheck } from './problem/check-exact.ts';
export { manufacture, type Wish as WishedSolution } from './problem/manufacture.ts';
export type { TypedDerivative } from './problem/typed-derivatives.ts';
export { writeParameters } from './problem/write-parameters.ts';
export { aligned, problemTex, systemText, systemTex, type ProblemTex } from './problem/tex-problem.ts';
export { csv, type Cell } from './publish/csv.ts';
export * from './text/number-text.ts';
export { attempt, Refusal } from './text/refusal.ts';
export { primed } from './text/primes.ts';
export { plainTable } from './publish/plain-table.ts';
export { rowError, rowsTable } from './publish/rows-table.ts';
export { errorText, studyCsv, studyText } from './publish/study-table.ts';
export { compileWithStart, type StartChoice } from './compile/compile-with-start.ts';
export { compileRun, type CompiledRun } from './compile/compile.ts';
export { conservedQuantities, drift, type ConservedQuantity } from './run/conserved.ts';
export { exactSolution, type ExactSolution } from './run/exact-solution.ts';
export { stateFunction } from './compile/state-function.ts';
export { checkTyped, typedCheckSentence, type TypedCheck } from './reference/check-typed.ts';
export { jetFunction, type JetFunction } from './compile/jets/jet-function.ts';
export { MOST_SHOWN, portrait, type Portrait, type Stroke } from './reference/portrait.ts';
export {
  estimatedReference,
  referenceSolution,
  type EstimatedReference,
  type Reference,
} from './reference/reference-solution.ts';
export { taylorSolution, type DenseSolution } from './reference/taylor-solution.ts';
export { layGrid, MOST_STEPS, timeAt, type Grid, type LastStep, type Wish } from './run/grid.ts';
export {
  begin,
  copyOf,
  goTo,
  integrate,
  newtonIterations,
  outcomeOf,
  type Outcome,
  type RunState,
} from './run/integrate.ts';
export type { Precision } from './compile/precision.ts';
export { KEPT_POINTS, MOST_KEPT, keepRun, rowsAgain, type LongRun, type Thinned } from './run/long-run.ts';
export { rowsOf, type Row, type Rows } from './run/rows.ts';
export type { Stop } from './run/trouble.ts';
export { DEFAULT_ERROR, isRelative, type ErrorChoice } from './study/runs/error-choice.ts';
export { fitOrder, windowOf, type LeftOut, type OrderFit } from './study/judge/window.ts';
export {
  amountValue,
  layLadder,
  MOST_RUNGS,
  stepsOf,
  type Amount,
  type Ladder,
  type Rung,
} from './study/runs/ladder.ts';
export { errorRatio, observedOrder } from './study/judge/order.ts';
export { studyReport, type MethodReport, type RungReport, type StudyReport } from './publish/study-report.ts';
export { runStudy, studySteps, finish } from './study/run-study.ts';
export { methodSigns, runSteps, type MethodSign, type Progress } from './study/runs/run-methods.ts';
export type { Study, StudyMethod } from './study/runs/study.ts';
export type { StudyResult } from './study/study-result.ts';
export type { MethodResult, RungResult } from './study/judge/method-result.ts';
export type { MethodRun, RungRun } from './study/runs/run-method.ts';
export { conclude } from './study/conclude.ts';
export { compare, type Comparison, type Need } from './study/judge/comparison.ts';
export { evaluations, type Cost } from './study/runs/cost.ts';
export type { Finding, FindingKind } from './study/findings/facts.ts';
export { promisedOrder, type Promised } from './study/trial/promised-order.ts';
export type { Extrapolated } from './study/judge/richardson.ts';
export type { BestStep, RoundOff } from './study/judge/round-off.ts';
export { leftOutText } from './study/judge/left-out-text.ts';
export { truthOf, type Truth } from './study/runs/truth.ts';
export { estimatedSeconds } from './study/runs/estimate.ts';
