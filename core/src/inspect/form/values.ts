import { pow } from '../../elementary/power.ts';
import type { Instruction } from '../../program/program.ts';
import type { Span } from '../../text/place.ts';
import { type Amount, inexactly, NOTHING, opposite, over, plus, UNIT } from './amount.ts';
import { addForms, type LinearForm, oppositeForm } from './form.ts';
import {
  addPowers,
  monomial,
  multiplyPowers,
  ONE_POWER,
  oppositePowers,
  type Powers,
  soleTerm,
} from './powers.ts';

/** A partial derivative of f. */
export type PartialInstruction = Instruction & { readonly kind: 'partial' };

/** A plain number with powers of h and a multiple of t, a form, or a derivative by y that waits for its vector. */
export type Value =
  | { readonly kind: 'scalar'; readonly t: Amount; readonly powers: Powers }
  | { readonly kind: 'form'; readonly form: LinearForm }
  | { readonly kind: 'operator'; readonly of: PartialInstruction; readonly factor: Powers };

/** Powers of h of one coefficient, and terms of one form, that are still worked with. */
const MAX_POWERS = 60;
const MAX_TERMS = 400;

/** @throws NoForm for coefficients or sums that have grown too large to be analysed */
export function boundedValue(value: Value, span: Span): Value {
  const large = (powers: Powers): boolean => powers.size > MAX_POWERS;
  const isLarge =
    value.kind === 'scalar'
      ? large(value.powers)
      : value.kind === 'operator'
        ? large(value.factor)
        : value.form.size > MAX_TERMS || [...value.form.values()].some(({ factor }) => large(factor));
  if (isLarge) throw new NoForm('its coefficients contain too many powers of h to be analysed', span);
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

/** The opposite of a value. */
export function negated(value: Value): Value {
  if (value.kind === 'scalar') return scalar(oppositePowers(value.powers), opposite(value.t));
  if (value.kind === 'operator') return { ...value, factor: oppositePowers(value.factor) };
  return { kind: 'form', form: oppositeForm(value.form) };
}

/** A sum of two values of one kind; a zero may be beside a form. */
export function sum(a: Value, b: Value, span: Span): Value {
  if (a.kind === 'scalar' && b.kind === 'scalar')
    return scalar(addPowers(a.powers, b.powers), plus(a.t, b.t));
  if (a.kind === 'form' && b.kind === 'form') return { kind: 'form', form: addForms(a.form, b.form) };
  if (a.kind === 'form' && constantIn(b)?.value === 0) return a;
  if (b.kind === 'form' && constantIn(a)?.value === 0) return b;
  throw new NoForm('a number and a value of the solution are added', span);
}

/** One over a number, or over a power of h. */
export function inverse(value: Value, span: Span): Value {
  if (value.kind !== 'scalar' || value.t.value !== 0)
    throw new NoForm('something is divided by a value of the solution', span);
  const sole = soleTerm(value.powers);
  if (sole === null) throw new NoForm('something is divided by a sum with h', span);
  return scalar(monomial(over(UNIT, sole.amount), -sole.power));
}

/** A whole power of a number with h, or any power of a plain one. */
export function power(base: Value, exponent: Value, span: Span): Value {
  const by = constantIn(exponent)?.value ?? NaN;
  if (base.kind !== 'scalar' || base.t.value !== 0) throw new NoForm('a value is raised to a power', span);
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
