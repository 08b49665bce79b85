import type { Span } from '../../text/place.ts';
import { type Amount, exactText } from './amount.ts';
import { type LinearForm, formKey, withStages } from './form.ts';

/** One evaluation of f (or of a, or of a derivative of it) inside a step. */
export interface FormStage {
  /** The name that a line gives to this evaluation alone; null where it is inside of a longer formula. */
  readonly name: string | null;
  /** Where it is evaluated: t[n] + shift*h. */
  readonly shift: Amount;
  /** Where it is evaluated: y, or x and v. */
  readonly at: { readonly y: LinearForm } | { readonly x: LinearForm; readonly v: LinearForm };
  /** Total derivative along the solution: 0 for f itself, 1 for f'. */
  readonly primes: number;
  /** Partial derivatives: how often by t, and the vectors that derivatives by y are applied to; null for f itself. */
  readonly partial: { readonly times: number; readonly along: readonly LinearForm[] } | null;
  readonly span: Span;
}

/** A line of the text as a form, for what is said about lines. */
export interface FormLine {
  readonly name: string;
  readonly form: LinearForm;
  readonly span: Span;
}

/**
 * A method read as an exact linear form: what a step makes of kept values and of the slopes it looks at, with
 * coefficients that are polynomials in h.
 */
export interface LinearMethod {
  readonly stages: readonly FormStage[];
  /** The new values: of y, or of x and v. */
  readonly next: { readonly y: LinearForm } | { readonly x: LinearForm; readonly v: LinearForm };
  readonly lines: readonly FormLine[];
  readonly depth: number;
  /** Whether it is for problems of one equation alone. */
  readonly oneEquation: boolean;
  /** Whether some stage needs itself, or one that comes after it. */
  readonly implicit: boolean;
}

/** Why a text is not linear. */
export interface NotLinear {
  readonly why: string;
  readonly span: Span;
}

/** Stages that a form holds. */
export function stagesOf(form: LinearForm): readonly number[] {
  return [...form.values()].flatMap(({ basis }) => (basis.kind === 'stage' ? [basis.stage] : []));
}

/** All forms at which a stage is evaluated, and those that derivatives are applied to. */
export function formsAt({ at, partial }: FormStage): readonly LinearForm[] {
  return [...('y' in at ? [at.y] : [at.x, at.v]), ...(partial?.along ?? [])];
}

/** All stages that a stage rests on, at once or by way of others; itself among them where it is implicit. */
export function needed(stages: readonly FormStage[], of: number): ReadonlySet<number> {
  const found = new Set<number>();
  const look = (i: number): void => {
    for (const form of formsAt(stages[i]!))
      for (const j of stagesOf(form))
        if (!found.has(j)) {
          found.add(j);
          look(j);
        }
  };
  look(of);
  return found;
}

/** Whether stages wait for one another, and not for themselves alone. */
export function areCoupled(stages: readonly FormStage[]): boolean {
  return stages.some((stage, i) =>
    formsAt(stage).some((form) => stagesOf(form).some((j) => j !== i && needed(stages, j).has(i))),
  );
}

/**
 * The same method with every stage behind those it rests on, whatever the order of the terms in its text; as it is where
 * stages wait for one another.
 */
export function inOrder(method: LinearMethod): LinearMethod {
  const { stages, next } = method;
  if (!method.implicit || areCoupled(stages)) return method;
  const order = stages
    .map((_, i) => ({ i, before: [...needed(stages, i)].filter((j) => j !== i).length }))
    .sort((a, b) => a.before - b.before)
    .map(({ i }) => i);
  const placed = (form: LinearForm): LinearForm => withStages(form, (stage) => order.indexOf(stage));
  return {
    ...method,
    stages: order.map((i) => {
      const { at, partial, ...rest } = stages[i]!;
      return {
        ...rest,
        at: 'y' in at ? { y: placed(at.y) } : { x: placed(at.x), v: placed(at.v) },
        partial: partial && { ...partial, along: partial.along.map(placed) },
      };
    }),
    next: 'y' in next ? { y: placed(next.y) } : { x: placed(next.x), v: placed(next.v) },
    lines: method.lines.map((line) => ({ ...line, form: placed(line.form) })),
  };
}

/** Text by which equal evaluations are found. */
export function stageKey(stage: FormStage): string {
  const { primes, partial, shift } = stage;
  return [
    primes,
    partial?.times ?? '',
    shift.exact === null ? shift.value : exactText(shift.exact),
    ...formsAt(stage).map(formKey),
  ].join('|');
}
