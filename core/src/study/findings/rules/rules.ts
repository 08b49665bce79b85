import type { MethodCase, StudyCase } from '../cases.ts';
import type { FactOf, FindingKind } from '../facts.ts';
import {
  asExpected,
  betterThanExpected,
  formula,
  noOrder,
  notYet,
  orderLost,
  twoRungs,
} from './order-rules.ts';
import { leadingSign, leadingZero, predicted } from './predicted-rules.ts';
import { damped, leap } from './newton-rules.ts';
import {
  floor,
  referenceReached,
  roundedCoefficients,
  roundingOnly,
  roundingPart,
} from './rounding-rules.ts';
import { coarse, elsewhere, lastStep, nonFiniteText, refused, sameGrid, struck } from './rung-rules.ts';
import { sign } from './sign-rule.ts';
import { large, oscillation, unstable } from './stability-rules.ts';
import {
  comparison,
  mended,
  nearZero,
  noRelativeError,
  reference,
  typedWrong,
  wrongExact,
} from './study-rules.ts';

/** How facts of one kind are found: in the runs of one method, or in the study as a whole. */
export interface Rule<K extends FindingKind> {
  readonly ofMethod?: (of: MethodCase) => FactOf<K> | null;
  /** Where there can be several of one method. */
  readonly eachOfMethod?: (of: MethodCase) => readonly FactOf<K>[];
  readonly ofStudy?: (of: StudyCase) => readonly FactOf<K>[];
}

/** The rules, in the order in which their findings are reported. */
export const RULES: { readonly [K in FindingKind]: Rule<K> } = {
  'wrong exact': { ofStudy: wrongExact },
  refused: { ofMethod: refused },
  // instability explains what is said after it
  unstable: { ofMethod: unstable },
  oscillation: { ofMethod: oscillation },
  'left the numbers': { eachOfMethod: nonFiniteText },
  formula: { ofMethod: formula },
  leap: { ofMethod: leap },
  damped: { ofMethod: damped },
  'as promised': { ofMethod: asExpected },
  'no order': { ofMethod: noOrder },
  'two rungs': { ofMethod: twoRungs },
  'better than promised': { ofMethod: betterThanExpected },
  predicted: { ofMethod: predicted },
  'leading zero': { ofMethod: leadingZero },
  'leading sign': { ofMethod: leadingSign },
  digits: { ofMethod: roundedCoefficients },
  'order lost': { ofMethod: orderLost },
  'not yet': { ofMethod: notYet },
  large: { ofMethod: large },
  coarse: { ofStudy: coarse },
  'typed derivative': { ofStudy: typedWrong },
  'last step': { ofMethod: lastStep, ofStudy: mended },
  time: { eachOfMethod: elsewhere },
  'same grid': { ofStudy: sameGrid },
  sign: { ofMethod: sign },
  'no relative error': { ofStudy: noRelativeError },
  'near zero': { ofStudy: nearZero },
  floor: { ofMethod: floor },
  'rounding part': { ofMethod: roundingPart },
  reference: { ofMethod: referenceReached, ofStudy: reference },
  'rounding only': { ofMethod: roundingOnly },
  struck: { ofStudy: struck },
  comparison: { ofStudy: comparison },
};
