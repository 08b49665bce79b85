import { type Amount, amountText } from '../inspect/form/amount.ts';
import { type Inspection, inspectMethod } from '../inspect/inspect-method.ts';
import { countOfStages } from '../inspect/form/kind.ts';
import { findSlips } from '../inspect/slips/find-slips.ts';
import { conditionText } from '../inspect/order/condition-tex.ts';
import type { LeadingTerm } from '../inspect/stability/phase-errors.ts';
import { evaluationsPerStep, type Method } from '../method/method.ts';
import type { Repair, Span } from '../text/place.ts';
import { lineStarts, placeOf } from '../text/place.ts';

/** coefficient * x^power; the coefficient is a text: a fraction as such. */
export interface LeadingTermReport {
  readonly power: number;
  readonly coefficient: string;
}

/** What can be proved of a method, as plain JSON. Numbers of a tableau are texts: fractions as such. */
export interface InspectionReport {
  readonly title: string;
  /** Null where the text is no known form. */
  readonly kind: string | null;
  /** Why it is none. */
  readonly why: string | null;
  readonly stages: number | null;
  readonly evaluations: number;
  /** Of the text taken exactly, with all digits as typed. */
  readonly order: number | null;
  /** Whether the order may be higher: all conditions that were looked at hold. */
  readonly orderIsAtLeast: boolean;
  /** With decimals taken as roundings of the coefficients that are meant; the order where no decimal is rounded. */
  readonly orderWithinDigits: number | null;
  /** How far the first conditions that fail are off where they hold within the digits; null where none is. */
  readonly defect: number | null;
  readonly orderAutonomous: number | null;
  readonly orderLinear: number | null;
  /** With any matrix in place of the Jacobian; null for a method without Jacobians. */
  readonly orderAnyJacobian: number | null;
  /** For x'' = a(t, x) where a does not depend on the velocity. */
  readonly orderWithoutVelocity: number | null;
  readonly errorConstant: string | null;
  readonly tableau: {
    readonly c: readonly string[];
    readonly A: readonly (readonly string[])[];
    readonly b: readonly string[];
  } | null;
  /** A second row of weights: its order, and the tableau over all stages with both rows; null without one. */
  readonly embedded: {
    readonly order: number | null;
    readonly c: readonly string[];
    readonly A: readonly (readonly string[])[];
    readonly b: readonly string[];
    readonly weights: readonly string[];
  } | null;
  readonly multistep: {
    readonly alpha: readonly string[];
    readonly beta: readonly string[];
    readonly next: string;
  } | null;
  /** Null numbers where there is no end: stable on the whole half axis. */
  readonly stability: {
    readonly real: number | null;
    readonly imaginary: number | null;
    readonly aStable: boolean;
    readonly lStable: boolean;
    /** |R(infinity)|; null where it is infinite. */
    readonly atInfinity: number | null;
    /** The angle of A(alpha)-stability in degrees; null for none. */
    readonly alpha: number | null;
    /** Degrees of numerator and denominator of a Pade approximant, as 2/3. */
    readonly pade: string | null;
    /** The leading terms of |R(ix)| - 1 and of arg R(ix) - x; null for none, and for multistep methods. */
    readonly dissipation: LeadingTermReport | null;
    readonly dispersion: LeadingTermReport | null;
  } | null;
  readonly stageOrder: number | null;
  readonly principalError: number | null;
  readonly symplectic: boolean | null;
  readonly symmetric: boolean | null;
  /** Null where it is not known, or has no limit; `sspUnlimited` tells which. */
  readonly ssp: number | null;
  readonly sspUnlimited: boolean;
  /** Up to which h w errors on x'' = -w^2 x do not grow; null where it is not known, or without bound. */
  readonly oscillation: number | null;
  readonly zeroStable: boolean | null;
  /** The first condition of the next order that fails. */
  readonly conditions: readonly string[];
  readonly slips: readonly {
    readonly line: number;
    readonly column: number;
    readonly message: string;
    /** What to write for the characters from one place of the text to another, the likeliest first. */
    readonly repairs: readonly Repair[];
  }[];
  readonly nearMisses: readonly {
    readonly line: number;
    readonly column: number;
    readonly message: string;
    readonly order: number;
    readonly repair: Repair;
  }[];
}

