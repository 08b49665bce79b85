import type { Method } from '../method/method.ts';
import { lazily } from '../text/lazily.ts';
import { memoize } from '../text/memoize.ts';
import { type Amount, inexactly } from './form/amount.ts';
import { kindOf, type MethodKind } from './form/kind.ts';
import type { LinearMethod, NotLinear } from './form/linear-method.ts';
import { readLinear } from './form/read-linear.ts';
import {
  type EmbeddedTableau,
  embeddedTableauOf,
  type MultistepCoefficients,
  multistepOf,
  type Tableau,
  tableauOf,
} from './form/tableau.ts';
import { principalError } from './order/principal-error.ts';
import { type ProvedOrder, proveOrder, provedOrders } from './order/prove-order.ts';
import { orderBySimplifying, simplifyingAssumptions, stageOrder } from './order/simplifying.ts';
import { holdsJacobian, shiftsDiffer } from './order/step-series.ts';
import { type WithinDigits, withinDigits } from './order/within-digits.ts';
import {
  isSymmetric,
  isSymmetricNystrom,
  isSymplectic,
  isSymplecticNystrom,
  nystromOf,
  sspCoefficient,
} from './properties/geometric.ts';
import { dimensionSlips } from './slips/dimension-slips.ts';
import { linearOrder, padeOf } from './stability/approximation.ts';
import { type PhaseErrors, phaseErrors } from './stability/phase-errors.ts';
import { oscillationLimit } from './stability/oscillation-limit.ts';
import { type StabilityLimits, stabilityLimits } from './stability/stability-limits.ts';
import { type StabilityPolynomial, stabilityPolynomial } from './stability/stability-polynomial.ts';

/** How far a method is stable, and the polynomials that say so. */
export interface Stability extends StabilityLimits {
  readonly polynomial: StabilityPolynomial;
  /** The degrees of R(z) where it is a Pade approximant of exp(z); null where it is none. */
  readonly pade: ReturnType<typeof padeOf>;
  /** Null for a multistep method, and for one that is not consistent. */
  readonly phase: PhaseErrors | null;
}

/** Orders on kinds of problems; null where they are not known from the text. */
export interface OrdersOn {
  /** y' = f(y). */
  readonly autonomous: number | null;
  /** y' = A y. */
  readonly linear: number | null;
  /** With any matrix in place of the Jacobian of the text: of a W-method; null for a method without Jacobians. */
  readonly anyJacobian: number | null;
}

/** What is proved of the structure of a method; null where it is not known from the text. */
export interface Properties {
  readonly stageOrder: number | null;
  /** The norm of the coefficients of the principal error. */
  readonly principalError: number | null;
  /** Where a does not depend on the velocity, for a method in x and v. */
  readonly symplectic: boolean | null;
  readonly symmetric: boolean | null;
  /** The coefficient of strong stability preservation; 0 for none. */
  readonly ssp: number | null;
  /** Up to which h w errors on x'' = -w^2 x do not grow, for a method in x and v. */
  readonly oscillation: number | null;
}

/** What can be proved of a method from its text, without running it. */
export interface Inspection {
  /** Null where the text is not linear: then only trial tells. */
  readonly kind: MethodKind | null;
  readonly why: NotLinear | null;
  readonly linear: LinearMethod | null;
  /** For any problem, with the text taken exactly; null where no order can be proved. */
  readonly order: ProvedOrder | null;
  /** For x'' = a(t, x), where a does not depend on the velocity; null for methods of first order. */
  readonly orderWithoutVelocity: ProvedOrder | null;
  /** The order within the digits of rounded decimals; null where it is that of the text taken exactly. */
  readonly withinDigits: WithinDigits | null;
  readonly ordersOn: OrdersOn;
  readonly tableau: Tableau | null;
  readonly multistep: MultistepCoefficients | null;
  /** Null where it is not known from the text. */
  readonly stability: Stability | null;
  readonly properties: Properties;
  /** Null for a method without an embedded formula. */
  readonly embedded: EmbeddedInspection | null;
}

/** What is proved of an embedded formula. */
export interface EmbeddedInspection {
  /** Null where no order can be proved. */
  readonly order: ProvedOrder | null;
  /** Both rows of weights over all stages; null where the method has no tableau. */
  readonly tableau: EmbeddedTableau | null;
}

const NO_ORDERS: OrdersOn = { autonomous: null, linear: null, anyJacobian: null };
const NO_PROPERTIES: Properties = {
  stageOrder: null,
  principalError: null,
  symplectic: null,
  symmetric: null,
  ssp: null,
  oscillation: null,
};

/** The order of a Runge-Kutta method beyond the trees that are made, by its simplifying assumptions. */
function refined(proof: ProvedOrder, tableau: Tableau | null): ProvedOrder {
  if (!proof.atLeast || tableau === null) return proof;
  const { least, most } = orderBySimplifying(simplifyingAssumptions(tableau));
  const order = Math.max(proof.order, least);
  return { ...proof, order, atLeast: order < most };
}

function ordersOn(
  linear: LinearMethod,
  { order, within }: ProofOf,
  polynomial: StabilityPolynomial | null,
): OrdersOn {
  if (order === null || !('y' in linear.next)) return NO_ORDERS;
  const isShifted = within === null ? shiftsDiffer(linear) : !within.shiftsAgree;
  const autonomous = isShifted ? proveOrder(linear, 'autonomous') : (within?.proof ?? order);
  const anyJacobian = holdsJacobian(linear) ? proveOrder(linear, 'any Jacobian') : null;
  return {
    autonomous: autonomous?.order ?? null,
    linear: polynomial === null ? null : linearOrder(polynomial, within?.slack),
    anyJacobian: anyJacobian?.order ?? null,
  };
}

