import { type Amount, exactText, NOTHING } from './amount.ts';
import { addPowers, multiplyPowers, oppositePowers, type Powers, soleTerm } from './powers.ts';

/**
 * What values of a method are made of: kept values `y[n-j]` (or x, v), stages, and values that a solve line finds.
 * A form is a sum of these, each with its powers of h.
 */
export type Basis =
  | { readonly kind: 'kept'; readonly variable: 'y' | 'x' | 'v'; readonly back: number }
  | { readonly kind: 'stage'; readonly stage: number }
  | { readonly kind: 'unknown'; readonly name: string };

export function basisKey(basis: Basis): string {
  switch (basis.kind) {
    case 'kept':
      return `${basis.variable}[${basis.back}]`;
    case 'stage':
      return `k${basis.stage}`;
    case 'unknown':
      return `?${basis.name}`;
  }
}

export interface Term {
  readonly basis: Basis;
  readonly factor: Powers;
}

/** A linear form over values of the solution and slopes. */
export type LinearForm = ReadonlyMap<string, Term>;

export const NO_FORM: LinearForm = new Map();

export function formOf(basis: Basis, factor: Powers): LinearForm {
  return factor.size === 0 ? NO_FORM : new Map([[basisKey(basis), { basis, factor }]]);
}

export function addForms(a: LinearForm, b: LinearForm): LinearForm {
  const sum = new Map(a);
  for (const [key, { basis, factor }] of b) {
    const before = sum.get(key);
    const total = before === undefined ? factor : addPowers(before.factor, factor);
    if (total.size === 0) sum.delete(key);
    else sum.set(key, { basis, factor: total });
  }
  return sum;
}

function mapped(form: LinearForm, change: (factor: Powers) => Powers): LinearForm {
  return new Map([...form].map(([key, { basis, factor }]) => [key, { basis, factor: change(factor) }]));
}

export function scaleForm(form: LinearForm, by: Powers): LinearForm {
  if (by.size === 0) return NO_FORM;
  return mapped(form, (factor) => multiplyPowers(factor, by));
}

export function oppositeForm(form: LinearForm): LinearForm {
  return mapped(form, oppositePowers);
}

/** The values of earlier steps that a form holds, each with its factor. */
export function keptIn(
  form: LinearForm,
  variable: 'y' | 'x' | 'v',
): readonly { readonly back: number; readonly amount: Amount }[] {
  return [...form.values()].flatMap(({ basis, factor }) =>
    basis.kind === 'kept' && basis.variable === variable
      ? [{ back: basis.back, amount: soleTerm(factor)?.amount ?? NOTHING }]
      : [],
  );
}

/** The form with its stages counted otherwise. */
export function withStages(form: LinearForm, placeOf: (stage: number) => number): LinearForm {
  return new Map(
    [...form.values()].map(({ basis, factor }) => {
      const moved: Basis = basis.kind === 'stage' ? { ...basis, stage: placeOf(basis.stage) } : basis;
      return [basisKey(moved), { basis: moved, factor }];
    }),
  );
}

/** The form with other forms in place of values that were not known yet. */
export function putIn(form: LinearForm, known: ReadonlyMap<string, LinearForm>): LinearForm {
  let made = NO_FORM;
  for (const { basis, factor } of form.values()) {
    const value = basis.kind === 'unknown' ? known.get(basis.name) : undefined;
    made = addForms(made, value === undefined ? formOf(basis, factor) : scaleForm(value, factor));
  }
  return made;
}

/** Text by which equal forms are found. */
export function formKey(form: LinearForm): string {
  return [...form]
    .map(([key, { factor }]) => {
      const powers = [...factor]
        .sort(([p], [q]) => p - q)
        .map(([power, { exact, value }]) => `${exact === null ? value : exactText(exact)}h${power}`);
      return `${key}:${powers.join('+')}`;
    })
    .sort()
    .join(' ');
}