function texts(amounts: readonly Amount[]): readonly string[] {
  return amounts.map(amountText);
}

function finite(limit: number): number | null {
  return Number.isFinite(limit) ? limit : null;
}

function leadingTerm(term: LeadingTerm | null | undefined): LeadingTermReport | null {
  return term == null ? null : { power: term.power, coefficient: amountText(term.coefficient) };
}

/**
 * What an inspection has found, as plain JSON.
 *
 * @example inspectionReport('Heun', heun).title // 'Heun'
 */
export function inspectionReport(title: string, method: Method): InspectionReport {
  const found: Inspection = inspectMethod(method);
  const { kind, why, linear, order, orderWithoutVelocity, tableau, multistep, stability } = found;
  const { withinDigits, ordersOn, properties } = found;
  const { slips, nearMisses } = findSlips(method);
  const effective = withinDigits?.proof ?? order;
  const starts = lineStarts(method.text);
  const placed = (at: Span): { readonly line: number; readonly column: number } => placeOf(starts, at.from);
  const first = effective?.failing[0];
  return {
    title,
    kind,
    why: why?.why ?? null,
    stages: linear && countOfStages(linear),
    evaluations: evaluationsPerStep(method),
    order: order?.order ?? null,
    orderIsAtLeast: order?.atLeast ?? false,
    orderWithinDigits: effective?.order ?? null,
    defect: withinDigits?.defect ?? null,
    orderAutonomous: ordersOn.autonomous,
    orderLinear: ordersOn.linear,
    orderAnyJacobian: ordersOn.anyJacobian,
    orderWithoutVelocity: orderWithoutVelocity?.order ?? null,
    errorConstant: effective?.errorConstant ? amountText(effective.errorConstant) : null,
    tableau: tableau && { c: texts(tableau.c), A: tableau.A.map(texts), b: texts(tableau.b) },
    embedded: found.embedded && {
      order: found.embedded.order?.order ?? null,
      c: texts(found.embedded.tableau?.c ?? []),
      A: (found.embedded.tableau?.A ?? []).map(texts),
      b: texts(found.embedded.tableau?.b ?? []),
      weights: texts(found.embedded.tableau?.embedded ?? []),
    },
    multistep: multistep && {
      alpha: texts(multistep.alpha),
      beta: texts(multistep.beta),
      next: amountText(multistep.next),
    },
    stability: stability && {
      real: finite(stability.real),
      imaginary: finite(stability.imaginary),
      aStable: stability.aStable,
      lStable: stability.lStable,
      atInfinity: finite(stability.atInfinity),
      alpha: stability.alpha,
      pade: stability.pade && `${stability.pade.numerator}/${stability.pade.denominator}`,
      dissipation: leadingTerm(stability.phase?.dissipation),
      dispersion: leadingTerm(stability.phase?.dispersion),
    },
    stageOrder: properties.stageOrder,
    principalError: properties.principalError,
    symplectic: properties.symplectic,
    symmetric: properties.symmetric,
    ssp: properties.ssp === null ? null : finite(properties.ssp),
    sspUnlimited: properties.ssp === Infinity,
    oscillation: properties.oscillation === null ? null : finite(properties.oscillation),
    zeroStable: order?.zero?.stable ?? null,
    conditions: first === undefined ? [] : [conditionText(first, tableau !== null)],
    slips: slips.map(({ at, message, repairs }) => ({ ...placed(at), message, repairs })),
    nearMisses: nearMisses.map(({ at, message, order: raised, repair }) => ({
      ...placed(at),
      message,
      order: raised,
      repair,
    })),
  };
}
