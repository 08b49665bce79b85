import { pow } from '../../elementary/power.ts';
import type { Instruction } from '../../program/program.ts';
import type { Span } from '../../text/place.ts';
import { type Amount, inexactly, NOTHING, opposite, over, plus, UNIT } from './amount.ts';
import { addForms, type LinearForm, oppositeForm, scaleForm } from './form.ts';
import {
  addPowers,
  monomial,
  multiplyPowers,
  NO_POWERS,
  ONE_POWER,
  oppositePowers,
  type Powers,
  soleTerm,
} from './powers.ts';

/** A partial derivative of f. */
export type PartialInstruction = Instruction & { readonly kind: 'partial' };

/** A partial derivative by y with some of the vectors that it is applied to. */
export interface Derivation {
  readonly of: PartialInstruction;
  /** Fewer than it takes. */
  readonly along: readonly LinearForm[];
}

/** A linear map of vectors: identity*v + factor * d1(d2(... v)). */
export interface Operator {
  readonly kind: 'operator';
  readonly identity: Powers;
  readonly factor: Powers;
  /** The derivatives, the outermost first; at least one. */
  readonly derivations: readonly Derivation[];
}

/**
 * A plain number with powers of h and a multiple of t; a form; several forms multiplied, which a higher derivative takes;
 * a linear map that waits for its vector; or the inverse of one, times a factor.
 */
export type Value =
  | { readonly kind: 'scalar'; readonly t: Amount; readonly powers: Powers }
  | { readonly kind: 'form'; readonly form: LinearForm }
  | { readonly kind: 'product'; readonly forms: readonly LinearForm[]; readonly factor: Powers }
  | Operator
  | { readonly kind: 'inverse'; readonly of: Operator; readonly factor: Powers };

/** Powers of h of one coefficient, and terms of one form, that are still worked with. */
const MAX_POWERS = 60;
const MAX_TERMS = 400;

/** The factors of a value, and how many terms it has. */
function partsOf(value: Value): { readonly factors: readonly Powers[]; readonly terms: number } {
  switch (value.kind) {
    case 'scalar':
      return { factors: [value.powers], terms: 1 };
    case 'form':
      return { factors: [...value.form.values()].map(({ factor }) => factor), terms: value.form.size };
    case 'operator':
      return { factors: [value.identity, value.factor], terms: value.derivations.length };
    case 'product':
      return { factors: [value.factor], terms: value.forms.length };
    case 'inverse':
      return { factors: [value.factor], terms: 1 };
  }
}

/** @throws NoForm for coefficients or sums that have grown too large to be analysed */
export function boundedValue(value: Value, span: Span): Value {
  const { factors, terms } = partsOf(value);
  if (terms > MAX_TERMS || factors.some((powers) => powers.size > MAX_POWERS))
    throw new NoForm('its coefficients contain too many powers of h to be analysed', span);
  return value;
}

export class NoForm extends Error {
  readonly span: Span;
  constructor(why: string, span: Span) {
    super(why);
    this.span = span;
  }
}

export function scalar(powers: Powers, t: Amount = NOTHING): Value {
  return { kind: 'scalar', t, powers };
}

/** A number without t and h, or null. */
export function constantIn(value: Value): Amount | null {
  if (value.kind !== 'scalar' || value.t.value !== 0) return null;
  if (value.powers.size === 0) return NOTHING;
  const sole = soleTerm(value.powers);
  return sole !== null && sole.power === 0 ? sole.amount : null;
}

/** A value times a plain number with powers of h. */
export function scaled(value: Exclude<Value, { readonly kind: 'scalar' }>, by: Powers): Value {
  switch (value.kind) {
    case 'form':
      return { kind: 'form', form: scaleForm(value.form, by) };
    case 'operator':
      return {
        ...value,
        identity: multiplyPowers(value.identity, by),
        factor: multiplyPowers(value.factor, by),
      };
    case 'product':
    case 'inverse':
      return { ...value, factor: multiplyPowers(value.factor, by) };
  }
}

/** The opposite of a value. */
export function negated(value: Value): Value {
  if (value.kind === 'scalar') return scalar(oppositePowers(value.powers), opposite(value.t));
  if (value.kind === 'form') return { kind: 'form', form: oppositeForm(value.form) };
  return scaled(value, oppositePowers(ONE_POWER));
}

