import type { Figures } from './figures.ts';

/** What a finding is about; the figures of each kind are in figures.ts. */
export type FindingKind = keyof Figures;

/** A fact that a rule has found: what it is about, which rungs it speaks of, and the figures it rests on. */
export interface FactOf<K extends FindingKind> {
  readonly kind: K;
  /** Indices of the rungs of the method (or of every method) that it speaks of. */
  readonly rungs: readonly number[];
  readonly tone: 'good' | 'trouble' | 'plain';
  readonly figures: Figures[K];
}

/** A fact of any kind. */
export type Fact = { readonly [K in FindingKind]: FactOf<K> }[FindingKind];

/**
 * A fact about a study with its sentence. Every rule makes one kind of it, and keeps silent where it is not sure: no
 * finding is better than a wrong one.
 */
export type Finding = Fact & {
  /** Index of the method it is about; null for the study as a whole. */
  readonly method: number | null;
  readonly sentence: string;
};
