import { type Expression, some, walk } from '../formula/expression.ts';
import { CONSTANTS } from '../formula/functions.ts';
import { type Complaints, PlaceError, type Span } from '../text/place.ts';
import {
  type Given,
  givenText,
  type Method,
  type MethodStatement,
  partialOf,
  type Shape,
  type Shapes,
  type Variable,
} from './method.ts';
import type { RawStatement } from './read-line.ts';
import { type MethodNames, shapeOf } from './shape.ts';

type RawFunction = RawStatement & { readonly kind: 'function' };
type RawFormula = Exclude<RawStatement, RawFunction>;

/** What the lines of a method say, in their order, and which new values they give. */
export interface Understood {
  readonly statements: readonly MethodStatement[];
  readonly nexts: ReadonlySet<Variable>;
  readonly shapes: Shapes;
  /** Whether they were read for one equation, whose values multiply like numbers. */
  readonly oneEquation: boolean;
}

/** Gives every line its shape, in the order of the text. */
class Understanding {
  readonly statements: MethodStatement[] = [];
  readonly nexts = new Set<Variable>();
  readonly shapes = new Map<Expression, Shape>();
  readonly #lets = new Map<string, Shape>();
  readonly #functions = new Set<string>();
  readonly #form: Method['form'];
  readonly #oneEquation: boolean;
  readonly #lost: ReadonlySet<string>;
  readonly #complaints: Complaints;

  constructor(form: Method['form'], oneEquation: boolean, lost: ReadonlySet<string>, complaints: Complaints) {
    this.#lost = lost;
    this.#form = form;
    this.#oneEquation = oneEquation;
    this.#complaints = complaints;
  }

  read(raw: RawStatement, isLater: MethodNames['isLater']): void {
    if (raw.kind === 'function') {
      this.#function(raw);
      return;
    }
    for (const { given, at } of raw.given) {
      const twice =
        given.kind === 'name'
          ? this.#lets.has(given.name) || this.#functions.has(given.name)
          : this.nexts.has(given.variable);
      if (twice) this.#complaints.add(at, `${givenText(given)} is given twice`);
    }
    if (raw.kind === 'solve') this.#solve(raw, isLater);
    else this.#let(raw, isLater);
  }

  #shape(
    value: Expression,
    isLater: MethodNames['isLater'],
    own: string | null,
    { at }: { readonly at: Span },
  ): Shape | null {
    const names = {
      form: this.#form,
      lets: this.#lets,
      nexts: this.nexts,
      functions: this.#functions,
      oneEquation: this.#oneEquation,
      isLater,
      own,
      from: at.from,
      lost: this.#lost,
      shapes: this.shapes,
    };
    return this.#complaints.attempt(() => shapeOf(value, names));
  }

  /** The body of a function knows its two inputs, numbers that are given above, and functions that are. */
  #function({ name, inputs, value, line }: RawFunction): void {
    if (this.#functions.has(name) || this.#lets.has(name))
      this.#complaints.add(line.at, `${name} is given twice`);
    const [time, state] = inputs;
    const numbers = [...this.#lets].filter(([, shape]) => shape === 'scalar');
    const own = `${name}(${time}, ${state})`;
    this.#complaints.attempt(() => {
      walk(value, (node) => {
        if (node.kind === 'indexed')
          throw new PlaceError(node.at, `${own} uses ${time} and ${state} without an index`);
        if (node.kind !== 'name' || inputs.includes(node.name) || CONSTANTS.has(node.name)) return;
        if (numbers.some(([known]) => known === node.name)) return;
        throw new PlaceError(
          node.at,
          `${node.name} is not known in ${own}, which may contain ${time}, ${state} and numbers defined above, such as ${node.name} = 1; parameters of the problem are not available here`,
        );
      });
      shapeOf(value, {
        form: this.#form,
        lets: new Map<string, Shape>([...numbers, [time, 'scalar'], [state, 'vector']]),
        nexts: new Set(),
        functions: this.#functions,
        oneEquation: true,
        isLater: () => false,
        own: null,
        from: line.at.from,
        lost: this.#lost,
        shapes: this.shapes,
      });
    });
    this.#functions.add(name);
    this.statements.push({ kind: 'function', name, inputs, value, at: line.at });
  }

  #let(raw: RawFormula, isLater: MethodNames['isLater']): void {
    const [target] = raw.given;
    const [value] = raw.values;
    if (target === undefined || value === undefined) return;
    const { given } = target;
    const shape =
      this.#shape(value, isLater, given.kind === 'name' ? given.name : null, raw.line) ?? 'vector';
    if (given.kind === 'next' && shape !== 'vector')
      this.#complaints.add(
        value.at,
        shape === 'scalar'
          ? `${givenText(given)} must depend on values of the solution; this is a number`
          : `${givenText(given)} must depend on values of the solution; this is a Jacobian, to be multiplied by a vector such as f(t, y)`,
      );
    this.#take(given, shape);
    this.statements.push({ kind: 'let', given, shape, value, at: raw.line.at });
  }

  #solve(raw: RawFormula, isLater: MethodNames['isLater']): void {
    for (const { given } of raw.given) this.#take(given, 'vector');
    for (const value of raw.values)
      if (this.#shape(value, isLater, null, raw.line) === 'scalar')
        this.#complaints.add(value.at, 'solve finds values of the solution or slopes; this is a number');
    for (const value of raw.values)
      walk(value, (node) => {
        const isDerivative =
          node.kind === 'call' &&
          (node.primes > 0 || partialOf(node.name) !== null || this.#functions.has(node.name));
        if (isDerivative)
          this.#complaints.add(
            node.at,
            'derivatives of f are not allowed inside solve; define them on a line above',
          );
      });
    const given = raw.given.map((target) => target.given);
    this.statements.push({ kind: 'solve', given, values: raw.values, at: raw.line.at });
  }

  #take(given: Given, shape: Shape): void {
    if (given.kind === 'name') this.#lets.set(given.name, shape);
    else this.nexts.add(given.variable);
  }
}

/** Whether some line calls a function of the text or a partial derivative of f. */
export function hasDerivatives(raw: readonly RawStatement[]): boolean {
  return raw.some((statement) =>
    statement.kind === 'function'
      ? true
      : statement.values.some((value) =>
          some(value, (node) => node.kind === 'call' && partialOf(node.name) !== null),
        ),
  );
}

/** The lines of a method, one by one. */
export interface ReadLines {
  readonly raw: readonly RawStatement[];
  readonly form: Method['form'];
  /** Names that lines give which could not be read. */
  readonly lost: ReadonlySet<string>;
}

/** Finds what the lines of a method mean, for systems or for one equation; what is wrong goes to the complaints. */
export function understand(
  { raw, form, lost }: ReadLines,
  oneEquation: boolean,
  complaints: Complaints,
): Understood {
  const understanding = new Understanding(form, oneEquation, lost, complaints);
  const lastGiven = new Map<string, number>();
  raw.forEach((statement, i) => {
    if (statement.kind === 'function') return;
    for (const { given } of statement.given) if (given.kind === 'name') lastGiven.set(given.name, i);
  });
  raw.forEach((statement, i) => understanding.read(statement, (name) => (lastGiven.get(name) ?? -1) > i));
  const { statements, nexts, shapes } = understanding;
  return { statements, nexts, shapes, oneEquation };
}
