// What others use of the notations: texts in, problems and methods out, and both as text and mathematics again.
export { plainText } from './formula/plain-text.ts';
export type { Hint } from './hints/hint.ts';
export { methodHints } from './hints/method-hints.ts';
export { problemHints } from './hints/problem-hints.ts';
export { texSymbol } from './formula/tex-names.ts';
export { findInLibrary } from './method/library/find-method.ts';
export { LIBRARY } from './method/library/library.ts';
export { evaluationsPerStep, isImplicit, type Method } from './method/method.ts';
export { parseMethod } from './method/parse-method.ts';
export { methodLines, methodTex } from './method/tex-method.ts';
export { checkExact, exactCheckSentence } from './problem/check-exact.ts';
export { derivativesTex } from './problem/derivatives-tex.ts';
export { manufacture } from './problem/manufacture.ts';
export { type ParameterValues, parseProblem } from './problem/parse-problem.ts';
export { componentNames, hasExact, isSecondOrder, type Problem } from './problem/problem.ts';
export { type StepExpression, stepExpression } from './problem/step-expression.ts';
export { aligned, problemPlaces, problemTex, systemTex, systemText } from './problem/tex-problem.ts';
export { writeParameters } from './problem/write-parameters.ts';
export {
  count,
  exponential,
  fixed,
  general,
  mantissaAndExponent,
  powerOfTen,
  rounded,
  short,
  significant,
  stepSizeText,
  withMinus,
} from './text/number-text.ts';
export type { Reading, Repair, TextError } from './text/place.ts';
export { primed } from './text/primes.ts';
export { attempt, Refusal } from './text/refusal.ts';
export { tokenize } from './text/token.ts';
export { type TypesetOptions, typesetOptions } from './text/typeset-options.ts';
