import { applyFunction } from '../../formula/arithmetic.ts';
import type { Call, Expression, IndexedLeaf, NameLeaf } from '../../formula/expression.ts';
import { CONSTANTS } from '../../formula/functions.ts';
import { givenText, type Method, type MethodStatement, partialOf, stepsBack } from '../../method/method.ts';
import type { Span } from '../../text/place.ts';
import { type Amount, amountOf, inexactly, NOTHING, over, UNIT } from './amount.ts';
import { type Form, formOf, NO_FORM, putIn, scaleForm } from './form.ts';
import {
  type FormLine,
  type FormStage,
  isImplicit,
  stageKey,
  type LinearMethod,
  type NotLinear,
} from './linear-method.ts';
import { monomial, multiplyPowers, NO_POWERS, ONE_POWER, soleTerm } from './powers.ts';
import {
  boundedValue,
  constantIn,
  inverse,
  isVariable,
  negated,
  NoForm,
  power,
  scalar,
  sum,
  type Value,
} from './values.ts';

/** Evaluations of a step that are still analysed. */
const MAX_STAGES = 100;

/** Reads the lines of a method, one after another, as forms. */
class LinearReader {
  readonly stages: FormStage[] = [];
  readonly lines: FormLine[] = [];
  readonly #names = new Map<string, Value>();
  readonly #known = new Map<string, Form>();
  readonly #stageKeys = new Map<string, number>();
  readonly #isSecond: boolean;
  readonly #amount: (value: number) => Amount;

  constructor(method: Method, amount: (value: number) => Amount) {
    this.#isSecond = method.form === 'second order';
    this.#amount = amount;
  }

