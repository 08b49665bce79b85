import type { Instruction, Program, ProgramLine, SolveInstruction } from '../../program/program.ts';
import { lower } from '../../program/lowering.ts';
import type { Register, StepLeaf, StepTree } from '../../program/step-tree.ts';
import { applyFunction } from '../../formula/arithmetic.ts';
import type { Bound, Call } from '../../formula/expression.ts';
import { givenText, type Method } from '../../method/method.ts';
import type { Span } from '../../text/place.ts';
import { type Amount, amountOf, inexactly, NOTHING, over, times, UNIT } from './amount.ts';
import { addForms, type LinearForm, formOf, NO_FORM, putIn, scaleForm } from './form.ts';
import {
  type FormLine,
  type FormStage,
  inOrder,
  needed,
  stageKey,
  type LinearMethod,
  type NotLinear,
} from './linear-method.ts';
import { monomial, multiplyPowers, NO_POWERS, ONE_POWER, oppositePowers, soleTerm } from './powers.ts';
import {
  boundedValue,
  composed,
  constantIn,
  inverse,
  negated,
  NoForm,
  type Operator,
  type PartialInstruction,
  power,
  scalar,
  scaled,
  sum,
  type Value,
} from './values.ts';

/** Evaluations of a step that are still analysed. */
const MAX_STAGES = 100;

/** A call of f, of a or of a derivative of f. */
type EvaluationInstruction = Instruction & { readonly kind: 'rhs' | 'derivative' | 'partial' };

/** Reads the instructions of a step, one after another, as forms. */
class LinearReader {
  readonly stages: FormStage[] = [];
  readonly #program: Program;
  readonly #values = new Map<Register, Value>();
  /** Forms of unknowns, by the name of their basis. */
  readonly #known = new Map<string, LinearForm>();
  readonly #stageKeys = new Map<string, number>();
  /** For each stage the line that first needs it. */
  readonly #madeIn: string[] = [];
  readonly #amount: (value: number) => Amount;

  constructor(program: Program, amount: (value: number) => Amount) {
    this.#program = program;
    this.#amount = amount;
    program.present.forEach((register, i) => this.#values.set(register, this.#kept(i, 0)));
    for (const { of, back, register } of program.kept)
      if (of !== 'f') this.#values.set(register, this.#kept(of === 'v' ? 1 : 0, back));
  }

  /** A value of the solution some steps back: y, or x and v by their places. */
  #kept(place: number, back: number): Value & { readonly kind: 'form' } {
    const variable = this.#program.form === 'first order' ? 'y' : place === 0 ? 'x' : 'v';
    return { kind: 'form', form: formOf({ kind: 'kept', variable, back }, ONE_POWER) };
  }

  read(): void {
    for (const instruction of this.#program.instructions) this.#do(instruction);
    for (const line of this.#program.lines) this.#nameStage(line);
  }

  /** Every line of the text that gives a form. */
  lines(): readonly FormLine[] {
    return this.#program.lines.flatMap(({ given, register, span }) => {
      const value = this.#values.get(register);
      return value?.kind === 'form' ? [{ name: givenText(given), form: value.form, span }] : [];
    });
  }

