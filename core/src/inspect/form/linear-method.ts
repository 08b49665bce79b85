import type { Span } from '../../text/place.ts';
import type { Amount } from './amount.ts';
import type { Form } from './form.ts';

/** One evaluation of f (or of a, or of a derivative of it) inside a step. */
export interface FormStage {
  /** The name that a line gives to this evaluation alone; null where it stands inside of a longer formula. */
  readonly name: string | null;
  /** Where it is evaluated: t[n] + shift*h. */
  readonly shift: Amount;
  /** Where it is evaluated: y, or x and v. */
  readonly at: { readonly y: Form } | { readonly x: Form; readonly v: Form };
  /** Total derivative along the solution: 0 for f itself, 1 for f'. */
  readonly primes: number;
  /** Partial derivatives: how often by t, and the vectors that derivatives by y are applied to; null for f itself. */
  readonly partial: { readonly times: number; readonly along: readonly Form[] } | null;
  readonly span: Span;
}

/** A line of the text as a form, for what is said about lines. */
export interface FormLine {
  readonly name: string;
  readonly form: Form;
  readonly span: Span;
}

/**
 * A method read as an exact linear form: what a step makes of kept values and of the slopes it looks at, with
 * coefficients that are polynomials in h.
 */
export interface LinearMethod {
  readonly stages: readonly FormStage[];
  /** The new values: of y, or of x and v. */
  readonly next: { readonly y: Form } | { readonly x: Form; readonly v: Form };
  readonly lines: readonly FormLine[];
  readonly depth: number;
  /** Whether some stage needs itself, or one that comes after it. */
  readonly implicit: boolean;
}

/** Why a text is no linear form. */
export interface NotLinear {
  readonly why: string;
  readonly span: Span;
}
