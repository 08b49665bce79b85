import { Decimal } from 'decimal.js';
import type { Arithmetic } from '../formula/arithmetic.ts';
import type { NumberLeaf, Operator, Relation } from '../formula/expression.ts';
import { memoize } from '../text/memoize.ts';
import { type DecimalPrecision, decimalPrecisionKey, type Rounding } from './decimal-precision.ts';
import { APPROXIMATIONS, type Approximation, workingWith } from './elementary.ts';

const MODES: Readonly<Record<Rounding, Decimal.Rounding>> = {
  'half-even': Decimal.ROUND_HALF_EVEN,
  'half-up': Decimal.ROUND_HALF_UP,
  chop: Decimal.ROUND_DOWN,
};

/** Digits of operations beyond those of the values that are stored, where only these are rounded. */
const UNSEEN = 20;

/** Digits of an approximation beyond those wanted, at first, and how many of its last may be wrong. */
const FIRST_GUARD = 8;
const DOUBTFUL = 3;

/**
 * Arithmetic with a number of decimal digits: every result is the exact one, rounded once.
 *
 * Sources: decimal.js for + - * / and the square root; other functions are computed with so many more digits that
 * their rounding is decided (A. Ziv, Fast evaluation of elementary mathematical functions with correctly rounded last
 * bit, ACM Transactions on Mathematical Software 17 (1991) 410-423).
 */
export class Decimals implements Arithmetic<Decimal> {
  readonly precision: DecimalPrecision;
  readonly zero: Decimal;
  readonly one: Decimal;
  readonly notANumber: Decimal;
  /** Significant digits of the result of an operation. */
  readonly workingDigits: number;
  readonly #kind: typeof Decimal;
  readonly #stored: typeof Decimal;
  readonly #constants = new Map<string, Decimal>();

  constructor(precision: DecimalPrecision) {
    const { digits, rounding, rounded } = precision;
    this.precision = precision;
    this.#stored = Decimal.clone({ defaults: true, precision: digits, rounding: MODES[rounding] });
    this.#kind =
      rounded === 'operations'
        ? this.#stored
        : Decimal.clone({ defaults: true, precision: digits + UNSEEN, rounding: Decimal.ROUND_HALF_EVEN });
    this.zero = new this.#kind(0);
    this.one = new this.#kind(1);
    this.notANumber = new this.#kind(NaN);
    this.workingDigits = this.#kind.precision;
  }

  /** A number as it is typed, without rounding. */
  typed(text: string): Decimal {
    return new this.#kind(text);
  }

  /** The shortest decimal number that is read as a double; an integer as it is. */
  fromDouble(value: number): Decimal {
    return Number.isSafeInteger(value) || !Number.isInteger(value)
      ? new this.#kind(value)
      : new this.#kind(BigInt(value).toString());
  }

  /** A number of another arithmetic, without rounding. */
  from(value: Decimal): Decimal {
    return new this.#kind(value);
  }

  number({ value, digits }: Pick<NumberLeaf, 'value' | 'digits'>): Decimal {
    return digits === undefined ? this.fromDouble(value) : this.typed(digits);
  }

  /** `pi`, `e`, or the logarithm of an integer as `ln(10)`; no number for another name. */
  constant(name: string): Decimal {
    const own = name === 'π' ? 'pi' : name;
    const known = this.#constants.get(own);
    if (known !== undefined) return known;
    const made = this.#newConstant(own);
    this.#constants.set(own, made);
    return made;
  }