  /** The new values: of y, or of x and v. */
  next(): LinearMethod['next'] {
    const [first = NO_FORM, second = NO_FORM] = this.#program.next.map((register) => {
      const value = this.#values.get(register);
      return value?.kind === 'form' ? value.form : NO_FORM;
    });
    return this.#program.form === 'first order' ? { y: first } : { x: first, v: second };
  }

  #do(instruction: Instruction): void {
    switch (instruction.kind) {
      case 'combine':
        this.#values.set(instruction.into, this.#value(instruction.value, instruction.line));
        return;
      case 'rhs':
        // f[n] becomes a stage where it is read
        if (instruction.into !== this.#program.presentRhs)
          this.#values.set(instruction.into, this.#evaluation(instruction, 0, null));
        return;
      case 'derivative':
        this.#values.set(instruction.into, this.#evaluation(instruction, instruction.order, null));
        return;
      case 'partial':
        this.#values.set(instruction.into, this.#partial(instruction));
        return;
      case 'typed':
        throw new NoForm(
          'it contains a typed derivative, which is that of one particular problem',
          instruction.span,
        );
      case 'solve':
        this.#solve(instruction);
    }
  }

  #solve({ unknowns, values, results, span }: SolveInstruction): void {
    const names = unknowns.map(String);
    unknowns.forEach((register) =>
      this.#values.set(register, {
        kind: 'form',
        form: formOf({ kind: 'unknown', name: String(register) }, ONE_POWER),
      }),
    );
    for (const inner of values) this.#do(inner);
    names.forEach((name, i) => this.#known.set(name, this.#form(results[i] ?? -1, '', span)));
    for (let round = 0; round < names.length; round += 1)
      for (const [i, name] of names.entries()) {
        const form = putIn(this.#known.get(name) ?? NO_FORM, this.#known);
        if ([...form.values()].some(({ basis }) => basis.kind === 'unknown' && basis.name === name))
          throw new NoForm(`${this.#nameOf(unknowns[i] ?? -1)} appears on both sides outside f`, span);
        this.#known.set(name, form);
      }
    unknowns.forEach((register, i) =>
      this.#values.set(register, { kind: 'form', form: this.#known.get(names[i] ?? '') ?? NO_FORM }),
    );
    this.stages.forEach((stage, i) => {
      const completed = this.#completed(stage);
      this.stages[i] = completed;
      // the same evaluation below the solve line is that stage
      this.#stageKeys.set(stageKey(completed), i);
    });
  }

  #nameOf(register: Register): string {
    const line = this.#program.lines.find((one) => one.register === register);
    return line === undefined ? '' : givenText(line.given);
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
  #nameStage({ given, register }: ProgramLine): void {
    const value = this.#values.get(register);
    if (value?.kind !== 'form') return;
    const [term, other] = value.form.values();
    if (term === undefined || other !== undefined || term.basis.kind !== 'stage') return;
    const place = term.basis.stage;
    const stage = this.stages[place];
    const name = givenText(given);
    const isNew = this.#madeIn[place]?.split(', ').includes(name) === true;
    if (stage !== undefined && isNew && stage.name === null) this.stages[place] = { ...stage, name };
  }

  /** What a register holds, as it is read in a line. */
  #read(register: Register, line: string, span: Span): Value {
    const { presentRhs, kept } = this.#program;
    const back =
      register === presentRhs ? 0 : kept.find((one) => one.register === register && one.of === 'f')?.back;
    if (back !== undefined) return this.#keptRhs(back, line, span);
    const value = this.#values.get(register);
    if (value === undefined) throw new NoForm('this has no value yet at this line', span);
    return value;
  }

  #keptRhs(back: number, line: string, span: Span): Value {
    const [first, second] = [this.#kept(0, back).form, this.#kept(1, back).form];
    const at = this.#program.form === 'first order' ? { y: first } : { x: first, v: second };
    const shift = amountOf(-back);
    return this.#stage({ name: null, shift, at, primes: 0, partial: null, span }, line);
  }

  #form(register: Register, line: string, span: Span): LinearForm {
    const value = this.#read(register, line, span);
    if (value.kind === 'form') return value.form;
    if (constantIn(value)?.value === 0) return NO_FORM;
    throw new NoForm('a number appears where a value of the solution is expected', span);
  }

  #value(node: StepTree, line: string): Value {
    return boundedValue(this.#valueOf(node, line), node.at);
  }

  #valueOf(node: StepTree, line: string): Value {
    switch (node.kind) {
      case 'number':
        return scalar(monomial(this.#amount(node.value)));
      case 'bound':
        return this.#leaf(node.to, line, node.at);
      case 'negate':
        return negated(this.#value(node.of, line));
      case 'binary':
        return this.#binary(node, line);
      case 'call':
        return this.#call(node, line);
      case 'if':
        throw new NoForm('if(...) is not linear', node.at);
    }
  }

  #leaf(leaf: StepLeaf, line: string, span: Span): Value {
    switch (leaf.kind) {
      case 'time':
        return scalar(leaf.offset === 0 ? NO_POWERS : monomial(amountOf(leaf.offset), 1), UNIT);
      case 'step':
        return scalar(monomial(UNIT, 1));
      case 'constant':
        return scalar(monomial(inexactly(leaf.value)));
      case 'register':
      case 'tangent':
        return this.#read(leaf.register, line, span);
    }
  }

  #binary(node: StepTree & { readonly kind: 'binary' }, line: string): Value {
    const left = this.#value(node.left, line);
    const right = this.#value(node.right, line);
    switch (node.operator) {
      case '+':
        return sum(left, right, node.at);
      case '-':
        return sum(left, negated(right), node.at);
      case '*':
        return this.#product(left, right, node.at, line);
      case '/':
        return this.#product(left, inverse(right, node.right.at), node.at, line);
      case '^':
        return power(left, right, node.at);
    }
  }

  #product(a: Value, b: Value, span: Span, line: string): Value {
    if (a.kind === 'scalar' && b.kind === 'scalar') return productOfNumbers(a, b, span);
    if (a.kind === 'scalar' || b.kind === 'scalar') {
      const [factor, value] = a.kind === 'scalar' ? [a, b] : [b, a];
      if (factor.kind !== 'scalar' || value.kind === 'scalar' || factor.t.value !== 0)
        throw new NoForm('a value of the solution is multiplied by t', span);
      return scaled(value, factor.powers);
    }
    if (a.kind === 'operator' && b.kind === 'operator') return composed(a, b, span);
    if (a.kind === 'inverse' || b.kind === 'inverse') {
      const [by, value] = a.kind === 'inverse' ? [a, b] : [b, a];
      if (by.kind !== 'inverse' || value.kind !== 'form')
        throw new NoForm('a derivative with respect to y is divided', span);
      return scaled(this.#solved(by.of, value.form, line, span), by.factor);
    }
    if (a.kind === 'operator' || b.kind === 'operator') {
      const [map, value] = a.kind === 'operator' ? [a, b] : [b, a];
      if (map.kind !== 'operator' || value.kind === 'operator')
        throw new NoForm('two derivatives with respect to y are multiplied', span);
      return this.#applied(map, value, line, span);
    }
    const factors = [a, b].map((value) => (value.kind === 'product' ? value.factor : ONE_POWER));
    return {
      kind: 'product',
      forms: [a, b].flatMap((value) => (value.kind === 'form' ? [value.form] : value.forms)),
      factor: factors.reduce(multiplyPowers),
    };
  }

  /** A linear map of a value, or of several that are multiplied, as far as its derivatives take them. */
  #applied(
    map: Operator,
    to: Extract<Value, { readonly kind: 'form' | 'product' }>,
    line: string,
    span: Span,
  ): Value {
    const [first = NO_FORM, ...more] = to.kind === 'form' ? [to.form] : to.forms;
    const last = map.derivations.at(-1);
    if (last === undefined || (map.identity.size > 0 && (more.length > 0 || last.of.values > 1)))
      throw new NoForm('two values of the solution are multiplied', span);
    const along = [...last.along, first];
    const outer = map.derivations.slice(0, -1);
    let made: Value;
    if (along.length < last.of.values) made = { ...map, derivations: [...outer, { of: last.of, along }] };
    else {
      const inner = this.#evaluation({ ...last.of, line }, 0, { times: last.of.times, along });
      const whole =
        outer.length === 0
          ? scaled(inner, map.factor)
          : this.#applied({ ...map, identity: NO_POWERS, derivations: outer }, inner, line, span);
      made =
        map.identity.size === 0
          ? whole
          : sum(whole, scaled({ kind: 'form', form: first }, map.identity), span);
    }
    const factor = to.kind === 'product' ? to.factor : ONE_POWER;
    if (made.kind === 'scalar') return made;
    const result = scaled(made, factor);
    const [second] = more;
    if (second === undefined) return result;
    const rest: Value =
      more.length === 1
        ? { kind: 'form', form: second }
        : { kind: 'product', forms: more, factor: ONE_POWER };
    return this.#product(result, rest, span, line);
  }

  /** u of (c + m J) u = value: u = value/c - m/c J u, where J u is a stage that holds itself. */
  #solved(
    { identity, factor, derivations }: Operator,
    value: LinearForm,
    line: string,
    span: Span,
  ): Value & { readonly kind: 'form' } {
    const [derivation, ...others] = derivations;
    const unit = soleTerm(identity);
    if (derivation === undefined || others.length > 0 || derivation.of.values !== 1 || unit === null)
      throw new NoForm('something is divided by a derivative with respect to y', span);
    const inverted = monomial(over(UNIT, unit.amount), -unit.power);
    const { of } = derivation;
    const place = this.#placeOf({ ...of, line });
    const own = formOf(
      { kind: 'stage', stage: this.stages.length },
      oppositePowers(multiplyPowers(factor, inverted)),
    );
    const form = addForms(scaleForm(value, inverted), own);
    this.#stage({ ...place, primes: 0, partial: { times: of.times, along: [form] } }, line);
    return { kind: 'form', form };
  }

  #partial(instruction: PartialInstruction): Value {
    const { times, values, along, line, span } = instruction;
    if (values === 0) return this.#evaluation(instruction, 0, { times, along: [] });
    if (along === null)
      return {
        kind: 'operator',
        identity: NO_POWERS,
        factor: ONE_POWER,
        derivations: [{ of: instruction, along: [] }],
      };
    return this.#evaluation(instruction, 0, { times, along: [this.#form(along, line, span)] });
  }

  #call(node: Call<Bound<StepLeaf>>, line: string): Value {
    const { name } = node;
    const inputs = node.inputs.map((input) => constantIn(this.#value(input, line)));
    const values = inputs.flatMap((amount) => (amount === null ? [] : [amount.value]));
    if (values.length < inputs.length)
      throw new NoForm(`${name} of h or of a value of the solution is not linear`, node.at);
    const made = applyFunction(name, values);
    const isWhole = inputs.every((amount) => amount?.exact != null) && Number.isInteger(made);
    return scalar(monomial(isWhole ? amountOf(made) : inexactly(made)));
  }

  #evaluation(
    instruction: EvaluationInstruction,
    primes: number,
    partial: FormStage['partial'],
  ): Value & { readonly kind: 'form' } {
    return this.#stage({ ...this.#placeOf(instruction), primes, partial }, instruction.line);
  }

  /** Where something is evaluated. */
  #placeOf({
    time,
    at,
    line,
    span,
  }: EvaluationInstruction): Pick<FormStage, 'name' | 'shift' | 'at' | 'span'> {
    const when = this.#value(time, line);
    if (when.kind !== 'scalar' || when.t.value !== 1)
      throw new NoForm('the time of this evaluation is not t plus a multiple of h', time.at);
    const sole = when.powers.size === 0 ? { power: 1, amount: NOTHING } : soleTerm(when.powers);
    if (sole === null || sole.power !== 1)
      throw new NoForm('the time of this evaluation is not t plus a multiple of h', time.at);
    const [first = NO_FORM, second] = [at].flat().map((register) => this.#form(register, line, span));
    const place = second === undefined ? { y: first } : { x: first, v: second };
    return { name: null, shift: sole.amount, at: place, span };
  }

  /** A stage as a form; the same evaluation twice is one. */
  #stage(stage: FormStage, line: string): Value & { readonly kind: 'form' } {
    const key = stageKey(stage);
    const known = this.#stageKeys.get(key);
    const place = known ?? this.stages.length;
    if (known === undefined) {
      if (place >= MAX_STAGES)
        throw new NoForm(
          `it has more than ${MAX_STAGES} evaluations, which is more than can be analysed`,
          stage.span,
        );
      this.stages.push(stage);
      this.#madeIn.push(line);
      this.#stageKeys.set(key, place);
    }
    return { kind: 'form', form: formOf({ kind: 'stage', stage: place }, ONE_POWER) };
  }
}