/** The proof of the text taken exactly, and the one within the digits of its decimals. */
interface ProofOf {
  readonly order: ProvedOrder | null;
  readonly within: WithinDigits | null;
}

/** A tableau in doubles, which are compared but for rounding. */
function inDoubles({ c, A, b }: Tableau): Tableau {
  const all = (amounts: readonly Amount[]): readonly Amount[] => amounts.map(({ value }) => inexactly(value));
  return { c: all(c), A: A.map(all), b: all(b) };
}

/** The norm of the principal error on y' = f(y), where the order is no other there. */
function principalOf(linear: LinearMethod, proof: ProvedOrder): number | null {
  const isTimed = proof.failing.some(({ withTime }) => withTime);
  const own = isTimed ? proveOrder(linear, 'autonomous') : proof;
  return own?.order === proof.order ? principalError(linear, own) : null;
}

function propertiesOf(linear: LinearMethod, exact: Tableau | null, { order, within }: ProofOf): Properties {
  const nystrom = nystromOf(linear);
  const effective = within?.proof ?? order;
  const principal = effective && principalOf(linear, effective);
  const isShifted = within === null ? shiftsDiffer(linear) : !within.shiftsAgree;
  if (exact === null || isShifted)
    return {
      ...NO_PROPERTIES,
      principalError: principal,
      symplectic: nystrom && isSymplecticNystrom(nystrom),
      symmetric: nystrom && isSymmetricNystrom(nystrom),
      oscillation: nystrom && oscillationLimit(nystrom),
    };
  const tableau = within === null ? exact : inDoubles(exact);
  const assumptions = simplifyingAssumptions(tableau);
  return {
    // with few digits not even B(1) holds
    stageOrder: within !== null && assumptions.B === 0 ? null : stageOrder(assumptions),
    principalError: principal,
    symplectic: isSymplectic(tableau),
    symmetric: isSymmetric(tableau),
    ssp: sspCoefficient(tableau),
    oscillation: null,
  };
}

function embeddedOf({ embedded }: Method): EmbeddedInspection | null {
  if (embedded === null) return null;
  const inspection = inspectMethod(embedded.method);
  const { linear } = inspection;
  return {
    order: effectiveProof(inspection),
    tableau: inspection.tableau && linear && embeddedTableauOf(linear, embedded.advanced),
  };
}

function inspected(method: Method): Inspection {
  const linear = readLinear(method);
  if ('why' in linear)
    return {
      kind: null,
      why: linear,
      linear: null,
      order: null,
      orderWithoutVelocity: null,
      withinDigits: null,
      ordersOn: NO_ORDERS,
      tableau: null,
      multistep: null,
      stability: null,
      properties: NO_PROPERTIES,
      embedded: null,
    };
  const isConsistent = dimensionSlips(method, linear).length === 0;
  const tableau = isConsistent ? tableauOf(linear) : null;
  const { general, withoutVelocity, best: highest, problems } = provedOrders(linear);
  const order = general && refined(general, tableau);
  const best = highest === general ? order : highest;
  const digits = best && withinDigits(method, linear, best, problems);
  const within = digits && { ...digits, proof: refined(digits.proof, tableau && inDoubles(tableau)) };
  const effective = within?.proof ?? best;
  const polynomial = lazily(() => (isConsistent ? stabilityPolynomial(linear) : null));
  const orders = lazily(() => ordersOn(linear, { order, within }, polynomial()));
  const stability = lazily((): Stability | null => {
    const own = polynomial();
    if (own === null) return null;
    return {
      polynomial: own,
      // the coefficients of rounded decimals are those of no approximant
      pade: within === null ? padeOf(own) : null,
      phase: phaseErrors(own, within?.slack),
      ...stabilityLimits(own, {
        isZeroStable: effective?.zero?.stable !== false,
        slack: within?.slack ?? 0,
      }),
    };
  });
  const properties = lazily(() => propertiesOf(linear, tableau, { order, within }));
  const embedded = lazily(() => embeddedOf(method));
  // a study needs the order alone; the rest is computed when it is read
  return {
    kind: kindOf(linear),
    why: null,
    linear,
    order,
    orderWithoutVelocity: withoutVelocity,
    withinDigits: within,
    get ordersOn() {
      return orders();
    },
    tableau,
    multistep: isConsistent ? multistepOf(linear) : null,
    get stability() {
      return stability();
    },
    get properties() {
      return properties();
    },
    get embedded() {
      return embedded();
    },
  };
}

/** The order of a text taken exactly: for x'' = a the higher one of effectiveProof. Null where none is proved. */
export function exactProof({ order, orderWithoutVelocity: free }: Inspection): ProvedOrder | null {
  return free !== null && order !== null && free.order > order.order ? free : order;
}

/**
 * The order that a method has, within the digits of its decimals; for x'' = a the higher one of general problems and of those
 * where a does not depend on the velocity. Null where none is proved.
 *
 * @example effectiveProof(inspection)?.order // 2
 */
export function effectiveProof(inspection: Inspection): ProvedOrder | null {
  return inspection.withinDigits?.proof ?? exactProof(inspection);
}

const known = memoize<Inspection>(200);

/**
 * Reads a method as an exact linear form and says what it is: kind, coefficients, order with the conditions that fail,
 * stability. Nothing is run; likely mistakes are found by findSlips.
 *
 * @example inspectMethod(heun).order?.order // 2
 */
export function inspectMethod(method: Method): Inspection {
  return known(method.text, () => inspected(method));
}
