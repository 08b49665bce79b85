import {
  binary,
  type Call,
  type Expression,
  type IndexedLeaf,
  type NameLeaf,
  negate,
  some,
} from '../formula/expression.ts';
import { partialOf } from '../method/method.ts';
import { constantTree, type Register, type StepTree } from './step-tree.ts';

/** A Jacobian, scaled and added up: what comes of applying it to a vector. */
export type Operator = (vector: Register) => StepTree;

/** What the code of Jacobians asks of the step around it. */
export interface Around {
  readonly expand: (part: Expression) => StepTree;
  /** The register of a vector. */
  readonly place: (value: StepTree) => Register;
  readonly isOperator: (part: Expression) => boolean;
  /** Jacobians that lines above have given names. */
  readonly named: ReadonlyMap<string, Operator>;
  readonly jacobian: (node: Call<NameLeaf | IndexedLeaf>) => Operator;
  readonly called: (node: Call<NameLeaf | IndexedLeaf>) => StepTree | null;
}

/** Stands in for what the reader of methods has refused before. */
const NEVER = constantTree(NaN);

/** Whether a formula holds a Jacobian, by itself or by a name that a line above gives. */
export function holdsOperator(expression: Expression, named: ReadonlyMap<string, Operator>): boolean {
  return some(
    expression,
    (node) =>
      (node.kind === 'call' && partialOf(node.name)?.values === 1) ||
      (node.kind === 'name' && named.has(node.name)),
  );
}

/** A formula in which Jacobians are applied to vectors. */
export function applied(node: Expression, around: Around): StepTree {
  const { expand } = around;
  switch (node.kind) {
    case 'negate':
      return negate(expand(node.of), node.at);
    case 'if':
      return {
        ...node,
        test: { ...node.test, left: expand(node.test.left), right: expand(node.test.right) },
        yes: expand(node.yes),
        no: expand(node.no),
      };
    case 'call':
      return around.called(node) ?? NEVER;
    case 'binary':
      return node.operator === '*' && around.isOperator(node.left)
        ? operatorOf(node.left, around)(around.place(expand(node.right)))
        : binary(node.operator, expand(node.left), expand(node.right), node.at);
    default:
      return NEVER;
  }
}

/** A Jacobian, a multiple of one, or a sum of some. */
export function operatorOf(node: Expression, around: Around): Operator {
  switch (node.kind) {
    case 'name':
      return around.named.get(node.name) ?? (() => NEVER);
    case 'negate': {
      const of = operatorOf(node.of, around);
      return (vector) => negate(of(vector), node.at);
    }
    case 'call':
      return around.jacobian(node);
    case 'binary': {
      const part = (side: Expression): Operator => {
        if (around.isOperator(side)) return operatorOf(side, around);
        const scalar = around.expand(side);
        return () => scalar;
      };
      const [left, right] = [part(node.left), part(node.right)];
      return (vector) => binary(node.operator, left(vector), right(vector), node.at);
    }
    default:
      return () => NEVER;
  }
}
