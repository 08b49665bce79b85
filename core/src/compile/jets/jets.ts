import type { CodeNode } from '../nodes/code-node.ts';
import type { RhsTree } from '../../program/rhs-tree.ts';
import type { Coefficient, Series } from './series.ts';

/** Makes a further series, along with the one it belongs to: coefficient k from those below it. */
export type MakeSeries = (k: number, own: Series) => Coefficient;

/** What the rules of powers and functions may ask of the series around them. */
export interface Jets {
  readonly coefficient: (node: RhsTree, k: number) => Coefficient;
  /** Coefficients 0..k. */
  readonly series: (node: RhsTree, k: number) => Series;
  /** Coefficient 0 as a node that can be an input of a function. */
  readonly zeroth: (node: RhsTree) => CodeNode;
  /** Those of a node itself that were made before. */
  readonly own: (node: RhsTree) => Series;
  /** A further series that belongs to a node, under a key, up to coefficient k. */
  readonly partner: (node: RhsTree, key: string, k: number, make: MakeSeries) => Series;
  /** The coefficient of a*b. */
  readonly product: (left: RhsTree, right: RhsTree, k: number) => Coefficient;
  readonly kept: (piece: Coefficient) => Coefficient;
}
