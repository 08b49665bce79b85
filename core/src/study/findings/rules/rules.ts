import type { MethodCase, StudyCase } from '../cases.ts';
import type { FactOf, FindingKind } from '../facts.ts';
import {
  asPromised,
  betterThanPromised,
  formula,
  notYet,
  orderLost,
  scattered,
  twoRungs,
} from './order-rules.ts';
import { leadingSign, leadingZero, predicted } from './predicted-rules.ts';
import {
  coarse,
  elsewhere,
  floor,
  lastStep,
  leftTheNumbers,
  oscillation,
  referenceReached,
  refused,
  roundingOnly,
  sign,
  struck,
  unstable,
} from './rung-rules.ts';
import { comparison, mended, nearZero, reference, typedWrong, wrongExact } from './study-rules.ts';

/** How facts of one kind are found: in the runs of one method, or in the study as a whole. */
export interface Rule<K extends FindingKind> {
  readonly ofMethod?: (of: MethodCase) => FactOf<K> | null;
  readonly ofStudy?: (of: StudyCase) => readonly FactOf<K>[];
}

/** The rules, in the order in which their findings are told. */
export const RULES: { readonly [K in FindingKind]: Rule<K> } = {
  'wrong exact': { ofStudy: wrongExact },
  refused: { ofMethod: refused },
  'left the numbers': { ofMethod: leftTheNumbers },
  formula: { ofMethod: formula },
  'as promised': { ofMethod: asPromised },
  scattered: { ofMethod: scattered },
  'two rungs': { ofMethod: twoRungs },
  'better than promised': { ofMethod: betterThanPromised },
  predicted: { ofMethod: predicted },
  'leading zero': { ofMethod: leadingZero },
  'leading sign': { ofMethod: leadingSign },
  'order lost': { ofMethod: orderLost },
  'not yet': { ofMethod: notYet },
  unstable: { ofMethod: unstable },
  oscillation: { ofMethod: oscillation },
  coarse: { ofMethod: coarse },
  'typed derivative': { ofStudy: typedWrong },
  'last step': { ofMethod: lastStep, ofStudy: mended },
  time: { ofMethod: elsewhere },
  sign: { ofMethod: sign },
  'near zero': { ofStudy: nearZero },
  floor: { ofMethod: floor },
  reference: { ofMethod: referenceReached, ofStudy: reference },
  'rounding only': { ofMethod: roundingOnly },
  struck: { ofMethod: struck },
  comparison: { ofStudy: comparison },
};
