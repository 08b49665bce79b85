// What others use of what is proved of methods: texts in, kind, order, stability, mistakes and predicted errors out.
export { type BenchResult, type TestBench, testBench } from './inspect/bench/test-bench.ts';
export { type Amount, amountOf, amountText, fraction } from './inspect/form/amount.ts';
export { countOfStages } from './inspect/form/kind.ts';
export { multistepText, tableauText } from './inspect/form/grid-text.ts';
export type { Tableau } from './inspect/form/tableau.ts';
export { effectiveProof, type Inspection, inspectMethod, type Stability } from './inspect/inspect-method.ts';
export { conditionTex, principalTex } from './inspect/order/condition-tex.ts';
export { treePicture } from './inspect/order/tree-picture.ts';
export type { Complex } from './inspect/stability/complex.ts';
export { type LeadingTerm, leadingTermTex } from './inspect/stability/phase-errors.ts';
export { orderStar, relativeGrowthAt } from './inspect/stability/order-star.ts';
export { type Box, type EdgeSegment, regionPicture, regionsTogether } from './inspect/stability/region.ts';
export { largestStep, spectrumAlong } from './inspect/stability/spectrum.ts';
export { findSlips, type MethodSlips } from './inspect/slips/find-slips.ts';
export { growthAt } from './inspect/stability/stability-limits.ts';
export { zTex } from './inspect/stability/z-polynomial.ts';
export {
  type InspectionReport,
  inspectionReport,
  type LeadingTermReport,
} from './publish/inspection-report.ts';
