import { type Amount, NOTHING } from './amount.ts';
import type { LinearForm } from './form.ts';
import { kindOf } from './kind.ts';
import type { LinearMethod } from './linear-method.ts';
import { soleTerm } from './powers.ts';

/** The coefficients of a Runge-Kutta method: c of s stages, A of s x s, b of s. */
export interface Tableau {
  readonly c: readonly Amount[];
  readonly A: readonly (readonly Amount[])[];
  readonly b: readonly Amount[];
}

/** The coefficients of a method with an embedded formula, whose weights are a second row below b. */
export interface EmbeddedTableau extends Tableau {
  readonly embedded: readonly Amount[];
}

/**
 * The coefficients of a linear multistep formula: y[n+1] = sum alpha_j y[n-j] + h (next f[n+1] + sum beta_j f[n-j]).
 */
export interface MultistepCoefficients {
  readonly alpha: readonly Amount[];
  readonly beta: readonly Amount[];
  /** The factor of f at the new value; zero for an explicit formula. */
  readonly next: Amount;
}

function factorsOf(form: LinearForm, stages: number): readonly Amount[] {
  return Array.from({ length: stages }, (_, j) => {
    const term = form.get(`k${j}`);
    return (term && soleTerm(term.factor)?.amount) ?? NOTHING;
  });
}

/** The tableau of a Runge-Kutta method; null for any other. */
export function tableauOf(method: LinearMethod): Tableau | null {
  const { next, stages } = method;
  if (!kindOf(method).endsWith('Runge-Kutta') || !('y' in next)) return null;
  return {
    c: stages.map(({ shift }) => shift),
    A: stages.map(({ at }) => ('y' in at ? factorsOf(at.y, stages.length) : [])),
    b: factorsOf(next.y, stages.length),
  };
}

/**
 * The tableau of a method with both of its rows of weights, from the method that goes on with the embedded formula.
 *
 * @param advanced what y[n+1] is called there
 */
export function embeddedTableauOf(method: LinearMethod, advanced: string): EmbeddedTableau | null {
  const tableau = tableauOf(method);
  const line = method.lines.find(({ name }) => name === advanced);
  if (tableau === null || line === undefined) return null;
  return { ...tableau, b: factorsOf(line.form, method.stages.length), embedded: tableau.b };
}

/** The coefficients of a linear multistep formula; null for any other method. */
export function multistepOf(method: LinearMethod): MultistepCoefficients | null {
  const { next, stages, depth } = method;
  if (!kindOf(method).endsWith('linear multistep') || !('y' in next)) return null;
  const form = next.y;
  const amountAt = (key: string): Amount => {
    const term = form.get(key);
    return (term && soleTerm(term.factor)?.amount) ?? NOTHING;
  };
  const betaAt = (shift: number): Amount => {
    const stage = stages.findIndex((one) => one.shift.value === shift);
    return stage < 0 ? NOTHING : amountAt(`k${stage}`);
  };
  const back = Array.from({ length: depth + 1 }, (_, j) => j);
  return {
    alpha: back.map((j) => amountAt(`y[${j}]`)),
    beta: back.map((j) => betaAt(-j)),
    next: betaAt(1),
  };
}