function productOfNumbers(
  a: Extract<Value, { readonly kind: 'scalar' }>,
  b: Extract<Value, { readonly kind: 'scalar' }>,
  span: Span,
): Value {
  if (a.t.value === 0 && b.t.value === 0) return scalar(multiplyPowers(a.powers, b.powers));
  const [withT, other] = a.t.value !== 0 ? [a, b] : [b, a];
  const by = constantIn(other);
  if (by === null) throw new NoForm('t is multiplied by something other than a number', span);
  return scalar(multiplyPowers(withT.powers, monomial(by)), times(withT.t, by));
}

/**
 * Reads a method as an exact linear form over kept values and slopes.
 *
 * @param amount what a number of the text is: a fraction, or a double where a quick look is enough
 * @returns the reason where it has none: then its order can only be observed
 *
 * @example readLinear(heun).stages.length // 2
 */
export function readLinear(
  method: Method,
  amount: (value: number) => Amount = amountOf,
): LinearMethod | NotLinear {
  const reader = new LinearReader(lower(method), amount);
  try {
    reader.read();
  } catch (thrown) {
    if (thrown instanceof NoForm) return { why: thrown.message, span: thrown.span };
    throw thrown;
  }
  const { stages } = reader;
  return inOrder({
    stages,
    next: reader.next(),
    lines: reader.lines(),
    depth: method.depth,
    oneEquation: method.oneEquation,
    implicit: stages.some((_, i) => needed(stages, i).has(i)),
  });
}
