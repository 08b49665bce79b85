import { amountText, less } from '../form/amount.ts';
import type { Condition } from './prove-order.ts';
import type { RootedTree } from './trees.ts';

const LETTERS = ['i', 'j', 'k', 'l', 'm', 'p', 'q', 'r', 's'];

/** A number as TeX: fractions as such. */
export function amountTex(amount: Condition['value']): string {
  const match = /^(-?)(\d+)\/(\d+)$/.exec(amountText(amount));
  return match === null ? amountText(amount) : `${match[1]}\\tfrac{${match[2]}}{${match[3]}}`;
}

/** A factor of such a sum: a letter, its indices and its power. */
interface Factor {
  readonly letter: 'a' | 'b' | 'c';
  readonly indices: string;
  readonly power: number;
}

/**
 * The factors above a vertex with an index. A leaf is c where c is the sum of a row; where the shifts in time are
 * others, c is that of a leaf `t` alone, and any other leaf has its sum over a.
 */
function above(tree: RootedTree, index: string, free: string[], withTime: boolean): readonly Factor[] {
  const isShift = ({ children, root }: RootedTree): boolean =>
    children.length === 0 && (withTime ? root === 't' : root !== 't');
  const shifts = tree.children.filter(isShift).length;
  const own: readonly Factor[] = shifts === 0 ? [] : [{ letter: 'c', indices: index, power: shifts }];
  return [
    ...own,
    ...tree.children
      .filter((child) => !isShift(child))
      .flatMap((child): readonly Factor[] => {
        const next = free.shift() ?? 'z';
        return [{ letter: 'a', indices: index + next, power: 1 }, ...above(child, next, free, withTime)];
      }),
  ];
}

/** The factors of the sum over stages that a tree of a first-order system asks for. */
function factorsOf(tree: RootedTree, withTime: boolean): readonly Factor[] {
  return [{ letter: 'b', indices: 'i', power: 1 }, ...above(tree, 'i', LETTERS.slice(1), withTime)];
}

/** The sum over stages that a tree of a first-order system asks for, such as `\sum_{i,j} b_{i} a_{ij} c_{j}`. */
export function treeSumTex(tree: RootedTree, withTime: boolean): string {
  const factors = factorsOf(tree, withTime);
  const over = [...new Set(factors.flatMap(({ indices }) => Array.from(indices)))];
  const texts = factors.map(
    ({ letter, indices, power }) => `${letter}_{${indices}}${power > 1 ? `^{${power}}` : ''}`,
  );
  return `\\sum_{${over.join(',')}} ${texts.join(' ')}`;
}

/** The same in plain letters: `sum b_i a_ij c_j`. */
function treeSumText(tree: RootedTree, withTime: boolean): string {
  const texts = factorsOf(tree, withTime).map(
    ({ letter, indices, power }) => `${letter}_${indices}${power > 1 ? `^${power}` : ''}`,
  );
  return `sum ${texts.join(' ')}`;
}

/**
 * A condition in TeX: what the formula has, and what it should have.
 *
 * @example conditionTex(inspection.order!.failing[0]!, true)
 */
export function conditionTex(
  { tree, order, value, should, withTime }: Condition,
  isRungeKutta: boolean,
): string {
  const left =
    tree === null
      ? order === 0
        ? '\\sum_j \\alpha_j'
        : `C_{${order}}`
      : isRungeKutta && tree.root === 'y'
        ? treeSumTex(tree, withTime)
        : '\\Phi(\\tau)';
  if (tree === null && order > 0)
    return `[h^{${order}} y^{(${order})}] = ${amountTex(value)},\\quad \\text{should be } ${amountTex(should)}`;
  return `${left} = ${amountTex(value)},\\quad \\text{should be } ${amountTex(should)}`;
}

/**
 * How far a condition is off, in TeX: the coefficient of its tree in the principal error.
 *
 * @example principalTex(inspection.order!.failing[0]!)
 */
export function principalTex({ value, should }: Condition): string {
  return amountTex(less(value, should));
}

/** A condition in plain letters, for a terminal: `sum b_i c_i^2 = 1/2, should be 1/3`. */
export function conditionText(condition: Condition, isRungeKutta: boolean): string {
  const { tree, order, value, should, withTime } = condition;
  const left =
    tree === null
      ? order === 0
        ? 'sum alpha_j'
        : `factor of h^${order} y^(${order})`
      : isRungeKutta && tree.root === 'y'
        ? treeSumText(tree, withTime)
        : `tree ${treeText(tree)}`;
  return `${left} = ${amountText(value)}, should be ${amountText(should)}`;
}

/** A tree in brackets: `[[y]y]`, its root first. */
export function treeText({ root, children }: RootedTree): string {
  return children.length === 0 ? root : `${root === 'y' ? '' : root}[${children.map(treeText).join('')}]`;
}