  line(statement: MethodStatement): void {
    if (statement.kind === 'function')
      throw new NoForm('it types a derivative out, which belongs to its own problem', statement.at);
    if (statement.kind === 'let') {
      const before = this.stages.length;
      const value = this.#value(statement.value);
      const name = givenText(statement.given);
      this.#names.set(name, value);
      if (value.kind === 'form') {
        this.lines.push({ name, form: value.form, span: statement.at });
        this.#nameStage(before, name, value.form);
      }
      return;
    }
    const names = statement.given.map(givenText);
    for (const name of names)
      this.#names.set(name, {
        kind: 'form',
        form: formOf({ kind: 'unknown', name }, ONE_POWER),
      });
    const before = this.stages.length;
    const forms = statement.values.map((value) => this.#form(value));
    names.forEach((name, i) => this.#known.set(name, forms[i] ?? NO_FORM));
    for (let round = 0; round < names.length; round += 1)
      for (const name of names) {
        const form = putIn(this.#known.get(name) ?? NO_FORM, this.#known);
        if ([...form.values()].some(({ basis }) => basis.kind === 'unknown' && basis.name === name))
          throw new NoForm(`${name} stands on both sides outside of f`, statement.at);
        this.#known.set(name, form);
      }
    for (const name of names) {
      const form = this.#known.get(name) ?? NO_FORM;
      this.#names.set(name, { kind: 'form', form });
      this.lines.push({ name, form, span: statement.at });
    }
    this.stages.forEach((stage, i) => {
      this.stages[i] = this.#completed(stage);
    });
    for (const [i, name] of names.entries()) this.#nameStage(before + i, name, forms[i] ?? NO_FORM);
  }

  next(variable: 'y' | 'x' | 'v'): Form {
    const value = this.#names.get(`${variable}[n+1]`);
    return value?.kind === 'form' ? value.form : NO_FORM;
  }

  #completed(stage: FormStage): FormStage {
    const at =
      'y' in stage.at
        ? { y: putIn(stage.at.y, this.#known) }
        : { x: putIn(stage.at.x, this.#known), v: putIn(stage.at.v, this.#known) };
    const partial = stage.partial && {
      times: stage.partial.times,
      along: stage.partial.along.map((form) => putIn(form, this.#known)),
    };
    return { ...stage, at, partial };
  }

  /** A line that is one new evaluation, perhaps times a power of h, gives that stage its name. */
  #nameStage(before: number, name: string, form: Form): void {
    const [term, other] = form.values();
    if (term === undefined || other !== undefined || term.basis.kind !== 'stage') return;
    const { stage: place } = term.basis;
    const stage = this.stages[place];
    if (stage !== undefined && place >= before && stage.name === null)
      this.stages[place] = { ...stage, name };
  }

  #form(node: Expression): Form {
    const value = this.#value(node);
    if (value.kind === 'form') return value.form;
    if (constantIn(value)?.value === 0) return NO_FORM;
    throw new NoForm('a plain number stands where a value of the solution is wanted', node.at);
  }

  #value(node: Expression): Value {
    return boundedValue(this.#valueOf(node), node.at);
  }

  #valueOf(node: Expression): Value {
    switch (node.kind) {
      case 'number':
        return scalar(monomial(this.#amount(node.value)));
      case 'name':
        return this.#name(node);
      case 'indexed':
        return this.#indexed(node);
      case 'negate':
        return negated(this.#value(node.of));
      case 'binary':
        return this.#binary(node);
      case 'call':
        return this.#call(node);
      case 'if':
        throw new NoForm('a choice is not linear', node.at);
    }
  }

  #name(node: NameLeaf): Value {
    const { name } = node;
    const given = this.#names.get(name);
    if (given !== undefined) return given;
    if (name === 't') return scalar(NO_POWERS, UNIT);
    if (name === 'h') return scalar(monomial(UNIT, 1));
    if (isVariable(name))
      return { kind: 'form', form: formOf({ kind: 'kept', variable: name, back: 0 }, ONE_POWER) };
    const constant = CONSTANTS.get(name);
    if (constant !== undefined) return scalar(monomial(inexactly(constant)));
    throw new NoForm(`${name} has no value here`, node.at);
  }

  #indexed(node: IndexedLeaf): Value {
    const back = stepsBack(node);
    if (back === null) throw new NoForm('this index is none of a step', node.at);
    const { name } = node;
    if (back < 0) {
      const next = this.#names.get(`${name}[n+1]`);
      if (next === undefined) throw new NoForm(`${name}[n+1] is not given yet`, node.at);
      return next;
    }
    if (name === 't') return scalar(monomial(amountOf(-back), 1), UNIT);
    if (isVariable(name))
      return { kind: 'form', form: formOf({ kind: 'kept', variable: name, back }, ONE_POWER) };
    const kept = (variable: 'y' | 'x' | 'v'): Form => formOf({ kind: 'kept', variable, back }, ONE_POWER);
    const at = this.#isSecond ? { x: kept('x'), v: kept('v') } : { y: kept('y') };
    return this.#stage({
      name: null,
      shift: amountOf(-back),
      at,
      primes: 0,
      partial: null,
      span: node.at,
    });
  }

  #binary(node: Expression & { readonly kind: 'binary' }): Value {
    const left = this.#value(node.left);
    const right = this.#value(node.right);
    switch (node.operator) {
      case '+':
        return sum(left, right, node.at);
      case '-':
        return sum(left, negated(right), node.at);
      case '*':
        return this.#product(left, right, node.at);
      case '/':
        return this.#product(left, inverse(right, node.right.at), node.at);
      case '^':
        return power(left, right, node.at);
    }
  }

  #product(a: Value, b: Value, span: Span): Value {
    if (a.kind === 'operator' || b.kind === 'operator') return this.#applied(a, b, span);
    if (a.kind === 'form' && b.kind === 'form')
      throw new NoForm('two values of the solution are multiplied', span);
    if (a.kind === 'scalar' && b.kind === 'scalar') {
      if (a.t.value !== 0 || b.t.value !== 0) {
        const [withT, other] = a.t.value !== 0 ? [a, b] : [b, a];
        const by = constantIn(other);
        if (by === null) throw new NoForm('t is multiplied by something that is not a plain number', span);
        const factor = monomial(by);
        return scalar(multiplyPowers(withT.powers, factor), over(withT.t, over(UNIT, by)));
      }
      return scalar(multiplyPowers(a.powers, b.powers));
    }
    const [factor, form] = a.kind === 'scalar' ? [a, b] : [b, a];
    if (factor.kind !== 'scalar' || form.kind !== 'form' || factor.t.value !== 0)
      throw new NoForm('a value of the solution is multiplied by t', span);
    return { kind: 'form', form: scaleForm(form.form, factor.powers) };
  }

  /** A derivative by y, applied to the vector behind it. */
  #applied(a: Value, b: Value, span: Span): Value {
    const operator = a.kind === 'operator' ? a : b.kind === 'operator' ? b : null;
    const other = operator === a ? b : a;
    if (operator === null || other.kind === 'operator')
      throw new NoForm('two derivatives by y are multiplied', span);
    if (other.kind === 'scalar') {
      if (other.t.value !== 0) throw new NoForm('a derivative is multiplied by t', span);
      return { ...operator, factor: multiplyPowers(operator.factor, other.powers) };
    }
    const { call, factor } = operator;
    const partial = partialOf(call.name);
    if (partial === null || partial.values !== 1)
      throw new NoForm('a higher derivative by y is multiplied, which is for one equation alone', span);
    const made = this.#evaluation(call, 0, { times: partial.times, along: [other.form] });
    return { kind: 'form', form: scaleForm(made.form, factor) };
  }

  #call(node: Call<NameLeaf | IndexedLeaf>): Value {
    const { name } = node;
    if (name === 'f' || name === 'a') return this.#evaluation(node, node.primes, null);
    const partial = partialOf(name);
    if (partial !== null) {
      if (partial.values > 0) return { kind: 'operator', call: node, factor: ONE_POWER };
      return this.#evaluation(node, 0, { times: partial.times, along: [] });
    }
    const inputs = node.inputs.map((input) => constantIn(this.#value(input)));
    const values = inputs.flatMap((amount) => (amount === null ? [] : [amount.value]));
    if (values.length < inputs.length)
      throw new NoForm(`${name} of h or of a value of the solution is not linear`, node.at);
    const made = applyFunction(name, values);
    const isWhole = inputs.every((amount) => amount?.exact != null) && Number.isInteger(made);
    return scalar(monomial(isWhole ? amountOf(made) : inexactly(made)));
  }

  #evaluation(
    node: Call<NameLeaf | IndexedLeaf>,
    primes: number,
    partial: FormStage['partial'],
  ): Value & { readonly kind: 'form' } {
    const [time, first, second] = node.inputs;
    if (time === undefined || first === undefined) throw new NoForm('f needs t and y', node.at);
    const when = this.#value(time);
    if (when.kind !== 'scalar' || when.t.value !== 1)
      throw new NoForm('the time of this evaluation is not t with a multiple of h', time.at);
    const sole = when.powers.size === 0 ? { power: 1, amount: NOTHING } : soleTerm(when.powers);
    if (sole === null || sole.power !== 1)
      throw new NoForm('the time of this evaluation is not t with a multiple of h', time.at);
    const at =
      this.#isSecond && second !== undefined
        ? { x: this.#form(first), v: this.#form(second) }
        : { y: this.#form(first) };
    return this.#stage({ name: null, shift: sole.amount, at, primes, partial, span: node.at });
  }

  /** A stage as a form; the same evaluation twice is one. */
  #stage(stage: FormStage): Value & { readonly kind: 'form' } {
    const key = stageKey(stage);
    const known = this.#stageKeys.get(key);
    const place = known ?? this.stages.length;
    if (known === undefined) {
      if (place >= MAX_STAGES)
        throw new NoForm(
          `it has more than ${MAX_STAGES} evaluations, which is more than is analysed`,
          stage.span,
        );
      this.stages.push(stage);
      this.#stageKeys.set(key, place);
    }
    return { kind: 'form', form: formOf({ kind: 'stage', stage: place }, ONE_POWER) };
  }
}

/**
 * Reads a method as an exact linear form over kept values and slopes.
 *
 * @param exactly whether numbers are fractions, or doubles where a quick look is enough
 * @returns what stands against it where it is none: then only trial tells what it does
 *
 * @example readLinear(heun).stages.length // 2
 */
export function readLinear(method: Method, exactly = true): LinearMethod | NotLinear {
  const reader = new LinearReader(method, exactly ? amountOf : inexactly);
  try {
    for (const statement of method.statements) reader.line(statement);
  } catch (thrown) {
    if (thrown instanceof NoForm) return { why: thrown.message, span: thrown.span };
    throw thrown;
  }
  const next =
    method.form === 'second order' ? { x: reader.next('x'), v: reader.next('v') } : { y: reader.next('y') };
  const { stages, lines } = reader;
  return { stages, next, lines, depth: method.depth, implicit: isImplicit(stages) };
}