  #newConstant(name: string): Decimal {
    const logarithm = /^ln\((\d+)\)$/.exec(name)?.[1];
    if (logarithm !== undefined) return this.call('ln', [this.typed(logarithm)]);
    const make = name === 'pi' || name === 'e' ? APPROXIMATIONS.get(name) : undefined;
    return make === undefined ? this.notANumber : this.#decided(make, []);
  }

  /** What a step keeps under a name: rounded, where operations are not. */
  stored(value: Decimal): Decimal {
    return this.#stored === this.#kind ? value : this.rounded(value);
  }

  kept(value: Decimal): Decimal {
    return value;
  }

  /** A number of another arithmetic, rounded to the digits that are stored. */
  rounded(value: Decimal): Decimal {
    return new this.#kind(new this.#stored(value).toSD(this.precision.digits));
  }

  negate(value: Decimal): Decimal {
    return value.neg();
  }

  operate(operator: Operator, left: Decimal, right: Decimal): Decimal {
    switch (operator) {
      case '+':
        return left.plus(right);
      case '-':
        return left.minus(right);
      case '*':
        return left.times(right);
      case '/':
        return left.div(right);
      case '^':
        return this.call('pow', [left, right]);
    }
  }

  /** The value of a function of the notation, rounded once; no number where it has none. */
  call(name: string, inputs: readonly Decimal[]): Decimal {
    const [first] = inputs;
    if (first === undefined || inputs.some((input) => input.isNaN())) return this.notANumber;
    switch (name) {
      case 'sqrt':
        return this.#root(first);
      case 'abs':
        return first.abs();
      case 'sign':
        return new this.#kind(first.isZero() ? 0 : first.isNegative() ? -1 : 1);
      case 'floor':
        return first.floor();
      case 'min':
        return inputs.reduce((least, own) => (own.lt(least) ? own : least));
      case 'max':
        return inputs.reduce((most, own) => (own.gt(most) ? own : most));
      default: {
        const make = APPROXIMATIONS.get(name);
        return make === undefined ? this.notANumber : this.#decided(make, inputs);
      }
    }
  }

  /** The largest size in a list of numbers, 0 of none; no number where one of them is none. */
  largest(list: readonly Decimal[]): Decimal {
    return list.reduce((most, own) => (own.abs().lte(most) ? most : own.abs()), this.zero);
  }

  compare(relation: Relation, left: Decimal, right: Decimal): boolean {
    switch (relation) {
      case '<':
        return left.lt(right);
      case '<=':
        return left.lte(right);
      case '>':
        return left.gt(right);
      case '>=':
        return left.gte(right);
      case '==':
        return left.eq(right);
      case '!=':
        return !left.eq(right);
    }
  }

  /**
   * The square root, rounded to the nearest in every rounding.
   *
   * Source: M. F. Cowlishaw, General Decimal Arithmetic Specification, version 1.70 (2009), square-root.
   */
  #root(value: Decimal): Decimal {
    if (this.precision.rounding === 'half-even') return value.sqrt();
    return new this.#kind(new (workingWith(this.workingDigits))(value).sqrt());
  }

  /** A function with more and more digits, until all values within its error are rounded alike. */
  #decided(make: Approximation, inputs: readonly Decimal[]): Decimal {
    const { precision: digits } = this.#kind;
    const most = 4 * digits + 40;
    for (let guard = FIRST_GUARD; ; guard *= 2) {
      const close = this.#attempt(make, digits + guard, inputs);
      if (!close.isFinite() || close.isZero()) return new this.#kind(close);
      const exact = workingWith(digits + guard + 10);
      const doubt = new exact(`1e${close.e - digits - guard + DOUBTFUL + 1}`);
      const own = new exact(close);
      const [low, high] = [this.#toDigits(own.minus(doubt)), this.#toDigits(own.plus(doubt))];
      if (low.eq(high)) return low;
      // what is still undecided is a number of few digits itself, or a tie
      if (guard > most) return this.#toDigits(own.toSD(digits + guard - DOUBTFUL - 2));
    }
  }

  #toDigits(value: Decimal): Decimal {
    const { precision: digits, rounding } = this.#kind;
    return new this.#kind(value.toSD(digits, rounding));
  }

  /** decimal.js knows the circle number and the logarithm of 10 to a thousand digits: what needs more has no value. */
  #attempt(make: Approximation, digits: number, inputs: readonly Decimal[]): Decimal {
    try {
      return make(digits, ...inputs);
    } catch (thrown) {
      if (thrown instanceof Error && thrown.message.startsWith('[DecimalError]')) return this.notANumber;
      throw thrown;
    }
  }
}

const known = memoize<Decimals>(24);

/**
 * The arithmetic of a precision; made once.
 *
 * @example decimalsOf({ digits: 4, rounding: 'chop', rounded: 'operations' }).constant('pi').toString() // '3.141'
 */
export function decimalsOf(precision: DecimalPrecision): Decimals {
  return known(decimalPrecisionKey(precision), () => new Decimals(precision));
}