/** A sum of two values of one kind; a zero may be beside a form, and a number beside a linear map. */
export function sum(a: Value, b: Value, span: Span): Value {
  if (a.kind === 'scalar' && b.kind === 'scalar')
    return scalar(addPowers(a.powers, b.powers), plus(a.t, b.t));
  if (a.kind === 'form' && b.kind === 'form') return { kind: 'form', form: addForms(a.form, b.form) };
  if (a.kind === 'form' && constantIn(b)?.value === 0) return a;
  if (b.kind === 'form' && constantIn(a)?.value === 0) return b;
  if (a.kind === 'operator' && b.kind === 'scalar' && b.t.value === 0)
    return { ...a, identity: addPowers(a.identity, b.powers) };
  if (a.kind === 'scalar' && b.kind === 'operator') return sum(b, a, span);
  if ([a, b].some(({ kind }) => kind === 'product'))
    throw new NoForm('two values of the solution are multiplied', span);
  if ([a, b].every(({ kind }) => kind === 'operator' || kind === 'inverse'))
    throw new NoForm(
      'two derivatives with respect to y are added before they are multiplied by a value',
      span,
    );
  throw new NoForm('a number and a value of the solution are added', span);
}

/** One over a number, over a power of h, or over a linear map. */
export function inverse(value: Value, span: Span): Value {
  if (value.kind === 'operator') return { kind: 'inverse', of: value, factor: ONE_POWER };
  if (value.kind !== 'scalar' || value.t.value !== 0)
    throw new NoForm('something is divided by a value of the solution', span);
  const sole = soleTerm(value.powers);
  if (sole === null) throw new NoForm('something is divided by a sum with h', span);
  return scalar(monomial(over(UNIT, sole.amount), -sole.power));
}

/** Most equal values that a derivative is applied to. */
const MAX_EQUAL = 12;

/** A whole power of a number with h, of a value or of a derivative, or any power of a plain number. */
export function power(base: Value, exponent: Value, span: Span): Value {
  const by = constantIn(exponent)?.value ?? NaN;
  if (base.kind !== 'scalar') return powerOfValue(base, by, span);
  if (base.t.value !== 0) throw new NoForm('t is raised to a power', span);
  if (Number.isInteger(by) && by >= 0 && by <= 40) {
    let made = ONE_POWER;
    for (let i = 0; i < by; i += 1) {
      made = multiplyPowers(made, base.powers);
      boundedValue(scalar(made), span);
    }
    return scalar(made);
  }
  const plain = constantIn(base);
  if (plain === null) throw new NoForm('h is raised to a power that is not an integer', span);
  return scalar(monomial(inexactly(pow(plain.value, by))));
}

function powerOfValue(base: Exclude<Value, { readonly kind: 'scalar' }>, by: number, span: Span): Value {
  const isCount = Number.isInteger(by) && by >= 1 && by <= MAX_EQUAL;
  const equal = <Item>(item: Item): readonly Item[] => Array.from({ length: by }, () => item);
  if (isCount && base.kind === 'form') return { kind: 'product', forms: equal(base.form), factor: ONE_POWER };
  if (isCount && base.kind === 'operator' && base.identity.size === 0) {
    const [factor, derivations] = [equal(base.factor), equal(base.derivations).flat()];
    return { kind: 'operator', identity: NO_POWERS, factor: factor.reduce(multiplyPowers), derivations };
  }
  if (by === -1 && base.kind === 'operator') return { kind: 'inverse', of: base, factor: ONE_POWER };
  throw new NoForm('a value is raised to a power', span);
}

/**
 * Two linear maps, one after another.
 *
 * @throws NoForm where both or one of them hold a number beside a derivative
 */
export function composed(a: Operator, b: Operator, span: Span): Operator {
  if (a.identity.size > 0 || b.identity.size > 0)
    throw new NoForm('two sums with derivatives with respect to y are multiplied', span);
  return {
    kind: 'operator',
    identity: NO_POWERS,
    factor: multiplyPowers(a.factor, b.factor),
    derivations: [...a.derivations, ...b.derivations],
  };
}
